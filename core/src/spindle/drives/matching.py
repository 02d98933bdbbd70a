"""Does that part fit this unit? (C22, C23) Verdicts with their reason and source, from sheets, the shop's statements and the pairing rule."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from spindle.drives.full_sheet import FullSheet, Provenance
from spindle.drives.levels import LEVELS, is_within
from spindle.drives.sheet import Pairing
from spindle.drives.tables import ORIGIN_NAMES, Confidence, Origin


class Verdict(StrEnum):
    """Whether a part fits, best first."""

    FITS = "fits"
    TRANSFERS = "transfers"
    """It fits once named things are moved across."""
    PART = "part"
    """It fits in some functions only."""
    CLAIMED = "claimed"
    """Somebody says so, and nobody here has confirmed it."""
    UNKNOWN = "unknown"
    NO = "no"


VERDICT_NAMES: Final = {
    Verdict.FITS: "fits",
    Verdict.TRANSFERS: "fits with transfers",
    Verdict.PART: "fits in part",
    Verdict.CLAIMED: "unconfirmed claim",
    Verdict.UNKNOWN: "nobody says",
    Verdict.NO: "does not fit",
}
USABLE: Final = frozenset({Verdict.FITS, Verdict.TRANSFERS})
"""What may be offered as a repair: the rest is for testing, or to be found out first."""
NEEDS_DIODES: Final = frozenset({"drive", "deck", "pickup"})
SHOWN_UNPAIRED: Final = ("starts", "loads", "spins", "seeks", "powers")
"""What a board that is not this console's own can show (trap T16): everything but that a disc is recognised."""
_TRUST: Final = (Origin.SHOP, Origin.MAKER, Origin.SELLER, Origin.HEARSAY)


@dataclass(frozen=True, slots=True)
class PartType:
    """A kind of part: its level and code; ``made_for`` is the sheet of the drive that it came out of, if that is known."""

    level: str
    code: str
    made_for: FullSheet | None = None
    is_complete: bool = False
    """It comes with everything that a bare new one lacks, as a donor's part does."""


@dataclass(frozen=True, slots=True)
class Statement:
    """Somebody says whether a kind of part fits a drive variant. Statements are never changed: a newer one of the same origin wins."""

    level: str
    code: str
    variant: str
    verdict: Verdict
    source: Provenance
    reason: str = ""
    works: tuple[str, ...] = ()
    """Functions in which it works, where it fits in part."""
    number: int = 0
    """Grows with every statement."""
    by: str = ""
    on: str = ""


@dataclass(frozen=True, slots=True)
class Match:
    """A verdict with everything that it rests on."""

    verdict: Verdict
    reasons: tuple[str, ...]
    source: str
    transfers: tuple[str, ...] = ()
    shows: tuple[str, ...] = ()
    """Functions in which it works, where it fits in part."""


@dataclass(frozen=True, slots=True)
class _Ground:
    verdict: Verdict
    reason: str
    source: str
    works: tuple[str, ...] = ()


def match(unit: FullSheet, part: PartType, statements: Iterable[Statement] = ()) -> Match:
    """Return whether a kind of part fits a drive variant.

    The ground is the most trusted voice: the shop's own statement, a maker's document, the sheet, a seller, hearsay. On what fits,
    the pairing rule and the transfers of the sheet are laid. Where nobody says anything, nothing is guessed from a likeness.
    """
    ground = _ground(unit, part, tuple(s for s in statements if (s.level, s.code, s.variant) == (part.level, part.code, unit.drive.variant)))
    if ground.verdict in (Verdict.NO, Verdict.UNKNOWN, Verdict.PART):
        return Match(ground.verdict, (ground.reason,), ground.source, shows=ground.works)
    paired = _paired(unit, part)
    if paired is not None and paired.verdict is Verdict.PART:
        return Match(Verdict.PART, (ground.reason, *paired.reasons), ground.source, shows=paired.shows)
    moves = () if paired is None else paired.transfers
    if not part.is_complete:
        moves += tuple(str(r["what"]) for r in unit.rows("transfers", part.level) if r["action"] == "move")
    verdict = Verdict.TRANSFERS if moves and ground.verdict is Verdict.FITS else ground.verdict
    return Match(verdict, (ground.reason, *(paired.reasons if paired else ())), ground.source, moves)


