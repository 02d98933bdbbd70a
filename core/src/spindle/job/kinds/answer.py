"""An answer to a question, by the bench, by the owner, or from memory."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import Any, Final

from spindle.diagnosis.given.case import Answer
from spindle.errors import InvalidError
from spindle.faults.model import CANT_TELL, QuestionKind
from spindle.formats.case_file import write_what
from spindle.job.asking import OPEN, AskKind, Decision, LineKind, Needs, Speech, World
from spindle.job.barring import check_half_built, check_hands, check_mains
from spindle.job.findings import check_vocabulary, fold_finding
from spindle.job.line import Draft
from spindle.job.opening import opened_to
from spindle.job.value import Job
from spindle.words.bench import Depth, Mains
from spindle.words.witness import Witness

_SETTINGS: Final = {
    ("disc_side", "wrong"): ", disc the wrong way round",
    ("board", "other"): ", with another board fitted",
    ("cover", "off"): ", cover off",
    ("mains", "out"): ", mains out",
    ("console", "other"): ", on another console",
}
_WHO: Final = {Witness.OWNER: "Owner says: ", Witness.REMEMBERED: "Remembered: "}


def _decide(job: Job, ask: Answer, world: World) -> Decision:
    """What the bench itself saw needs the mains state of its question, opens the unit that far, and is about what sits in it now."""
    check_vocabulary(ask, job)
    if ask.failed is not None and ask.failed > (ask.tries or 0):
        raise InvalidError("failed", f"{ask.failed} failures of {ask.tries or 0} tries: count again.")
    drafts: tuple[Draft, ...] = ()
    is_seen_now = ask.source is Witness.BENCH and job.model.family_questions[ask.question].kind is not QuestionKind.INTAKE
    fitted = job.on_trial if is_seen_now and not ask.setting.on else ()  # the tape says what sits in it, nobody else
    ask = replace(ask, setting=replace(ask.setting, fitted=fitted), weights=())  # a share is measured, never said
    if ask.source is Witness.BENCH and ask.outcome != CANT_TELL and not ask.setting.on:
        question = job.model.family_questions[ask.question]
        check_mains(job, question.mains, world.now)
        check_half_built(job, question)
        check_hands(job, question.depth if question.mains is Mains.OUT else Depth.CLOSED, world.now)
        drafts = opened_to(job, question.depth, world.now)
    return Decision((*drafts, Draft("answer", write_what(ask))))


def _says(body: Mapping[str, Any], speech: Speech) -> str:
    question = speech.job.model.family_questions[body["question"]]
    if body["outcome"] == CANT_TELL:
        return f"{question.ask} Can't tell"
    outcome = question.outcome(body["outcome"])
    text = outcome.line if outcome else body["outcome"]
    if body.get("tries"):
        text += f" ({body.get('failed', 0)} of {body['tries']} tries failed)"
    if body.get("seconds"):
        text += f" ({body['seconds']:g} s)"
    setting = body.get("setting", {})
    text += "".join(_SETTINGS.get((k, v), "") for k, v in setting.items() if isinstance(v, str))
    text += f", with {' and '.join(c['item'] for c in setting['fitted'])} in it" if setting.get("fitted") else ""
    text += f", on {setting['on']} by itself" if setting.get("on") else ""
    return _WHO.get(Witness(body["source"]), "") + text


KIND: Final = LineKind("answer", _says, fold_finding, (AskKind("answer", Answer, _decide, Needs(OPEN)),), is_finding=True, weighs=True)
