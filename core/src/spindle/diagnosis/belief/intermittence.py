"""Faults that come and go: what k failures of n tries say, and how many clean passes are worth a cure (trap T21).

A fault is either steady (nearly every try fails) or intermittent, with its own chance q to fail at a try. How often each
fault is intermittent is declared once, in the rows of the question ``repeats``; q is Beta(2, 2), neither mostly there nor
mostly gone. With k failures of n tries counted, both are updated exactly (the beta-binomial).

References
----------
.. [1] A. Gelman et al., *Bayesian Data Analysis*, 3rd ed., CRC 2013, ch. 2 (beta-binomial) and ch. 3 (mixtures).
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Final

import numpy as np
from scipy.special import betaln, comb

from spindle.diagnosis.evidence.gather import Evidence
from spindle.diagnosis.evidence.observation import Observation
from spindle.diagnosis.given.compiled import CompiledModel, Floats

STEADY_FAILS: Final = 0.97
"""P(a try fails | a steady fault): one in thirty gets through by luck."""
SLIP: Final = 0.03
"""P(a try of a sound drive fails, or seems to): a disc laid askew, a look away."""
_A, _B = 2.0, 2.0
_TINY: Final = 1e-300
_USUAL_TRIES: Final = 6
"""Tries that the question "the same disc six times" asks for, where no count was written down."""


@dataclass(frozen=True)
class Steadiness:
    """What is known of how often the fault shows.

    Attributes
    ----------
    p_intermittent : ndarray of shape (n_faults,)
        P(it comes and goes | fault, what was counted).
    sound : ndarray of shape (n_faults,)
        1 at "nothing wrong".
    failed, tries : int
        The count that it rests on; 0 of 0 if none.
    """

    p_intermittent: Floats
    sound: Floats
    failed: int = 0
    tries: int = 0

    def p_clean(self, passes: int) -> Floats:
        """Return P(``passes`` passes in a row are clean | fault still there), of shape (n_faults,)."""
        a, b = _A + self.failed, _B + self.tries - self.failed
        lucky = float(np.exp(betaln(a, b + passes) - betaln(a, b)))
        there = (1.0 - self.p_intermittent) * (1.0 - STEADY_FAILS) ** passes + self.p_intermittent * lucky
        return np.asarray(np.where(self.sound > 0.0, (1.0 - SLIP) ** passes, there))


def share_intermittent(model: CompiledModel) -> Floats:
    """Return P(comes and goes | fault) before anything was counted, of shape (n_faults,)."""
    ids = [o.id for o in model.questions["repeats"].outcomes]
    seldom = model.likelihood["repeats"][[ids.index("comes_and_goes"), ids.index("not_here")]].sum(axis=0)
    return np.asarray(seldom * (1.0 - model.sound))


def count_likelihood(failed: int, tries: int, model: CompiledModel) -> Floats:
    """Return P(``failed`` of ``tries`` fail | fault), of shape (n_faults,)."""
    share = share_intermittent(model)
    ways = float(comb(tries, failed))
    steady = ways * STEADY_FAILS**failed * (1.0 - STEADY_FAILS) ** (tries - failed)
    comes_and_goes = ways * float(np.exp(betaln(_A + failed, _B + tries - failed) - betaln(_A, _B)))
    slips = ways * SLIP**failed * (1.0 - SLIP) ** (tries - failed)
    return np.asarray(np.where(model.sound > 0.0, slips, (1.0 - share) * steady + share * comes_and_goes))


def clean_run(answers: Iterable[Observation]) -> Observation | None:
    """Return the answer with the most tries in a row that all went well; what was tried once is no run."""
    runs = [a for a in answers if (a.tries or 0) > 1 and not a.failed and not a.is_failure and a.question.is_behaviour and a.question.id != "repeats"]
    return max(runs, key=lambda a: a.tries or 0, default=None)


def clean_run_likelihood(tries: int, model: CompiledModel) -> Floats:
    """Return P(all the other tries went well too | fault, the first one did), of shape (n_faults,).

    What does not show at one try does not show at the next, unless it comes and goes: ``B(a, b + n) / B(a, b + 1)`` of those.
    """
    share = share_intermittent(model)
    return np.asarray(1.0 - share + share * float(np.exp(betaln(_A, _B + tries) - betaln(_A, _B + 1))))


def widest_count(answers: Iterable[Observation]) -> Observation | None:
    """Return the answer with the most tries that failed at least once; other counts watched the same fault."""
    counted = [a for a in answers if a.tries and a.failed]
    return max(counted, key=lambda a: (a.tries or 0, a.failed or 0), default=None)


def steadiness(evidence: Evidence, model: CompiledModel) -> Steadiness:
    """Return what is known of how often the fault shows: what was counted, what was said of it, and the trials that left it."""
    share, more = share_intermittent(model), evidence.failed_trials
    count = widest_count(evidence.answers.values())
    word = evidence.answers["repeats"].outcome if "repeats" in evidence.answers else ""
    if count is None and word == "comes_and_goes":
        return Steadiness(1.0 - model.sound, model.sound, _USUAL_TRIES // 2 + more, _USUAL_TRIES + more)  # some of six failed, some did not
    usual = {"always": (_USUAL_TRIES, _USUAL_TRIES), "not_here": (0, _USUAL_TRIES)}
    failed, tries = (count.failed or 0, count.tries or 0) if count else usual.get(word, (0, 0))
    failed, tries = failed + more, tries + more
    if not tries:
        return Steadiness(share, model.sound)
    coming = share * np.exp(betaln(_A + failed, _B + tries - failed) - betaln(_A, _B))
    steady = (1.0 - share) * STEADY_FAILS**failed * (1.0 - STEADY_FAILS) ** (tries - failed)
    return Steadiness(np.asarray(coming / np.maximum(coming + steady, _TINY)), model.sound, failed, tries)
