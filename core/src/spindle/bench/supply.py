"""The owner's supply against the unit's plate: volts, polarity, amps. Before it is plugged in."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from spindle.bench.verdict import Reason, Verdict, refused, trial, worst

OVER: Final = 0.10
UNDER: Final = 0.10
"""A tenth either way: what regulators behind an ordinary plug are made for. A sheet's own band goes first."""
IDLE_OVER: Final = 0.35
"""An unregulated supply reads up to a third more with nothing on it; it is judged under load."""


@dataclass(frozen=True, slots=True)
class Supply:
    """What was read and what is printed. None where it was not."""

    nominal_v: float
    nominal_a: float
    read_v: float
    is_loaded: bool
    rated_a: float | None = None
    is_alternating: bool = False
    wants_alternating: bool = False
    centre_positive: bool | None = None
    wants_centre_positive: bool | None = None


@dataclass(frozen=True, slots=True)
class SupplyVerdict:
    """May it be used, and all reasons."""

    verdict: Verdict
    reasons: tuple[Reason, ...]
    low_v: float
    high_v: float


def judge_supply(supply: Supply, *, low_v: float | None = None, high_v: float | None = None) -> SupplyVerdict:
    """Return whether a supply may be plugged in. A wrong polarity, the other kind of current and volts over the band are refused."""
    low = supply.nominal_v * (1.0 - UNDER) if low_v is None else low_v
    high = supply.nominal_v * (1.0 + OVER) if high_v is None else high_v
    reasons = (*_kind(supply), *_volts(supply, low, high), *_amps(supply))
    return SupplyVerdict(worst(reasons), reasons, low, high)


def _kind(supply: Supply) -> list[Reason]:
    if supply.is_alternating != supply.wants_alternating:
        gives, wants = ("alternating" if x else "direct" for x in (supply.is_alternating, supply.wants_alternating))
        return [refused(f"It gives {gives} current, the unit takes {wants}.")]
    if supply.wants_alternating:
        return []
    if None not in (supply.centre_positive, supply.wants_centre_positive) and supply.centre_positive != supply.wants_centre_positive:
        return [refused("Its plug is the other way round: plus where the unit has minus. It may already have blown the fuse.")]
    if supply.read_v < 0:
        return [refused("It reads below zero with the tips as the plate says: the plug is the other way round.")]
    return [] if supply.centre_positive is not None else [trial("The polarity of its plug was not looked at.")]


def _volts(supply: Supply, low: float, high: float) -> list[Reason]:
    volts = abs(supply.read_v)
    if volts > high and not supply.is_loaded and volts <= supply.nominal_v * (1.0 + IDLE_OVER):
        return [
            trial(
                f"{volts:.4g} V with nothing on it is over {high:.4g} V. An unregulated one falls under load: load it, and read again before it is plugged in."
            )
        ]
    if volts > high:
        return [refused(f"{volts:.4g} V is over {high:.4g} V.")]
    if volts < low:
        return [refused(f"{volts:.4g} V is under {low:.4g} V{'' if supply.is_loaded else ' even with nothing on it'}: it sags when the disc starts.")]
    return [] if supply.is_loaded else [trial("Read with nothing on it: a weak one sags only under load. Load it, and read again.")]


def _amps(supply: Supply) -> list[Reason]:
    if supply.rated_a is None:
        return [trial("Its amps are not known.")]
    if supply.rated_a < supply.nominal_a:
        return [refused(f"{supply.rated_a:g} A is less than the {supply.nominal_a:g} A on the plate: it sags or overheats when the disc starts.")]
    return []
