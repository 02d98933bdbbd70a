"""An answer taken from a recording. As it was offered it speaks softly; who listened and hears it too has seen it with the bench's own ears."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, Final

from spindle.diagnosis.given.case import Answer, Finding
from spindle.errors import NotFoundError, NotNowError
from spindle.formats.case_file import read_what, write_what
from spindle.job.asking import OPEN, AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.findings import check_vocabulary
from spindle.job.hazards import after_finding
from spindle.job.line import Line
from spindle.job.sounds import is_older, offers, seen_itself, setting_of, softly
from spindle.job.value import Job
from spindle.sound.answers import QUESTIONS
from spindle.words.bounds import Number, Word


@dataclass(frozen=True, slots=True)
class Hear:
    """Take an answer from a recording. ``listened``: somebody played it and hears the same, or something else."""

    sound: Number
    question: Word
    outcome: Word
    listened: bool = False


def _decide(job: Job, ask: Hear, _world: World) -> Decision:
    """Each question is answered once by each recording, and never in place of what the bench has seen since the last trial."""
    sound = job.sounds.get(ask.sound)
    if sound is None:
        raise NotFoundError(f"Line {ask.sound} is no recording, or is struck.")
    if ask.question in sound.taken:
        raise NotNowError(
            f"This answer was taken from this recording already, in line {sound.taken[ask.question]}: one recording counts once. Strike that first.",
            reason="taken_already",
        )
    if is_older(job, sound):
        raise NotNowError("Something has been tried since this was recorded: record it again, as it is now.", reason="older_than_trial")
    if ask.listened:
        answer = Answer(ask.question, ask.outcome, setting=setting_of(sound))
        check_vocabulary(answer, job)
        if ask.question not in QUESTIONS:
            raise NotFoundError("Nobody can hear that: answer it as it was seen or measured.")
    else:
        offer = next((o for o in offers(job, sound) if (o.question, o.outcome) == (ask.question, ask.outcome)), None)
        if offer is None:
            raise NotFoundError("This recording does not offer that answer. Listen, and say what you hear.")
        answer = softly(offer, job, sound)
        if (seen := seen_itself(job, answer)) is not None:
            raise NotNowError(f"The bench has seen this itself, in line {seen}: a recording does not stand in its place.", reason="seen_already")
    return one("heard", {"sound": ask.sound, "listened": ask.listened, "answer": write_what(answer)})


def _fold(job: Job, line: Line) -> Job:
    what = read_what("answer", line.body["answer"], f"/tape/{line.number}")
    was = job.sounds.get(line.body["sound"])
    is_struck = line.number in job.struck or was is None
    finding = Finding(str(line.number), what, is_struck)
    if was is not None and not is_struck and isinstance(what, Answer):
        job = replace(job, sounds={**job.sounds, was.line: replace(was, taken={**was.taken, what.question: line.number})})
    return replace(job, findings=(*job.findings, finding), holds=after_finding(job.holds, finding, line.at))


def _says(body: Mapping[str, Any], speech: Speech) -> str:
    answer = body["answer"]
    outcome = speech.job.model.family_questions[answer["question"]].outcome(answer["outcome"])
    how = "Heard, and listened to" if body["listened"] else "Heard by the recording"
    return f"{how} (line {body['sound']}): {outcome.line if outcome else answer['outcome']}"


KIND: Final = LineKind("heard", _says, _fold, (AskKind("hear", Hear, _decide, Needs(OPEN)),), is_finding=True, weighs=True)
