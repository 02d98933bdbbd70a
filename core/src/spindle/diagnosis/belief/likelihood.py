"""Log-likelihoods of what counts: answers, counts and trials."""

from __future__ import annotations

from typing import Final

import numpy as np

from spindle.diagnosis.belief.intermittence import count_likelihood, widest_count
from spindle.diagnosis.evidence.gather import Evidence
from spindle.diagnosis.evidence.playtime import judge_time
from spindle.diagnosis.given.case import Answer
from spindle.diagnosis.given.compiled import CompiledModel, Floats
from spindle.words.witness import UNRELIABILITY, Witness

TAMPERED_STORY: Final = 1.5
"""Who hides that he has been inside tells the rest as loosely: the owner's unreliability times this (trap T20)."""


def unreliability(source: Witness, *, is_tampered: bool) -> float:
    """Return P(the answer is a mere guess)."""
    return UNRELIABILITY[source] * (TAMPERED_STORY if is_tampered and source is Witness.OWNER else 1.0)


def answer_likelihood(answer: Answer, model: CompiledModel) -> Floats:
    """Return P(what was seen | fault) if the answer is no guess, of shape (n_faults,)."""
    table = model.likelihood[answer.question]
    ids = [o.id for o in model.questions[answer.question].outcomes]
    reference = model.sheet.reference_times.get(answer.question)
    if answer.seconds is not None and reference is not None and answer.outcome in ("reads", "slow"):
        usual = judge_time(answer.seconds, reference).p_usual
        return np.asarray(usual * table[ids.index("reads")] + (1.0 - usual) * table[ids.index("slow")])
    return np.asarray(table[ids.index(answer.outcome)])


def answer_log_likelihood(answer: Answer, model: CompiledModel, *, is_tampered: bool = False) -> Floats:
    """Return ``log[(1 - eps) P(outcome | fault) + eps / n_outcomes]``, eps being the unreliability of the source."""
    eps = unreliability(answer.source, is_tampered=is_tampered)
    key = (answer.question, answer.outcome, eps)
    if answer.seconds is None and key in model.log_rows:
        return model.log_rows[key]
    row = np.asarray(np.log((1.0 - eps) * answer_likelihood(answer, model) + eps / len(model.likelihood[answer.question])))
    if answer.seconds is None:
        model.log_rows[key] = row
    return row


def is_tampered(evidence: Evidence) -> bool:
    """Tell whether there are signs of an earlier attempt."""
    said = evidence.said.get("opened_before")
    return said is not None and said.outcome == "opened"


def count_log_likelihood(evidence: Evidence, model: CompiledModel) -> tuple[str, Floats] | None:
    """Return the question whose count counts, and ``log P(k of n | fault)``; None if nothing was counted.

    A count stands in for the bare answer to ``repeats``: both say how often the fault shows.
    """
    count = widest_count(evidence.said.values())
    if count is None or "repeats" not in model.questions:
        return None
    eps = unreliability(count.source, is_tampered=is_tampered(evidence))
    tries = count.tries or 0
    return count.question, np.asarray(np.log((1.0 - eps) * count_likelihood(count.failed or 0, tries, model) + eps / (tries + 1)))


def answer_rows(evidence: Evidence, model: CompiledModel) -> dict[str, Floats]:
    """Return one log-likelihood per answer that counts, by finding id; a count is added to the answer that it was made with."""
    tampered = is_tampered(evidence)
    count = count_log_likelihood(evidence, model)
    rows = {}
    for question, finding in evidence.answers.items():
        if not isinstance(finding.what, Answer):
            continue
        is_counted_elsewhere = count is not None and question == "repeats"
        row = np.zeros(len(model.faults)) if is_counted_elsewhere else answer_log_likelihood(finding.what, model, is_tampered=tampered)
        rows[finding.id] = row + count[1] if count is not None and count[0] == question else row
    return rows
