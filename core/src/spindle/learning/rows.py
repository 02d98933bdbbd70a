"""What faults look like here: how often each answer was given under a fault, counted by what was believed of it at the end, shrunk to the model.

References
----------
.. [1] A. Gelman et al., "Bayesian Data Analysis", 3rd ed. 2013, section 3.4 (the multinomial with a Dirichlet prior).
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType
from typing import Final

import numpy as np

from spindle.diagnosis.belief.likelihood import unreliability
from spindle.diagnosis.given.compiled import CompiledModel, Floats
from spindle.faults.model import Question, QuestionKind
from spindle.learning.causes import listed
from spindle.learning.past import Past, Saw
from spindle.words.bench import Reach
from spindle.words.witness import Witness

LEAST_JOBS: Final = 40.0
"""Soft counts of a question under a fault from which its row is learnt at all: with fewer, one odd unit in ten moves it by a tenth."""
STRENGTH: Final = 40.0
"""Jobs that the model's own row is worth: a shop sees its drives and its owners, whoever wrote the model saw more of both."""


@dataclass(frozen=True)
class Counted:
    """How often each answer was given under a fault, in soft counts, with what the hand and the eye get wrong taken off."""

    outcomes: Mapping[str, float]

    @property
    def n(self) -> float:
        """Jobs that it rests on."""
        return sum(self.outcomes.values())

    def over(self, row: Floats, question: Question) -> Floats:
        """Return the row P(answer | fault) of a model with what was counted, of the same shape: the mean of the Dirichlet posterior [1]_."""
        own = np.array([self.outcomes.get(o.id, 0.0) for o in question.outcomes])
        return np.asarray((STRENGTH * row + own) / (STRENGTH + own.sum()))


Rows = Mapping[str, Mapping[str, Mapping[str, Counted]]]
"""Loader family -> question -> fault -> what was counted."""


def learn_rows(pasts: Sequence[Past], models: Mapping[str, CompiledModel]) -> Rows:
    """Return what was counted of each question under each fault that enough jobs speak of.

    Only faults of the list: what is left of "nothing wrong" at the end of a job with a fault says nothing of a sound unit. Of what needs
    a disc only units count of which something else says that the disc got home: what was not reached says nothing. Questions of which the
    model takes only a part of the weight (they partly see what another sees) keep their rows: how often an answer comes is not what such
    a row says.
    """
    soft: dict[str, dict[str, dict[str, dict[str, float]]]] = defaultdict(lambda: defaultdict(lambda: defaultdict(lambda: defaultdict(float))))
    for past in pasts:
        model = models.get(past.variant)
        if model is None or past.weight <= 0.0:
            continue
        own = {f.id for f, is_own in zip(model.faults, listed(model), strict=True) if is_own}
        for saw in telling(past, model):
            for fault, p in past.closing.items():
                if fault in own:
                    soft[past.family][saw.question][fault][saw.outcome] += past.weight * p
    of = {m.model.family: m for m in models.values()}
    return MappingProxyType({family: _enough(told, of[family]) for family, told in soft.items()})


def telling(past: Past, model: CompiledModel) -> list[Saw]:
    """Return the answers of a job that say how its fault looks."""
    asked = [(model.questions[s.question], s) for s in past.saw if s.question in model.questions]
    is_home = any(q.proves.get(s.outcome, Reach.NOTHING) >= Reach.DISC for q, s in asked)
    return [s for q, s in asked if _is_whole(q) and (q.stage < Reach.DISC or is_home)]


def _is_whole(question: Question) -> bool:
    return question.temper == 1.0 and question.kind is not QuestionKind.INTAKE


def _enough(told: Mapping[str, Mapping[str, Mapping[str, float]]], model: CompiledModel) -> dict[str, dict[str, Counted]]:
    found = {q: {f: _without_slips(own, model.questions[q]) for f, own in faults.items() if sum(own.values()) >= LEAST_JOBS} for q, faults in told.items()}
    return {q: faults for q, faults in found.items() if faults}


def _without_slips(own: Mapping[str, float], question: Question) -> Counted:
    """Take off what is a mere guess by the model's own reckoning: an answer is logged by it with ``(1 - eps) L + eps / n_outcomes``."""
    eps, n = unreliability(Witness.BENCH, question), sum(own.values())
    left = {o.id: max(own.get(o.id, 0.0) - n * eps / len(question.outcomes), 0.0) for o in question.outcomes}
    return Counted({o: round(n * x / max(sum(left.values()), 1e-12), 3) for o, x in left.items()})
