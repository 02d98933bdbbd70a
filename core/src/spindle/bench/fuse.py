"""Which fuse may replace which, in which order they are tried, and why the old one blew. A bridge is never offered (trap T26)."""

from __future__ import annotations

import math
import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Final

from spindle.bench.quantity import said
from spindle.bench.verdict import Reason, Verdict, refused, trial, worst
from spindle.drives.fuse import Fuse, parse_fuse
from spindle.errors import RefusedError, SheetError

_BRIDGE: Final = re.compile(r"bridg|wire|foil|solder|jumper|link|coin|clip", re.IGNORECASE)
_SPEED: Final = ("very fast", "fast", "medium", "slow", "very slow")
LEAST_SHARE: Final = 0.5
"""Under half of the rating it blows at the first spin-up, and shows nothing."""
UNKNOWN_V_UP_TO: Final = 24.0
"""Up to so many volts a fuse of unknown voltage may show something; above, its arc may not end."""
GAP_MM: Final = 0.5
"""A body shorter than the pads' gap and this rests on solder alone."""
SPAN_MM: Final = 1.0
WIDTH_MM: Final = 0.6


@dataclass(frozen=True, slots=True)
class Candidate:
    """A fuse that might be fitted. ``length_mm`` and ``width_mm`` are its body's; None where nobody measured."""

    id: str
    marking: str
    length_mm: float | None = None
    width_mm: float | None = None
    has_leads: bool = False
    is_new: bool = True
    ohm: float | None = None
    """What it reads across; None where nobody has proven it closed."""
    price_cents: int = 0


@dataclass(frozen=True, slots=True)
class Place:
    """Where it goes: what the sheet asks for, the volts behind it, and the pads. None where the sheet does not say."""

    rating: str
    supply_v: float
    gap_mm: float | None = None
    span_mm: float | None = None
    pad_mm: float | None = None


@dataclass(frozen=True, slots=True)
class FuseVerdict:
    """What may be done with one candidate, and every reason."""

    candidate: Candidate
    verdict: Verdict
    reasons: tuple[Reason, ...]
    fuse: Fuse | None = None


CLOSED_OHM: Final = 2.0
"""A sound fuse of a quarter ampere has half an ohm; what reads more is no proof."""


def judge_fuse(candidate: Candidate, place: Place) -> FuseVerdict:
    """Return whether a fuse may go in, with all reasons: the worst one wins.

    A larger or slower one, or a wire, lets the next short burn the board instead; a fuse above its rated volts may arc on instead of parting the
    circuit (IEC 60127-1).
    """
    fuse = _read(candidate.marking)
    if isinstance(fuse, Reason):
        return FuseVerdict(candidate, Verdict.REFUSED, (fuse,))
    reasons = (*_proven(candidate), *_rating(fuse, parse_fuse(place.rating)), *_volts(fuse, place.supply_v), *_body(candidate, place))
    return FuseVerdict(candidate, worst(reasons), reasons, fuse)


def _read(marking: str) -> Fuse | Reason:
    """Return the fuse that bears a marking, or why there is none."""
    if _BRIDGE.search(marking):
        return refused("A bridge in place of a fuse is refused, always.")
    try:
        return parse_fuse(marking)
    except SheetError:
        return refused(f"{marking.strip() or 'No marking'!r} gives no rating and speed: a fuse of unknown rating is not fitted.")


def _proven(candidate: Candidate) -> Iterable[Reason]:
    if candidate.ohm is None:
        yield refused("Not proven closed: read it across, out of the circuit.")
    elif candidate.ohm > CLOSED_OHM:
        yield refused(f"It reads {candidate.ohm:.3g} Ω across: not closed.")