def _ground(unit: FullSheet, part: PartType, statements: tuple[Statement, ...]) -> _Ground:
    best = min(statements, key=lambda s: (not s.source.is_confirmed, _TRUST.index(s.source.origin), -s.number), default=None)
    own = unit.codes(part.level).get(part.code)
    if best is not None and (best.source.is_confirmed or own is None or not own.is_confirmed):
        return _said(best)
    if own is not None:
        named = f"{unit.drive.variant}'s sheet names {part.code} as its {LEVELS[part.level].name.lower()}"
        return _Ground(Verdict.FITS if own.is_confirmed else Verdict.CLAIMED, named, spoken(own))
    return _by_make(unit, part) or _Ground(Verdict.UNKNOWN, f"nobody has said whether {part.code} fits {unit.drive.variant}", "")


def _said(statement: Statement) -> _Ground:
    who = spoken(statement.source) + (f", written down by {statement.by} on {statement.on}" if statement.by else "")
    says = statement.reason or f"{statement.code} {VERDICT_NAMES[statement.verdict]} {statement.variant}"
    if statement.source.is_confirmed:
        return _Ground(statement.verdict, says, who, statement.works if statement.verdict is Verdict.PART else ())
    if statement.verdict is Verdict.NO:
        return _Ground(Verdict.CLAIMED, f"said not to fit: {says}", who)
    return _Ground(Verdict.CLAIMED, says, who)


def _by_make(unit: FullSheet, part: PartType) -> _Ground | None:
    """Return a refusal that follows from what both drives are, if there is one."""
    donor = part.made_for
    if donor is None:
        return None
    missing = sorted(unit.drive.wavelengths_nm - donor.drive.wavelengths_nm)
    if part.level in NEEDS_DIODES and missing:
        return _Ground(Verdict.NO, f"its pickup has no diode for {' and '.join(f'{nm} nm' for nm in missing)}, which this console reads", "both sheets")
    if donor.drive.family != unit.drive.family and is_within(part.level, "drive") and part.level not in ("fuse", "capacitors", "driver"):
        return _Ground(Verdict.NO, f"it is from a {donor.drive.family} drive, this is a {unit.drive.family} drive", "both sheets")
    return None


def _paired(unit: FullSheet, part: PartType) -> Match | None:
    """Return what the pairing rule adds to a part that fits otherwise."""
    pairing, source = unit.drive.pairing, spoken(unit.source_of("pairing"))
    if pairing is Pairing.NONE:
        return None
    rule = {
        Pairing.BOARD: "the console accepts its own drive board alone",
        Pairing.CHIP: "the console accepts the key chip on its own drive board alone",
        Pairing.UNKNOWN: "whether the board is paired is not known, so it is treated as paired",
    }[pairing]
    reason = f"{rule} ({source})" if pairing is not Pairing.UNKNOWN else rule
    if part.level == "drive":
        return Match(Verdict.TRANSFERS, (reason,), source, ("Own drive board" + (" with its key chip" if pairing is Pairing.CHIP else ""),))
    if part.level == "board" and pairing is Pairing.CHIP:
        return Match(Verdict.TRANSFERS, (reason,), source, ("Own key chip, with hot air",))
    if part.level == "board" or (part.level == "chip" and pairing is Pairing.CHIP):
        return Match(Verdict.PART, (reason, "it can show that motors run; that it does not recognise a disc says nothing"), source, shows=SHOWN_UNPAIRED)
    return None


def spoken(source: Provenance) -> str:
    """Return a source in words."""
    doubt = "" if source.confidence is not Confidence.DOUBTFUL else ", doubtful"
    return f"{ORIGIN_NAMES[source.origin]}{f' ({source.said})' if source.said else ''}{doubt}"
