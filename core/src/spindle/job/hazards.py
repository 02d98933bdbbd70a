"""What keeps the power off, or a hand: opened by what was done or found, until it is cleared, has passed, or somebody lifts it by name."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from enum import StrEnum
from math import ceil
from types import MappingProxyType
from typing import Final

from spindle.diagnosis.given.case import Answer, Finding
from spindle.drives.tables import Row
from spindle.words.bench import Power

END_OF_TIME: Final = datetime.max.replace(tzinfo=UTC)
"""At this moment only what never passes by itself is open."""
DRY_MIN: Final = 5
"""Minutes that cleaner is given to dry: what the caution says, and what the bottles of the trade ask for at least."""
WARM_MIN: Final = 10
"""Minutes of running until a drive counts as warm, where its sheet does not say: bearings and lens have taken the heat of the case by then."""
COLD_MIN: Final = 20
"""Minutes with the mains out until it counts as cold again, where its sheet does not say: about twice as long as it took to warm."""
CHARGE: Final = "charge"
COLD: Final = "cold"
WARM: Final = "warm"


class Bars(StrEnum):
    """What a hold keeps from being done."""

    POWER = "power"
    OPENING = "opening"
    COLD_START = "cold start"
    WARM_START = "warm start"


@dataclass(frozen=True, slots=True)
class HazardKind:
    """One kind of hold.

    Attributes
    ----------
    name : what a line calls it
    text : what it says while it is open
    clears : what is said when its own test is done; "" if another line clears it
    lasts_min : minutes after which it has passed by itself, where the drive's sheet does not say; None if it never does
    bars : what it keeps from being done
    """

    name: str
    text: str
    clears: str = ""
    lasts_min: float | None = None
    bars: Bars = Bars.POWER


HAZARDS: Final = MappingProxyType(
    {
        "rattle": HazardKind("rattle", "Something rattles inside. Open it with the mains out, find it, then answer the rattle check again: silent."),
        "object": HazardKind(
            "something found inside",
            "Something was found inside that does not belong there. Take it out with the mains out, then search the rest.",
            clears="It is out, and the rest was searched",
        ),
        "wet": HazardKind("wet cleaner", "Cleaner has to dry before power: it burns, and a wet part looks like a bad one.", lasts_min=DRY_MIN),
        "soldered": HazardKind(
            "board soldered",
            "The board was soldered since the last short test. Measure from the load side of the fuse to ground before power returns.",
            clears="Short test done: no short",
        ),
        "short": HazardKind(
            "a short behind the fuse",
            "A short behind the fuse is not ruled out: power would blow it again, or burn what shorts. Find it, then measure from the fed side to ground.",
            clears="Measured again: no short",
        ),
        "flex": HazardKind(
            "flex one over or short",
            "A flex may sit one track over, or two of its tracks are short: a line stands on its neighbour's. Seat it again, then read it track by track.",
            clears="Seated again and read: sound",
        ),
        "polarity": HazardKind(
            "capacitors changed",
            "Capacitors were changed, and their polarity was not seen twice since. A reversed one bursts.",
            clears="Polarity seen twice by the board's mark",
        ),
        CHARGE: HazardKind(
            "charge in the supply",
            "Charge remains in the supply after the plug is pulled. No hand goes in before its minute, or before it was measured.",
            clears="Measured across the large capacitor: under 5 V",
            bars=Bars.OPENING,
        ),
        COLD: HazardKind("not cold", "It ran a while ago: a start is cold once it has stood with the mains out.", bars=Bars.COLD_START, lasts_min=COLD_MIN),
        WARM: HazardKind("not warm", "A start counts as warm once it has run for a while.", bars=Bars.WARM_START, lasts_min=WARM_MIN),
    }
)
_WAITS: Final = MappingProxyType({"plug": CHARGE, "cleaner": "wet", "cool": COLD, "warm": WARM})
"""What a sheet says how long to wait for -> the hold that lasts so long."""
Waits = Mapping[str, float]


def waits_of(rows: Iterable[Row]) -> Waits:
    """Return how long each hold lasts on a drive, by the waits that its sheet names, in minutes."""
    return {_WAITS[str(r["what"])]: float(str(r["minutes"])) for r in rows}


_LOOSE: Final = MappingProxyType(
    {"rattle": ("rattle", "rattles", "silent"), "object_search": ("object", "found", "nothing"), "short_test": ("short", "short", "none")}
)
"""Question -> the hold that it opens, the answer that opens it, the answer that clears it."""


@dataclass(frozen=True, slots=True)
class Hold:
    """A hazard that a line opened, and when."""

    code: str
    at: datetime
    cleared_by: str = ""
    """The id of the step that cleared it, or "hand" or "finding"; "" while nothing has."""
    of: frozenset[str] = frozenset()
    """Which things it is about, where somebody measured them by name: a sound flex says nothing of another."""
    lasts_min: float | None = None

    @property
    def until(self) -> datetime | None:
        """When it has passed by itself; None if it never does."""
        return None if self.lasts_min is None else self.at + timedelta(minutes=self.lasts_min)

    def is_open(self, now: datetime) -> bool:
        """Tell whether it still bars at a moment what it bars."""
        return not self.cleared_by and (self.until is None or now < self.until)


Holds = Mapping[str, Hold]


@dataclass(frozen=True, slots=True)
class Hazard:
    """One open hazard: what it is and bars, what clears it at the bench, and when it has passed by itself."""

    code: str
    text: str
    clears: str = ""
    until: datetime | None = None
    bars: Bars = Bars.POWER

    def says(self, now: datetime) -> str:
        """What it is, and how long it bars still."""
        return self.text if self.until is None else f"{self.text} {ceil((self.until - now).total_seconds() / 60)} min more."


def opened(holds: Holds, codes: Iterable[str], at: datetime, waits: Waits = MappingProxyType({})) -> Holds:
    """Return the holds with these open from then on, as long as the drive's sheet says."""
    return {**holds, **{code: Hold(code, at, lasts_min=waits.get(code, HAZARDS[code].lasts_min)) for code in codes}}


