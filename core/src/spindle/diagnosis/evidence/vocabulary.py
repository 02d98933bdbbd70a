"""The words of a finding, checked against the vocabulary of its loader family."""

from __future__ import annotations

from collections.abc import Sequence

from spindle.diagnosis.given.case import Answer, Change, Finding, Trial
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.errors import CaseError, UnknownWordError
from spindle.faults.model import CANT_TELL, QuestionKind
from spindle.words.health import FUNCTIONS


def check_words(finding: Finding, model: CompiledModel, place: str) -> None:
    """Check that a finding uses words that the loader family has, and numbers that fit them.

    Raises
    ------
    UnknownWordError
        If it names an unknown question, answer, repair or function.
    CaseError
        If a trial names no change or a repair that this drive does not allow, or a count or time does not fit its answer.
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
    for n, weight in enumerate(answer.weights):
        if question.outcome(weight.outcome) is None:
            raise UnknownWordError(f"{place}/weights/{n}/outcome", "answer", weight.outcome, [o.id for o in question.outcomes])
    if answer.failed == 0 and answer.tries and answer.outcome in question.fails:
        raise CaseError(f"{place}/failed", f"{answer.outcome!r} is a failure, yet none of {answer.tries} tries failed; answer what it did instead")
    if answer.seconds is not None and question.kind is not QuestionKind.DISC_CLASS:
        raise CaseError(f"{place}/seconds", "a time to play belongs to a disc class; note other times as a remark")
    if answer.setting.on and (answer.setting.fitted or answer.setting.console):
        raise CaseError(f"{place}/setting/on", "what was seen on a donor by itself was seen with nothing of this unit, and with nothing fitted")
    check_fitted(answer.setting.fitted, model, f"{place}/setting/fitted")


def check_fitted(changes: Sequence[Change], model: CompiledModel, place: str) -> None:
    """Check what sits in the unit instead of its own parts.

    Raises
    ------
    UnknownWordError, CaseError
        If one is no part that this drive takes, has no name, or sits where another does.
    """
    for n, change in enumerate(changes):
        _check_change(change, model, f"{place}/{n}")
        if not model.repairs[model.repair_index[change.repair]].uses_item:
            raise CaseError(f"{place}/{n}/repair", f"{change.repair!r} fits no part")
        if not change.item.strip():
            raise CaseError(f"{place}/{n}/item", "say which item: its tag, or the donor's")
    if len({c.repair for c in changes}) < len(changes):
        raise CaseError(place, "two items in one place")


def _check_trial(trial: Trial, model: CompiledModel, place: str) -> None:
    if not trial.changes:
        raise CaseError(f"{place}/changes", "a trial needs at least one change")
    for n, change in enumerate(trial.changes):
        _check_change(change, model, f"{place}/changes/{n}")


def _check_change(change: Change, model: CompiledModel, place: str) -> None:
    family = [r.id for r in model.model.repairs]
    if change.repair not in family:
        raise UnknownWordError(f"{place}/repair", "repair", change.repair, family)
    if change.repair not in model.repair_index:
        raise CaseError(f"{place}/repair", f"{change.repair!r} cannot be done on this drive (see its sheet)")
    for name in sorted(change.works | change.fails):
        if name not in FUNCTIONS:
            raise UnknownWordError(f"{place}/works", "function", name, FUNCTIONS)
    if change.works & change.fails:
        raise CaseError(f"{place}/fails", f"{', '.join(sorted(change.works & change.fails))} cannot both work and fail")
