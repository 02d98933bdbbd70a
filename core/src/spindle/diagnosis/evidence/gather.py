"""From findings to what counts: what replaces what, what is left out and why, what is new since the last step."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Final

from spindle.diagnosis.evidence.configured import Configuration, Elsewhere, Occasion, configuration, needs_pairing
from spindle.diagnosis.evidence.observation import Observation, observed, tried_again
from spindle.diagnosis.evidence.reach import HowFar, how_far, is_out_of_reach
from spindle.diagnosis.evidence.vocabulary import check_words
from spindle.diagnosis.given.case import Answer, Finding, Remark, Setting, Trial, TrialResult
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.diagnosis.given.rows import faults_named
from spindle.drives.sheet import OWN_CLASSES
from spindle.faults.model import CANT_TELL, Question, QuestionKind
from spindle.words.bench import Depth, Mains, Reach

LIKELY_CURED: Final = 0.5
"""A change has touched a fault if it would have cured it more often than not."""


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
    TOO_MANY_ITEMS = "too_many_items"
    UNPOWERED = "unpowered"
    NOT_REACHED = "not_reached"
    NO_BASELINE = "no_baseline"
    OLDER_THAN_CHANGE = "older_than_change"


@dataclass(frozen=True)
class Evidence:
    """What the findings of a case amount to.

    Attributes
    ----------
    answers : mapping of question id to what was observed of it
    since : ids of the answers that were given after the last trial and say more than was known before it
    news : question id to a symptom that was not there before our last step (trap T18)
    trials : the trials that count, in order
    left_out : finding id to the reason why it weighs nothing
    changed_at : position in the findings of the last trial that changed the trouble; -1 if none did
    beyond : question id to what was seen of a stage that the drive had not reached: no evidence, and still to be proved once it is mended
    far : how far the drive comes, as it is now
    occasions : what was seen with another's items in it, or elsewhere; none of it is in ``answers``
    """

    answers: dict[str, Observation] = field(default_factory=dict)
    since: set[str] = field(default_factory=set)
    news: dict[str, Observation] = field(default_factory=dict)
    trials: list[Trial] = field(default_factory=list)
    left_out: dict[str, LeftOut] = field(default_factory=dict)
    changed_at: int = -1
    beyond: dict[str, Observation] = field(default_factory=dict)
    far: HowFar = field(default_factory=HowFar)
    occasions: list[Occasion] = field(default_factory=list)

    @property
    def said(self) -> dict[str, Observation]:
        """What the drive is known for, by question; what is new since our own last step is not in it."""
        return self.answers

    def narrowed(self, model: CompiledModel) -> CompiledModel:
        """Return the model with what the answers say of how a fault fails: what can cure it follows from that."""
        return model.given({q: o.outcome for q, o in self.answers.items()})

    @property
    def failed_trials(self) -> int:
        """Trials that left the fault: each was a try, and it failed."""
        return sum(t.result in (TrialResult.NO_CHANGE, TrialResult.WORSE) for t in self.trials)


@dataclass(frozen=True, slots=True)
class Read:
    """One finding as it counts by itself: why it is left out whatever else is on the tape, or what was observed.

    Reading is done once; the same findings are gathered many times, each time with another one struck.
    """

    finding: Finding
    place: int
    reason: LeftOut | None
    seen: Observation | None = None
    where: Configuration | None = None
    """What sat in the unit, if not its own parts alone."""

    @property
    def struck(self) -> Read:
        """The same finding, struck."""
        return Read(self.finding, self.place, LeftOut.STRUCK)


def read(findings: Iterable[Finding], model: CompiledModel) -> tuple[Read, ...]:
    """Read each finding by itself.

    Raises
    ------
    UnknownWordError
        If a finding uses a question, outcome or repair that the loader family does not have.
    CaseError
        If a count, a time or a trial does not fit.
    """
    return tuple(_read(finding, n, model) for n, finding in enumerate(findings))


def _read(finding: Finding, place: int, model: CompiledModel) -> Read:
    check_words(finding, model, f"/findings/{place}")
    reason = _reason_to_leave_out(finding, model)
    if reason is not None or not isinstance(finding.what, Answer):
        return Read(finding, place, reason)
    where = configuration(finding.what.setting, model)
    return Read(finding, place, None, observed(finding.id, finding.what, model.questions[finding.what.question], place), where)


def gather(lines: Iterable[Read], model: CompiledModel) -> Evidence:
    """Return what counts. A repeated observation replaces the former one: it is not new evidence."""
    return _Reading(model).through(lines)


class _Reading:
    """Goes through the tape once, line by line."""

    def __init__(self, model: CompiledModel) -> None:
        self._model = model
        self._found = Evidence()
        self._at_trial: dict[str, Observation] = {}
        self._trial_lines: list[tuple[int, Finding, Trial]] = []
        self._changed_at = -1
        self._elsewhere = Elsewhere(model)

    def through(self, lines: Iterable[Read]) -> Evidence:
        found = self._found
        for line in lines:
            if line.reason is not None:
                found.left_out[line.finding.id] = line.reason
            elif line.seen is not None and line.where is not None:
                former = self._elsewhere.add(line.seen, line.where)
                found.left_out.update({former.finding: LeftOut.REPLACED} if former else {})
            elif line.seen is not None:
                self._answer(line.seen)
            elif isinstance(line.finding.what, Trial):
                self._trial(line.finding, line.finding.what, line.place)
        far = self._leave_out_unreached()
        if not any(o.is_seen_failing for o in self._seen) and self._changed_at < 0:
            # an improvement over nothing seen is no evidence (trap T21)
            found.left_out.update({f.id: LeftOut.NO_BASELINE for _, f, trial in self._trial_lines if trial.result is TrialResult.CLEAN})
        trials = [t for _, f, t in self._trial_lines if f.id not in found.left_out]
        occasions = self._occasions()
        return Evidence(found.answers, found.since, found.news, trials, found.left_out, self._changed_at, found.beyond, far, occasions)

    @property
    def _seen(self) -> list[Observation]:
        return [*self._found.answers.values(), *self._found.news.values()]

    def _answer(self, now: Observation) -> None:
        found, name = self._found, now.question.id
        former = found.news.get(name) or found.answers.get(name)
        if former is not None:
            now = tried_again(former, now)
        before = self._at_trial.get(name)
        is_new = now.question.is_behaviour and before is not None and not before.is_failure and now.is_failure
        for old in (found.news.pop(name, None), None if is_new else found.answers.get(name)):
            if old is not None:
                found.left_out[old.finding] = LeftOut.REPLACED
                found.since.discard(old.finding)
        if is_new:
            found.news[name] = now
            return
        found.answers[name] = now
        if self._trial_lines and (before is None or before.shows != now.shows):
            found.since.add(now.finding)

    def _occasions(self) -> list[Occasion]:
        kept, too_many, beyond = self._elsewhere.counted()
        self._found.left_out.update({o.finding: LeftOut.TOO_MANY_ITEMS for o in too_many})
        self._found.left_out.update({o.finding: _unreached(halted) for o, halted in beyond})
        return kept

    def _trial(self, finding: Finding, trial: Trial, place: int) -> None:
        found = self._found
        if trial.result is TrialResult.CHANGED:
            # one fault of two may be gone: what the drive did before is no longer what it does
            touched = self._touched_by(trial)
            self._leave_out([o for o in self._seen if self._is_aged(o.question, touched)], LeftOut.OLDER_THAN_CHANGE)
            self._changed_at = place
            aged = self._elsewhere.age(lambda question: self._is_aged(question, touched))
            found.left_out.update({o.finding: LeftOut.OLDER_THAN_CHANGE for o in aged})
        found.since.clear()
        self._trial_lines.append((place, finding, trial))
        self._at_trial = {**found.answers, **found.news}

    def _touched_by(self, trial: Trial) -> set[str]:
        """Return the faults that a trial's changes would most likely have cured, what opening reseats by the way included."""
        rows = [self._model.success[self._model.repair_index[c.repair]] for c in trial.changes]
        return {f.id for i, f in enumerate(self._model.faults) if max(row[i] for row in rows) >= LIKELY_CURED}

    def _is_aged(self, question: Question, touched: set[str]) -> bool:
        """Tell whether a change made an answer old: every behaviour, and looks at the very part that was changed."""
        if question.kind is QuestionKind.INTAKE:
            return False
        if question.is_behaviour:
            return True
        named = (f for row in question.rows for f in faults_named(row.faults, self._model.model, self._model.sheet))
        return any(f in touched for f in named)

    def _leave_out(self, these: Iterable[Observation], reason: LeftOut) -> None:
        """Leave observations out whole, from what is known and from what is new alike."""
        for o in these:
            self._found.left_out[o.finding] = reason
            self._found.since.discard(o.finding)
            for kept in (self._found.answers, self._found.news):
                if kept.get(o.question.id) is o:
                    del kept[o.question.id]

    def _leave_out_unreached(self) -> HowFar:
        """Leave out what the drive was seen to do at a stage that it had not reached: it says nothing about that stage.

        What stopped it since a step of ours takes along only what was seen after that step.
        """
        far = how_far(self._found.answers.values())
        self._leave_out_beyond(far, -1)
        if self._found.news and self._trial_lines:
            since = self._trial_lines[-1][0]
            lately = how_far([o for o in self._seen if o.place > since])
            self._leave_out_beyond(lately, since)
            far = far if lately.halted is None else lately
        return far

    def _leave_out_beyond(self, far: HowFar, since: int) -> None:
        if far.halted is None:
            return
        beyond = [o for o in self._seen if o.place > since and o is not far.halted_by and is_out_of_reach(o.question, far.halted)]
        self._found.beyond.update({o.question.id: o for o in beyond})
        self._leave_out(beyond, _unreached(far.halted))