def _rating(fuse: Fuse, rule: Fuse) -> Iterable[Reason]:
    want = f"the sheet asks for {rule.rated_a:g} A {rule.speed}"
    if fuse.rated_a > rule.rated_a:
        yield refused(f"{fuse.rated_a:g} A is more: {want}. The next short burns the board instead of the fuse.")
    elif fuse.rated_a < LEAST_SHARE * rule.rated_a:
        yield refused(f"{fuse.rated_a:g} A is under half: {want}. It blows at the first spin-up.")
    elif fuse.rated_a < rule.rated_a:
        yield trial(f"{fuse.rated_a:g} A is less: {want}. It may blow for nothing.")
    slower = _SPEED.index(fuse.speed) - _SPEED.index(rule.speed)
    if slower > 0:
        yield refused(f"{fuse.speed.capitalize()} is slower: {want}. What it is to protect burns first.")
    elif slower < 0:
        yield trial(f"{fuse.speed.capitalize()} is quicker: {want}. It may blow at a spin-up.")


def _volts(fuse: Fuse, supply_v: float) -> Iterable[Reason]:
    if fuse.rated_v:
        if fuse.rated_v < supply_v:
            yield refused(f"Made for {fuse.rated_v} V, fewer than the {supply_v:g} V that it has to part: its arc may not end.")
    elif supply_v > UNKNOWN_V_UP_TO:
        yield refused(f"Its volts are not known, and it has to part {supply_v:g} V.")
    elif supply_v > 0:
        yield trial("Its volts are not known.")


def _body(candidate: Candidate, place: Place) -> Iterable[Reason]:
    if candidate.has_leads:
        yield trial("With leads on pads made for a body: they shake loose.")
        return
    if candidate.length_mm is None or place.gap_mm is None:
        yield trial("Body against pads was not measured.")
        return
    if candidate.length_mm < place.gap_mm + GAP_MM:
        yield refused(f"{candidate.length_mm:g} mm is too short for a gap of {place.gap_mm:g} mm: it would rest on solder.")
    if place.span_mm is not None and candidate.length_mm > place.span_mm + SPAN_MM:
        yield refused(f"{candidate.length_mm:g} mm is longer than the pads' {place.span_mm:g} mm: its ends hang over.")
    if candidate.width_mm is not None and place.pad_mm is not None and candidate.width_mm > place.pad_mm + WIDTH_MM:
        yield trial(f"{candidate.width_mm:g} mm is wider than the pad's {place.pad_mm:g} mm.")


def rank_fuses(candidates: Iterable[Candidate], place: Place) -> tuple[FuseVerdict, ...]:
    """Return every candidate, the one to fit first: by verdict, rating, speed, new before used, body, price."""
    rule = parse_fuse(place.rating)
    middle = None if place.gap_mm is None or place.span_mm is None else (place.gap_mm + place.span_mm) / 2.0

    def order(found: FuseVerdict) -> tuple[float, ...]:
        fuse, own = found.fuse, found.candidate
        if fuse is None:
            return (found.verdict, 9.0, 9.0, 1.0, 0.0, own.price_cents)
        off = abs(own.length_mm - middle) if own.length_mm is not None and middle is not None else 99.0
        return (found.verdict, abs(fuse.rated_a - rule.rated_a), abs(_SPEED.index(fuse.speed) - _SPEED.index(rule.speed)), not own.is_new, off, own.price_cents)

    return tuple(sorted((judge_fuse(c, place) for c in candidates), key=order))


def check_replacement(fitted: str, required: str) -> Fuse:
    """Return the fuse that is about to be fitted for good, if it is what the sheet asks for.

    Raises
    ------
    RefusedError
        If it is a bridge, its rating is unknown, or it is larger, smaller, of another speed, or of fewer volts than the sheet's. More volts are no harm.
    """
    rule, fuse = parse_fuse(required), _read(fitted)
    reasons = (fuse,) if isinstance(fuse, Reason) else (*_rating(fuse, rule), *_volts(fuse, rule.rated_v))
    if reasons or isinstance(fuse, Reason):
        raise RefusedError(f"{' '.join(r.text for r in reasons)} The sheet asks for {required}.", rule="T26")
    return fuse


@dataclass(frozen=True, slots=True)
class PowerAfter:
    """Whether power may go on after a fuse blew."""

    may: bool | None
    """None where a healthy unit's ohms have to decide."""
    blow_ohm: float
    text: str


