"""Log-likelihoods of what counts: answers, counts and trials."""

from __future__ import annotations

from typing import Final

import numpy as np

from spindle.diagnosis.belief.intermittence import clean_run, clean_run_likelihood, count_likelihood, widest_count
from spindle.diagnosis.evidence.gather import Evidence
from spindle.diagnosis.evidence.observation import Observation
from spindle.diagnosis.evidence.playtime import judge_time
from spindle.diagnosis.given.compiled import CompiledModel, Floats, silent
from spindle.faults.model import Question, QuestionKind
from spindle.faults.scale import ROW_FLOOR
from spindle.words.bench import Reach
from spindle.words.witness import UNRELIABILITY, Witness

_TINY: Final = 1e-300
TAMPERED_STORY: Final = 1.5
"""Who hides that he has been inside tells the rest as loosely: the owner's unreliability times this (trap T20)."""


def unreliability(source: Witness, question: Question, *, is_tampered: bool = False) -> float:
    """Return P(an answer to the question is a mere guess)."""
    return UNRELIABILITY[source] * question.slip * (TAMPERED_STORY if is_tampered and source is Witness.OWNER else 1.0)


def with_guesses(rows: Floats, eps: float) -> Floats:
    """Return ``(1 - eps) rows + eps / n_outcomes``, the outcomes along the first axis: now and then an answer is a mere guess."""
    return np.asarray((1.0 - eps) * rows + eps / len(rows))


def logged(question: Question, model: CompiledModel, *, is_home: bool, source: Witness, eps: float) -> Floats:
    """Return P(outcome is logged | fault), of shape (n_outcomes, n_faults): ``(1 - eps) L + eps / n_outcomes``.

    Of what needs a disc, where nobody knows whether it is home: home and not home, mixed. Nobody at a bench logs a stage of a sound
    drive as failed without trying it again: such a failure ends "nothing wrong" (C65).
    """
    rows = with_guesses(model.likelihood[question.id], eps)
    if source is Witness.BENCH and question.kind in (QuestionKind.BASELINE, QuestionKind.DISC_CLASS) and question.id != "repeats":
        failed, sound = np.array([o.id in question.fails for o in question.outcomes]), model.sound > 0.0
        rows[np.ix_(failed, sound)] = ROW_FLOOR
        rows[np.ix_(~failed, sound)] *= (1.0 - ROW_FLOOR * failed.sum()) / rows[np.ix_(~failed, sound)].sum(axis=0)
    if is_home or question.stage < Reach.DISC:
        return rows
    away = with_guesses(silent(question), eps)
    return np.asarray(model.p_home * rows + (1.0 - model.p_home) * away[:, None])


def answer_log_likelihood(seen: Observation, model: CompiledModel, *, is_home: bool, is_tampered: bool = False) -> Floats:
    """Return log P(what was seen is logged | fault), of shape (n_faults,), eps being the unreliability of the source.

    Of a stage that failed now and then, it is what it does when it fails that counts here; how often it does is for the count. Where
    it may have been several outcomes, a guess falls on each alike. A measured one is virtual evidence: ``sum_o w_o P(o | fault)``.
    """
    eps = unreliability(seen.source, seen.question, is_tampered=is_tampered)
    key = (seen.question.id, " ".join(seen.shows), eps, is_home)
    is_kept = seen.seconds is None and not seen.weights
    if is_kept and key in model.log_rows:
        return model.log_rows[key]
    rows = logged(seen.question, model, is_home=is_home, source=seen.source, eps=eps)
    ids = [o.id for o in seen.question.outcomes]
    reference = model.sheet.reference_times.get(seen.question.id)
    if seen.seconds is not None and reference is not None and seen.outcome in ("reads", "slow"):
        usual = judge_time(seen.seconds, reference).p_usual
        return np.asarray(np.log(usual * rows[ids.index("reads")] + (1.0 - usual) * rows[ids.index("slow")]))
    row = np.asarray(np.log(seen.mix(ids) @ rows))
    if is_kept:
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
    eps = unreliability(count.source, count.question, is_tampered=is_tampered(evidence))
    failed, tries = (count.failed or 0) + evidence.failed_trials, (count.tries or 0) + evidence.failed_trials
    return count.question.id, np.asarray(np.log((1.0 - eps) * count_likelihood(failed, tries, model) + eps / (tries + 1)))


def answer_rows(evidence: Evidence, model: CompiledModel) -> dict[str, Floats]:
    """Return one log-likelihood of shape (n_faults,) per answer that counts, by finding id; a count is added to the answer that it was made with."""
    tampered = is_tampered(evidence)
    count = count_log_likelihood(evidence, model)
    run = clean_run(evidence.answers.values()) if count is None else None
    if run is not None:
        count = run.question.id, np.log(clean_run_likelihood(run.tries or 0, model))
    rows = {}
    for question, seen in evidence.answers.items():
        is_counted_elsewhere = count is not None and run is None and question == "repeats"
        row = np.zeros(len(model.faults)) if is_counted_elsewhere else answer_log_likelihood(seen, model, is_home=evidence.far.is_home, is_tampered=tampered)
        rows[seen.finding] = row + count[1] if count is not None and count[0] == question else row
    return rows


def share_home(evidence: Evidence) -> list[Observation]:
    """Return the answers that hang on whether the disc got home, where nobody knows: one silence must not count as many (C63)."""
    return [] if evidence.far.is_home else [o for o in evidence.answers.values() if o.question.stage >= Reach.DISC]


def home_terms(seen: Observation, model: CompiledModel, *, is_tampered: bool) -> Floats:
    """Return what one answer adds to the joint likelihood of those that share the hidden step, of shape (3, n_faults): home, away, and taken alone; logs."""
    eps, ids = unreliability(seen.source, seen.question, is_tampered=is_tampered), [o.id for o in seen.question.outcomes]
    mix = seen.mix(ids)
    away = np.log((1.0 - eps) * float(mix @ silent(seen.question)) + eps * float(mix.sum()) / len(ids))
    home = answer_log_likelihood(seen, model, is_home=True, is_tampered=is_tampered)
    return np.array([home, np.full_like(home, away), answer_log_likelihood(seen, model, is_home=False, is_tampered=is_tampered)])


def joint_home(terms: Floats, n: int, model: CompiledModel) -> Floats:
    """Return what the rows of ``n`` answers that share the hidden step lack to their joint likelihood, of shape (n_faults,), from the sum of their terms.

    ``log sum_h P(h | f) prod_i L(o_i | f, h) - sum_i log sum_h P(h | f) L(o_i | f, h)``, h being that the disc got home; each L with the
    unreliability of its source. A hidden common cause, summed out (J. Pearl, *Probabilistic Reasoning*, 1988, ch. 4).
    """
    if n < 2:
        return np.zeros(len(model.faults))
    home, away = np.log(model.p_home), np.log(np.maximum(1.0 - model.p_home, _TINY))
    return np.asarray(np.logaddexp(home + terms[0], away + terms[1]) - terms[2])


def home_log_likelihood(evidence: Evidence, model: CompiledModel) -> Floats:
    """Return :func:`joint_home` of the answers of a tape that share it, of shape (n_faults,)."""
    shared, tampered = share_home(evidence), is_tampered(evidence)
    terms = sum((home_terms(o, model, is_tampered=tampered) for o in shared), np.zeros((3, len(model.faults))))
    return joint_home(np.asarray(terms), len(shared), model)