def cleared(holds: Holds, codes: Iterable[str], by: str) -> Holds:
    """Return the holds with these cleared, as far as they are open."""
    return {code: replace(hold, cleared_by=by) if code in set(codes) and not hold.cleared_by else hold for code, hold in holds.items()}


def undone(holds: Holds, step: str) -> Holds:
    """Return the holds as they are if a step was not done after all: what it cleared is open again. What it opened stays: nobody knows how far it went."""
    return {code: replace(hold, cleared_by="") if hold.cleared_by == step else hold for code, hold in holds.items()}


def after_finding(holds: Holds, finding: Finding, at: datetime) -> Holds:
    """Return the holds after a finding: what rattles, or was found inside, keeps the power off until it is out (trap T35)."""
    what = finding.what
    if finding.is_struck or not isinstance(what, Answer) or what.question not in _LOOSE or what.setting.on:
        return holds
    code, loose, clear = _LOOSE[what.question]
    if what.outcome == loose:
        return opened(holds, (code,), at)
    return cleared(holds, (code,), "finding") if what.outcome == clear else holds


def after_mains(holds: Holds, was: Power, power: Power, at: datetime, waits: Waits) -> Holds:
    """Return the holds after the mains went from one state to another.

    With the plug pulled charge remains, for as long as the sheet says; where it does not, nothing is invented and the caution stands alone. What ran
    is warm; what was started before it was cold does not get cold by running.
    """
    if power is Power.LIVE and was is not Power.LIVE:
        is_warm = COLD in holds and holds[COLD].is_open(at)
        holds = {**opened(holds, (WARM,), at, waits), **({COLD: Hold(COLD, at)} if is_warm else {})}
    elif was is Power.LIVE and power is not Power.LIVE:
        holds = opened({k: h for k, h in holds.items() if k != WARM}, (COLD,), at, waits)
    if was is not Power.OUT and power is Power.OUT and CHARGE in waits:
        return opened(holds, (CHARGE,), at, waits)
    return {k: h for k, h in holds.items() if k != CHARGE} if power is not Power.OUT else holds


_MEASURED: Final = MappingProxyType({"blown": "short", "flex": "flex", "objects": "object"})
"""Calculator -> the hold that it opens where power would hurt, and clears where it would not."""


def after_measuring(holds: Holds, tool: str, about: str, may_power: bool | None, at: datetime) -> Holds:
    """Return the holds after a calculator has said of one thing whether power may follow; None says nothing, and clears nothing."""
    code = _MEASURED.get(tool)
    if code is None or may_power is None:
        return holds
    was = holds.get(code)
    others = frozenset() if was is None or was.cleared_by else was.of - {about}
    if not may_power:
        return {**holds, code: Hold(code, at, of=others | {about})}
    return {**holds, code: replace(holds[code], of=others)} if others else cleared(holds, (code,), "finding")


def open_hazards(holds: Holds, now: datetime, bars: Bars | None = Bars.POWER) -> tuple[Hazard, ...]:
    """Return what bars something at a moment, or whatever is open (None), in a fixed order."""
    mine = [(code, kind, holds[code]) for code, kind in HAZARDS.items() if code in holds and holds[code].is_open(now) and bars in (None, kind.bars)]
    return tuple(Hazard(code, kind.text, kind.clears, hold.until, kind.bars) for code, kind, hold in mine)


def passes_at(holds: Holds, codes: Iterable[str], now: datetime) -> datetime | None:
    """Return when the last of these has passed by itself, if any is open still: what says that it has is not done before that."""
    return max((hold.until for code in codes if (hold := holds.get(code)) and hold.until and hold.is_open(now)), default=None)
