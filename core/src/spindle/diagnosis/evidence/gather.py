"""From findings to what counts: what replaces what, what is left out and why, what is new since the last step."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field
from enum import StrEnum

from spindle.diagnosis.evidence.vocabulary import check_words
from spindle.diagnosis.given.case import Answer, Finding, Remark, Setting, Trial, TrialResult
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.faults.model import CANT_TELL, Question, QuestionKind
from spindle.words.bench import Depth, Mains
from spindle.words.witness import Witness


class LeftOut(StrEnum):
    """Why a finding weighs nothing at all. Such a finding is never merely weakened."""

    STRUCK = "struck"
    REMARK = "remark"
    CANT_TELL = "cant_tell"
    REPLACED = "replaced"
    NOT_ON_THIS_DRIVE = "not_on_this_drive"
    WRONG_STATE = "wrong_state"
    DISC_WRONG_WAY = "disc_wrong_way"
    UNPAIRED_BOARD = "unpaired_board"
    UNPOWERED = "unpowered"
    NO_BASELINE = "no_baseline"
    OLDER_THAN_CHANGE = "older_than_change"


@dataclass(frozen=True)
class Evidence:
    """What the findings of a case amount to.

    Attributes
    ----------
    answers : mapping of question id to the finding that counts for it
    since : ids of the answers that were given after the last trial and say more than was known before it
    news : question id to the finding of a symptom that was not there before our last step (trap T18)
    trials : the trials that count, in order
    left_out : finding id to the reason why it weighs nothing
    changed_at : position in the findings of the last trial that changed the trouble; -1 if none did
    """

    answers: dict[str, Finding] = field(default_factory=dict)
    since: set[str] = field(default_factory=set)
    news: dict[str, Finding] = field(default_factory=dict)
    trials: list[Trial] = field(default_factory=list)
    left_out: dict[str, LeftOut] = field(default_factory=dict)
    changed_at: int = -1

    @property
    def said(self) -> dict[str, Answer]:
        """The answers that count, by question."""
        return {q: f.what for q, f in self.answers.items() if isinstance(f.what, Answer)}


def gather(findings: Iterable[Finding], model: CompiledModel) -> Evidence:
    """Return what counts. A repeated observation replaces the former one: it is not new evidence.

    Raises
    ------
    UnknownWordError
        If a finding uses a question, outcome or repair that the loader family does not have.
    """
    return _Reading(model).read(tuple(findings))


class _Reading:
    """Goes through the tape once, line by line."""

    def __init__(self, model: CompiledModel) -> None:
        self._model = model
        self._found = Evidence()
        self._at_trial: dict[str, str] = {}
        self._trial_lines: list[tuple[Finding, Trial]] = []
        self._changed_at = -1

    def read(self, findings: tuple[Finding, ...]) -> Evidence:
        found = self._found
        for n, finding in enumerate(findings):
            check_words(finding, self._model, f"/findings/{n}")
            reason = _reason_to_leave_out(finding, self._model)
            if reason is not None:
                found.left_out[finding.id] = reason
            elif isinstance(finding.what, Trial):
                self._trial(finding, finding.what, n)
            elif isinstance(finding.what, Answer):
                self._answer(finding, finding.what)
        self._leave_out_unpowered()
        seen = [*found.answers.values(), *found.news.values()]
        if not any(_is_failure(f, self._model) for f in seen) and self._changed_at < 0:
            # an improvement over nothing seen is no evidence (trap T21)
            found.left_out.update({f.id: LeftOut.NO_BASELINE for f, trial in self._trial_lines if trial.result is TrialResult.CLEAN})
        trials = [t for f, t in self._trial_lines if f.id not in found.left_out]
        return Evidence(found.answers, found.since, found.news, trials, found.left_out, self._changed_at)

    def _answer(self, finding: Finding, answer: Answer) -> None:
        found, name = self._found, answer.question
        question = self._model.questions[name]
        before = self._at_trial.get(name)
        for former in (found.news.pop(name, None), None if self._is_new(question, before, answer) else found.answers.get(name)):
            if former is not None:
                found.left_out[former.id] = LeftOut.REPLACED
                found.since.discard(former.id)
        if self._is_new(question, before, answer):
            found.news[name] = finding
            return
        found.answers[name] = finding
        if self._trial_lines and before != answer.outcome:
            found.since.add(finding.id)

    @staticmethod
    def _is_new(question: Question, before: str | None, answer: Answer) -> bool:
        """Tell whether a stage that worked at the last trial fails now."""
        return question.is_behaviour and bool(before) and before not in question.fails and answer.outcome in question.fails

    def _trial(self, finding: Finding, trial: Trial, place: int) -> None:
        found = self._found
        if trial.result is TrialResult.CHANGED:
            # one fault of two may be gone: what the drive did before is no longer what it does
            for former in [*found.answers.values(), *found.news.values()]:
                if isinstance(former.what, Answer) and self._is_aged(self._model.questions[former.what.question], trial):
                    found.left_out[former.id] = LeftOut.OLDER_THAN_CHANGE
            for kept in (found.answers, found.news):
                for name in [q for q, f in kept.items() if f.id in found.left_out]:
                    del kept[name]
            self._changed_at = place
        found.since.clear()
        self._trial_lines.append((finding, trial))
        said = {q: f.what for q, f in {**found.answers, **found.news}.items()}
        self._at_trial = {q: a.outcome for q, a in said.items() if isinstance(a, Answer)}

    def _is_aged(self, question: Question, trial: Trial) -> bool:
        """Tell whether a change made an answer old: every behaviour, and looks at the very part that was changed."""
        if question.kind is QuestionKind.INTAKE:
            return False
        if question.is_behaviour:
            return True
        touched = {f for c in trial.changes for f, s in self._model.repairs[self._model.repair_index[c.repair]].cures.items() if s >= 0.5}
        named = {name for row in question.rows for name in row.faults.split()}
        return bool(named & touched)

    def _leave_out_unpowered(self) -> None:
        """Leave out what a drive without power was seen to do: it says nothing about the drive."""
        power = self._found.answers.get("power")
        if power is None or not isinstance(power.what, Answer) or power.what.outcome != "no":
            return
        for name, finding in list(self._found.answers.items()):
            question = self._model.questions[name]
            if question.is_behaviour and question.mains is Mains.LIVE and name != "power":
                self._found.left_out[finding.id] = LeftOut.UNPOWERED
                self._found.since.discard(finding.id)
                del self._found.answers[name]


def _reason_to_leave_out(finding: Finding, model: CompiledModel) -> LeftOut | None:
    """Return why a finding weighs nothing whatever else is on the tape; None if it counts."""
    what = finding.what
    if finding.is_struck:
        return LeftOut.STRUCK
    if isinstance(what, Remark):
        return LeftOut.REMARK
    if isinstance(what, Trial):
        return None
    if what.question not in model.questions:
        return LeftOut.NOT_ON_THIS_DRIVE
    if what.outcome == CANT_TELL:
        return LeftOut.CANT_TELL
    return _wrong_setting(model.questions[what.question], what.setting, model)


def _wrong_setting(question: Question, setting: Setting, model: CompiledModel) -> LeftOut | None:
    """Return why an answer seen in that state is no answer to this question."""
    if question.is_behaviour and setting.disc_side == "wrong":
        return LeftOut.DISC_WRONG_WAY
    if setting.board == "other" and "paired" in model.sheet.features and question.is_behaviour and question.id != "unpaired_board":
        return LeftOut.UNPAIRED_BOARD
    mains_wrong = question.mains is not Mains.ANY and setting.mains not in ("", question.mains.value)
    cover_wrong = setting.cover == "on" and question.depth >= Depth.COVER_OFF
    return LeftOut.WRONG_STATE if mains_wrong or cover_wrong else None


def baseline_failures(evidence: Evidence, model: CompiledModel) -> tuple[str, ...]:
    """Return the baseline stages and disc classes that failed, in the order of the baseline."""
    failed = {q for q, a in evidence.said.items() if a.outcome in model.questions[q].fails}
    return tuple(q.id for q in model.questions.values() if q.id in failed and q.kind in (QuestionKind.BASELINE, QuestionKind.DISC_CLASS))


def _is_failure(finding: Finding, model: CompiledModel) -> bool:
    """Tell whether a finding is a failure that the bench itself saw: without one there is no baseline (trap T21)."""
    what = finding.what
    return isinstance(what, Answer) and what.source is Witness.BENCH and what.outcome in model.questions[what.question].fails