def _unreached(halted: Reach | None) -> LeftOut:
    return LeftOut.UNPOWERED if halted is Reach.POWER else LeftOut.NOT_REACHED


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
    is_foreign = setting.board == "other" or (setting.console == "other" and needs_pairing(question.kind, question.stage))
    is_barred = "foreign_films" not in model.sheet.features or question.kind is not QuestionKind.DISC_CLASS or question.id in OWN_CLASSES
    if is_foreign and is_barred and "paired" in model.sheet.features and question.is_behaviour and question.id != "unpaired_board":
        return LeftOut.UNPAIRED_BOARD
    mains_wrong = question.mains is not Mains.ANY and setting.mains not in ("", question.mains.value)
    cover_wrong = setting.cover == "on" and question.depth >= Depth.COVER_OFF
    return LeftOut.WRONG_STATE if mains_wrong or cover_wrong else None


def baseline_failures(evidence: Evidence, model: CompiledModel) -> tuple[str, ...]:
    """Return the baseline stages and disc classes that failed, in the order of the baseline; those that were not reached are still to be proved."""
    failed = {q for q, o in {**evidence.answers, **evidence.beyond}.items() if o.is_failure}
    return tuple(q.id for q in model.questions.values() if q.id in failed and q.kind in (QuestionKind.BASELINE, QuestionKind.DISC_CLASS))
