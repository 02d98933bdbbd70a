"""Findings that do not fit together: which one is probably false, and which others say so."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np

from spindle.diagnosis.belief.likelihood import is_tampered, unreliability
from spindle.diagnosis.belief.posterior import Belief
from spindle.diagnosis.evidence.observation import Observation
from spindle.diagnosis.given.compiled import CompiledModel, Floats

ASK_AGAIN_FROM: Final = 0.45
"""P(false) from which "please check this again" is said: about as likely false as true."""
DISAGREES_FROM: Final = 0.5
"""A finding disagrees with the doubtful one if without it the doubt falls to this share or less."""


@dataclass(frozen=True)
class Contradiction:
    """A finding that the rest speaks against. Striking it would bring peace; it is never discarded silently."""

    finding: str
    p_false: float
    disagrees_with: tuple[str, ...]


def p_false(belief: Belief, model: CompiledModel) -> dict[str, float]:
    """Return P(the answer is a mere guess | all findings) for each answer that counts.

    ``P(item false | all) = eps U P(e without it) / P(e)`` with U the chance of this answer by guessing.
    """
    rows, answers = _rows(belief)
    if not rows.size:
        return {}
    guess = _log_guess(answers, model, is_tampered=is_tampered(belief.evidence))
    total = belief.log_prior + rows.sum(axis=0)
    return dict(zip(belief.rows, _false(rows, total, guess), strict=True))


def find_contradictions(belief: Belief, model: CompiledModel) -> tuple[Contradiction, ...]:
    """Return the findings that are probably false, likeliest first, with the findings that each disagrees with."""
    rows, answers = _rows(belief)
    if len(rows) < 2 or belief.evidence.news:  # what is new since our own step is no contradiction
        return ()
    ids = list(belief.rows)
    guess = _log_guess(answers, model, is_tampered=is_tampered(belief.evidence))
    total = belief.log_prior + rows.sum(axis=0)
    doubt = _false(rows, total, guess)
    found = []
    for i in np.flatnonzero(doubt >= ASK_AGAIN_FROM):
        alone = _false(rows[i], total - rows, guess[i])  # without each of the others
        against = sorted((d, ids[j]) for j, d in enumerate(alone) if j != i and d <= DISAGREES_FROM * doubt[i])
        found.append(Contradiction(ids[i], float(doubt[i]), tuple(name for _, name in against[:3])))
    return tuple(sorted(found, key=lambda c: -c.p_false))


def _rows(belief: Belief) -> tuple[Floats, list[Observation]]:
    of = {o.finding: o for o in belief.evidence.answers.values()}
    return np.array(list(belief.rows.values())), [of[i] for i in belief.rows]


def _log_guess(answers: list[Observation], model: CompiledModel, *, is_tampered: bool) -> Floats:
    eps = np.array([unreliability(a.source, a.question, is_tampered=is_tampered) for a in answers])
    return np.asarray(np.log(eps / [len(model.likelihood[a.question.id]) for a in answers]))


def _false(rows: Floats, total: Floats, log_guess: Floats) -> Floats:
    """Return eps U P(e without the row) / P(e): for each row against one total, or for one row against each total."""
    return np.asarray(np.minimum(np.exp(log_guess + _log_sum(total - rows) - _log_sum(total)), 1.0))


def _log_sum(of: Floats) -> Floats:
    """Return log sum exp over the last axis."""
    most = of.max(axis=-1)
    return np.asarray(most + np.log(np.exp(of - most[..., None]).sum(axis=-1)))