def power_after(ohm: float, supply_v: float, rated_a: float) -> PowerAfter:
    """Return whether power may go on, from the ohms behind the fuse to ground, both ways round the lower.

    ``R_blow = V / (2 I)``: at twice its rating a fuse opens within seconds to minutes (IEC 60127-2). Under twice that there is a short; to five times
    it is doubtful, and a healthy unit of the model decides.
    """
    blow = supply_v / (2.0 * rated_a)
    read, short, doubtful = (said(x, "resistance") for x in (ohm, 2.0 * blow, 5.0 * blow))
    if ohm < 2.0 * blow:
        return PowerAfter(False, blow, f"{read} behind the fuse, under {short}: a short. No power: it would blow again, or burn what shorts.")
    if ohm < 5.0 * blow:
        return PowerAfter(None, blow, f"{read} behind the fuse is doubtful up to {doubtful}: compare with a healthy unit of the model before power.")
    return PowerAfter(True, blow, f"{read.capitalize() if math.isinf(ohm) else read} behind the fuse: no short at rest.")


CAUSES: Final = {
    "supply_high": "The owner's supply is too high",
    "supply_reversed": "The owner's supply is the wrong way round",
    "short": "A lasting short behind it",
    "motor": "A motor that stalls or drags",
    "warms_then_shorts": "A part that shorts as it warms",
    "age": "Age: it simply let go",
    "wrong_fuse": "The one before was the wrong one",
}
PRIOR: Final = {"supply_high": 0.12, "supply_reversed": 0.1, "short": 0.26, "motor": 0.16, "warms_then_shorts": 0.1, "age": 0.18, "wrong_fuse": 0.08}
"""Guessed from how these boards are used: most that blow for a reason have a short; the shop's own counts replace it."""
_SIGNS: Final[Mapping[str, Mapping[str, float]]] = {
    # P(yes | cause) of each look; the rest of the causes take "*"
    "supply_not_own": {"supply_high": 0.95, "supply_reversed": 0.95, "*": 0.2},
    "supply_over_nominal": {"supply_high": 0.93, "*": 0.03},
    "polarity_reversed": {"supply_reversed": 0.95, "*": 0.01},
    "ohms_low": {"short": 0.96, "supply_reversed": 0.35, "supply_high": 0.3, "warms_then_shorts": 0.08, "motor": 0.05, "*": 0.02},
    "motor_drags": {"motor": 0.85, "*": 0.06},
    "glass_black": {"short": 0.85, "supply_reversed": 0.8, "supply_high": 0.6, "warms_then_shorts": 0.5, "motor": 0.15, "wrong_fuse": 0.2, "age": 0.06},
    "wrong_rating": {"wrong_fuse": 0.95, "*": 0.04},
    "held_a_while": {"warms_then_shorts": 0.9, "motor": 0.6, "age": 0.8, "wrong_fuse": 0.5, "*": 0.1},
}
SIGNS: Final = {
    "supply_not_own": "Was it run on another supply than its own?",
    "supply_over_nominal": "Does that supply read more than a tenth over nominal?",
    "polarity_reversed": "Is that supply's plug the other way round?",
    "ohms_low": "Ohms behind the fuse: a short?",
    "motor_drags": "Does a motor drag or stick by hand?",
    "glass_black": "Is the old fuse blackened inside?",
    "wrong_rating": "Was the old fuse of another rating or speed than the sheet's?",
    "held_a_while": "Did it run for a while before it blew?",
}


def chance_of(sign: str, cause: str) -> float:
    """Return P(the sign is there | the cause)."""
    row = _SIGNS[sign]
    return row.get(cause, row.get("*", 0.5))


def why_blown(signs: Mapping[str, bool]) -> dict[str, float]:
    """Return the chance of each cause, likeliest first: signs independent given the cause (naive Bayes).

    Raises
    ------
    KeyError
        If a sign is not one of :data:`SIGNS`.
    """
    chances = dict(PRIOR)
    for sign, is_so in signs.items():
        for cause in chances:
            p = chance_of(sign, cause)
            chances[cause] *= p if is_so else 1.0 - p
    total = sum(chances.values())
    return dict(sorted(((c, v / total) for c, v in chances.items()), key=lambda kv: -kv[1]))
