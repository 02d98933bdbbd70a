"""What keeps the power off: opened by what was done or found, until it is cleared, has passed, or somebody lifts it by name."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from types import MappingProxyType
from typing import Final

from spindle.diagnosis.given.case import Answer, Finding

END_OF_TIME: Final = datetime.max.replace(tzinfo=UTC)
"""At this moment only what never passes by itself is open."""
DRY_MIN: Final = 5
"""Minutes that cleaner is given to dry: what the caution says, and what the bottles of the trade ask for at least."""


@dataclass(frozen=True, slots=True)
class HazardKind:
    """One kind of hold.

    Attributes
    ----------
    name : what a line calls it
    text : what it says while it is open
    clears : what is said when its own test is done; "" if another line clears it
    lasts_min : minutes after which it has passed by itself; None if it never does
    """

    name: str
    text: str
    clears: str = ""
    lasts_min: int | None = None


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
    }
)


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

    @property
    def until(self) -> datetime | None:
        """When it has passed by itself; None if it never does."""
        lasts = HAZARDS[self.code].lasts_min
        return None if lasts is None else self.at + timedelta(minutes=lasts)

    def is_open(self, now: datetime) -> bool:
        """Tell whether it keeps the power off at a moment."""
        return not self.cleared_by and (self.until is None or now < self.until)


Holds = Mapping[str, Hold]


@dataclass(frozen=True, slots=True)
class Hazard:
    """One open hazard: what it is, what clears it at the bench, and when it has passed by itself."""

    code: str
    text: str
    clears: str = ""
    until: datetime | None = None


def opened(holds: Holds, codes: Iterable[str], at: datetime) -> Holds:
    """Return the holds with these open from then on."""
    return {**holds, **{code: Hold(code, at) for code in codes}}


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


def open_hazards(holds: Holds, now: datetime) -> tuple[Hazard, ...]:
    """Return what keeps the power off at a moment, in a fixed order."""
    mine = [(code, kind, holds[code]) for code, kind in HAZARDS.items() if code in holds and holds[code].is_open(now)]
    return tuple(Hazard(code, kind.text, kind.clears, hold.until) for code, kind, hold in mine)


def passes_at(holds: Holds, codes: Iterable[str], now: datetime) -> datetime | None:
    """Return when the last of these has passed by itself, if any is open still: what says that it has is not done before that."""
    return max((hold.until for code in codes if (hold := holds.get(code)) and hold.until and hold.is_open(now)), default=None)
