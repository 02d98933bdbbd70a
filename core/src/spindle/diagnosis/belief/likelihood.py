"""Log-likelihoods of what counts: answers, counts and trials."""

from __future__ import annotations

from typing import Final

import numpy as np

from spindle.diagnosis.belief.intermittence import count_likelihood, widest_count
from spindle.diagnosis.evidence.gather import Evidence
from spindle.diagnosis.evidence.observation import Observation
from spindle.diagnosis.evidence.playtime import judge_time
from spindle.diagnosis.given.compiled import CompiledModel, Floats
from spindle.words.witness import UNRELIABILITY, Witness

TAMPERED_STORY: Final = 1.5
"""Who hides that he has been inside tells the rest as loosely: the owner's unreliability times this (trap T20)."""


def unreliability(source: Witness, *, is_tampered: bool) -> float:
    """Return P(the answer is a mere guess)."""
    return UNRELIABILITY[source] * (TAMPERED_STORY if is_tampered and source is Witness.OWNER else 1.0)


def answer_likelihood(seen: Observation, model: CompiledModel) -> Floats:
    """Return P(what was seen | fault) if the answer is no guess, of shape (n_faults,).

    Of a stage that failed now and then, it is what it does when it fails that counts here; how often it does is for the count.
    """
    table = model.likelihood[seen.question.id]
    ids = [o.id for o in seen.question.outcomes]
    reference = model.sheet.reference_times.get(seen.question.id)
    if seen.seconds is not None and reference is not None and seen.outcome in ("reads", "slow"):
        usual = judge_time(seen.seconds, reference).p_usual
        return np.asarray(usual * table[ids.index("reads")] + (1.0 - usual) * table[ids.index("slow")])
    return np.asarray(table[[ids.index(o) for o in seen.shows]].sum(axis=0))


def answer_log_likelihood(seen: Observation, model: CompiledModel, *, is_tampered: bool = False) -> Floats:
    """Return ``log[(1 - eps) P(outcome | fault) + eps m / n_outcomes]``, of shape (n_faults,), eps being the unreliability of the source.

    m is how many outcomes it may have been; a guess falls on each alike.
    """
    eps = unreliability(seen.source, is_tampered=is_tampered)
    key = (seen.question.id, " ".join(seen.shows), eps)
    if seen.seconds is None and key in model.log_rows:
        return model.log_rows[key]
    guess = eps * len(seen.shows) / len(model.likelihood[seen.question.id])
    row = np.asarray(np.log((1.0 - eps) * answer_likelihood(seen, model) + guess))
    if seen.seconds is None:
        model.log_rows[key] = row
    return row


def is_tampered(evidence: Evidence) -> bool:
    """Tell whether there are signs of an earlier attempt."""
    said = evidence.said.get("opened_before")
    return said is not None and said.outcome == "opened"


def count_log_likelihood(evidence: Evidence, model: CompiledModel) -> tuple[str, Floats] | None:
    """Return the question whose count counts, and ``log P(k of n | fault)`` of shape (n_faults,); None if nothing was counted.

    A count stands in for the bare answer to ``repeats``: both say how often the fault shows. A trial that left the fault was a try
    more, and it failed.
    """
    count = widest_count(evidence.answers.values())
    if count is None or "repeats" not in model.questions:
        return None
    eps = unreliability(count.source, is_tampered=is_tampered(evidence))
    failed, tries = (count.failed or 0) + evidence.failed_trials, (count.tries or 0) + evidence.failed_trials
    return count.question.id, np.asarray(np.log((1.0 - eps) * count_likelihood(failed, tries, model) + eps / (tries + 1)))


def answer_rows(evidence: Evidence, model: CompiledModel) -> dict[str, Floats]:
    """Return one log-likelihood of shape (n_faults,) per answer that counts, by finding id; a count is added to the answer that it was made with."""
    tampered = is_tampered(evidence)
    count = count_log_likelihood(evidence, model)
    rows = {}
    for question, seen in evidence.answers.items():
        is_counted_elsewhere = count is not None and question == "repeats"
        row = np.zeros(len(model.faults)) if is_counted_elsewhere else answer_log_likelihood(seen, model, is_tampered=tampered)
        rows[seen.finding] = row + count[1] if count is not None and count[0] == question else row
    return rows
