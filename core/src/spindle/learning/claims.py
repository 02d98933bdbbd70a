"""The claims register (C19): rules of thumb with the shop's own counts for and against, per drive variant."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Final

from scipy.special import betaincc

from spindle.faults.model import Claim, FaultModel

SURE: Final = 0.9
"""From this probability on a claim is said to hold, or not to, for a model; between there is too little to say."""


MIN_TRIALS: Final = 5
"""With fewer trials nothing is said: two swaps are an anecdote."""


@dataclass(frozen=True, slots=True)
class Tried:
    """One trial of one repair alone, on a variant: did it come out clean?"""

    variant: str
    repair: str
    is_clean: bool


@dataclass(frozen=True, slots=True)
class Count:
    """A claim's record on one variant. ``verdict`` is "holds", "does not hold" or "too little to say"."""

    variant: str
    n_for: int
    n_against: int
    p_holds: float
    verdict: str


@dataclass(frozen=True, slots=True)
class Register:
    """One claim with its counts, the variants with most trials first."""

    claim: Claim
    family: str
    counts: tuple[Count, ...]


def register(models: Iterable[FaultModel], tried: Iterable[Tried], family_of: dict[str, str]) -> tuple[Register, ...]:
    """Return every claim of every family with the counts of the variants of that family.

    Parameters
    ----------
    family_of : dict of variant to loader family
    """
    trials = list(tried)
    found = []
    for model in models:
        for claim in model.claims:
            own = [t for t in trials if t.repair == claim.repair and family_of.get(t.variant) == model.family]
            variants = sorted({t.variant for t in own}, key=lambda v: (-sum(t.variant == v for t in own), v))
            found.append(Register(claim, model.family, tuple(count(claim, v, [t for t in own if t.variant == v]) for v in variants)))
    return tuple(found)


def count(claim: Claim, variant: str, trials: list[Tried]) -> Count:
    """Return a claim's record on one variant.

    A claim says that its repair comes out clean in at least a share of trials, or in at most one. Its probability is that
    of a share beyond the limit with a uniform prior, Beta(1 + clean, 1 + not clean).

    Examples
    --------
    >>> count(Claim("c", "It helps.", "clean_lens", 0.25), "V", [Tried("V", "clean_lens", True)] * 6).verdict
    'holds'
    """
    clean = sum(t.is_clean for t in trials)
    rest = len(trials) - clean
    limit = abs(claim.helps_at_least)
    above = float(betaincc(1 + clean, 1 + rest, limit))
    p_holds, n_for, n_against = (above, clean, rest) if claim.helps_at_least > 0 else (1.0 - above, rest, clean)
    is_few = len(trials) < MIN_TRIALS
    verdict = "too little to say" if is_few else "holds" if p_holds >= SURE else "does not hold" if p_holds <= 1.0 - SURE else "too little to say"
    return Count(variant, n_for, n_against, p_holds, verdict)
