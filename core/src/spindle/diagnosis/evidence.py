"""From findings to log-likelihoods: what counts, what replaces what, what is left out and why."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum

import numpy as np

from spindle.diagnosis.case import UNRELIABILITY, Answer, Finding, Remark, Source, Trial, TrialResult
from spindle.diagnosis.compiled import CompiledModel, Floats
from spindle.diagnosis.trials import trials_log_likelihood
from spindle.errors import CaseError, UnknownWordError
from spindle.faults.model import CANT_TELL, QuestionKind


class LeftOut(StrEnum):
    """Why a finding weighs nothing at all."""

    STRUCK = "struck"
    REMARK = "remark"
    CANT_TELL = "cant_tell"
    REPLACED = "replaced"
    NOT_ON_THIS_DRIVE = "not_on_this_drive"
    NO_BASELINE = "no_baseline"


@dataclass(frozen=True)
class Evidence:
    """What the findings of a case amount to.

    Attributes
    ----------
    answers : mapping of question id to the finding that counts for it
    trials : the trials that count, in order
    left_out : finding id to the reason why it weighs nothing
    p_fail_per_try : how often one try fails while the fault is there (trap T21)
    """

    answers: dict[str, Finding]
    trials: tuple[Trial, ...]
    left_out: dict[str, LeftOut]
    p_fail_per_try: float


def gather(findings: Iterable[Finding], model: CompiledModel) -> Evidence:
    """Return what counts. A repeated observation replaces the former one: it is not new evidence.

    Raises
    ------
    UnknownWordError
        If a finding uses a question, outcome or repair that the loader family does not have.
    """
    answers: dict[str, Finding] = {}
    trials: list[tuple[Finding, Trial]] = []
    left_out: dict[str, LeftOut] = {}
    for n, finding in enumerate(findings):
        check_words(finding, model, f"/findings/{n}")
        reason = _reason_to_leave_out(finding, model)
        if reason is not None:
            left_out[finding.id] = reason
        elif isinstance(finding.what, Trial):
            trials.append((finding, finding.what))
        elif isinstance(finding.what, Answer):
            if finding.what.question in answers:
                left_out[answers[finding.what.question].id] = LeftOut.REPLACED
            answers[finding.what.question] = finding
    if not any(_is_failure(f, model) for f in answers.values()):  # an improvement over nothing seen is no evidence (trap T21)
        left_out |= {f.id: LeftOut.NO_BASELINE for f, trial in trials if trial.result is TrialResult.CLEAN}
    return Evidence(answers, tuple(t for f, t in trials if f.id not in left_out), left_out, _p_fail_per_try(answers))


def _reason_to_leave_out(finding: Finding, model: CompiledModel) -> LeftOut | None:
    """Return why a finding weighs nothing whatever else is on the tape; None if it counts."""
    what = finding.what
    if finding.is_struck:
        return LeftOut.STRUCK
    if isinstance(what, Remark):
        return LeftOut.REMARK
    if isinstance(what, Answer) and what.question not in model.questions:
        return LeftOut.NOT_ON_THIS_DRIVE
    if isinstance(what, Answer) and what.outcome == CANT_TELL:
        return LeftOut.CANT_TELL
    return None


def log_likelihoods(evidence: Evidence, model: CompiledModel) -> Floats:
    """Return one log-likelihood row per answer, and one for all trials together.

    Returns
    -------
    ndarray of shape (n_answers + 1, n_faults)
    """
    rows = np.zeros((len(evidence.answers) + 1, len(model.faults)))
    for n, finding in enumerate(evidence.answers.values()):
        rows[n] = answer_log_likelihood(finding.what, model)  # type: ignore[arg-type]  # gather keeps answers only
    if evidence.trials:
        rows[-1] = trials_log_likelihood(evidence.trials, model, p_fail_per_try=evidence.p_fail_per_try)
    return rows


def answer_log_likelihood(answer: Answer, model: CompiledModel) -> Floats:
    """Return ``log[(1 - eps) P(outcome | fault) + eps / n_outcomes]``, eps being the unreliability of the source."""
    table = model.likelihood[answer.question]
    outcome = [o.id for o in model.questions[answer.question].outcomes].index(answer.outcome)
    eps = UNRELIABILITY[answer.source]
    return np.asarray(np.log((1.0 - eps) * table[outcome] + eps / len(table)))


def check_words(finding: Finding, model: CompiledModel, place: str) -> None:
    """Check that a finding uses words that the loader family has.

    Raises
    ------
    UnknownWordError
        If it does not.
    CaseError
        If a trial names no change, or a repair that this drive does not allow.
    """
    if isinstance(finding.what, Answer):
        _check_answer(finding.what, model, f"{place}/answer")
    elif isinstance(finding.what, Trial):
        _check_trial(finding.what, model, f"{place}/trial")


def _check_answer(answer: Answer, model: CompiledModel, place: str) -> None:
    question = model.family_questions.get(answer.question)
    if question is None:
        raise UnknownWordError(f"{place}/question", "question", answer.question, model.family_questions)
    if answer.outcome != CANT_TELL and question.outcome(answer.outcome) is None:
        raise UnknownWordError(f"{place}/outcome", "answer", answer.outcome, [o.id for o in question.outcomes])


def _check_trial(trial: Trial, model: CompiledModel, place: str) -> None:
    if not trial.changes:
        raise CaseError(f"{place}/changes", "a trial needs at least one change")
    family = [r.id for r in model.model.repairs]
    for n, change in enumerate(trial.changes):
        if change.repair not in family:
            raise UnknownWordError(f"{place}/changes/{n}/repair", "repair", change.repair, family)
        if change.repair not in model.repair_index:
            raise CaseError(f"{place}/changes/{n}/repair", f"{change.repair!r} cannot be done on this drive (see its sheet)")


def baseline_failures(evidence: Evidence, model: CompiledModel) -> tuple[str, ...]:
    """Return the baseline stages and disc classes that failed, in the order of the baseline."""
    failed = {q for q, f in evidence.answers.items() if isinstance(f.what, Answer) and f.what.outcome in model.questions[q].fails}
    return tuple(q.id for q in model.questions.values() if q.id in failed and q.kind in (QuestionKind.BASELINE, QuestionKind.DISC_CLASS))


def _is_failure(finding: Finding, model: CompiledModel) -> bool:
    """Tell whether a finding is a failure that the bench itself saw: without one there is no baseline (trap T21)."""
    what = finding.what
    return isinstance(what, Answer) and what.source is Source.BENCH and what.outcome in model.questions[what.question].fails


def _p_fail_per_try(answers: dict[str, Finding]) -> float:
    """Return how often one try fails while the fault is there, from the k of n on the tape (Jeffreys mean)."""
    counted = [a.what for a in answers.values() if isinstance(a.what, Answer) and a.what.tries and a.what.failed]
    if counted:
        worst = max(counted, key=lambda a: (a.tries or 0, a.failed or 0))
        return ((worst.failed or 0) + 0.5) / ((worst.tries or 0) + 1.0)
    steady = answers.get("repeats")
    comes_and_goes = steady is not None and isinstance(steady.what, Answer) and steady.what.outcome == "comes_and_goes"
    return 0.5 if comes_and_goes else 0.95
