"""Is it cured, and is it proven? After a clean trial: go on counting passes, or hand back "probable" (C20, C47)."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Final

from spindle.diagnosis.belief.posterior import Belief
from spindle.diagnosis.belief.trials import clean_so_far, cure_curve
from spindle.diagnosis.given.case import TrialResult
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.diagnosis.given.economy import Economy
from spindle.words.chances import percent
from spindle.words.money import rounded

CONFIDENCE: Final = 0.95
"""How sure a bench wants to be before it hands a unit back: one return in twenty for this reason is what our shop accepts."""
MIN_PASSES: Final = 3
"""Never fixed after one tray movement or a title screen (trap T33). Three is custom, not arithmetic."""
MAX_PASSES: Final = 60
"""Beyond an hour of inserts the honest end is "probable", with a longer guarantee."""
PASS_MIN: Final = 2.0
"""Bench minutes of one more pass: insert, start, eject."""


@dataclass(frozen=True)
class Ending:
    """Where a clean unit stands. ``verdict`` is "" (no clean trial), "go_on", "proven" or "probable"."""

    p_cured: float
    passes_done: int
    passes_wanted: int
    verdict: str
    says: str
    p_shows: float
    """P(the fault shows at one try, if it is still there)."""


def passes_needed(p_cured_after: Callable[[int], float], confidence: float = CONFIDENCE) -> int:
    """Return the fewest clean passes after which the cure is ``confidence`` sure, from :data:`MIN_PASSES` to :data:`MAX_PASSES`.

    Parameters
    ----------
    p_cured_after : callable
        P(cured | that many clean passes); never falls.

    Examples
    --------
    >>> passes_needed(lambda n: 0.8 / (0.8 + 0.2 * 0.9**n))
    15
    """
    return next((n for n in range(MIN_PASSES, MAX_PASSES) if p_cured_after(n) >= confidence), MAX_PASSES)


def curve_before(belief: Belief, p_cured: float = 0.5) -> Callable[[int], float]:
    """Return P(cured | n clean passes) for a repair that is yet to come, cured with chance ``p_cured``."""
    return lambda n: p_cured / (p_cured + (1.0 - p_cured) * float(belief.p @ belief.steadiness.p_clean(n)))


def tries_to_be_sound(belief: Belief, model: CompiledModel) -> int:
    """Return how many more tries in a row have to go well until it is :data:`CONFIDENCE` sure that nothing is wrong."""
    still = belief.p * (1.0 - model.sound)
    well = belief.p * model.sound

    def p_sound(tries: int) -> float:
        clean = belief.steadiness.p_clean(tries)
        return float(well @ clean) / float((well + still) @ clean)

    return passes_needed(p_sound)


def judge_ending(belief: Belief, model: CompiledModel, economy: Economy) -> Ending:
    """Return whether the unit is proven, wants more passes, or is better handed back as "probable".

    More passes pay while they save more in returns than they cost in minutes.
    """
    shows = 1.0 - float(belief.p @ belief.steadiness.p_clean(1))
    trials = belief.evidence.trials
    if not trials or trials[-1].result is not TrialResult.CLEAN:
        return Ending(0.0, 0, passes_needed(curve_before(belief)), "", "", shows)
    curve, done = cure_curve(trials, belief.p, model, belief.steadiness), clean_so_far(trials)
    wanted, now = passes_needed(curve), curve(done)
    if done >= wanted and now >= CONFIDENCE:
        return Ending(now, done, wanted, "proven", f"{done} clean passes: {percent(now)} sure that it is cured.", shows)
    more = max(wanted - done, 0)
    costs, saves = more * PASS_MIN * economy.rate_eur_per_min, (curve(max(wanted, done)) - now) * economy.return_eur
    if done >= MIN_PASSES and costs >= saves:
        says = (
            f"{percent(now)} sure after {done} passes. {more} more would cost {rounded(costs, economy.sign)} "
            f"and save about {rounded(saves, economy.sign)} in returns: "
            "hand it back as probable, and say so."
        )
        return Ending(now, done, wanted, "probable", says, shows)
    return Ending(now, done, wanted, "go_on", f"{percent(now)} sure after {done} of {wanted} clean passes.", shows)
