"""What a calculator of the bench said: kept with its inputs, answers a question softly where it can, and is one finding with one strike."""

from __future__ import annotations

import json
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, Final

from spindle.bench.tools.catalogue import TOOLS, tool
from spindle.bench.tools.told import Speaks, Told
from spindle.diagnosis.given.case import Answer, Finding, Remark, Setting, Weight
from spindle.errors import InvalidError
from spindle.faults.model import QuestionKind
from spindle.formats.case_file import read_what, write_what
from spindle.job.asking import OPEN, AskKind, Decision, LineKind, Needs, Speech, World
from spindle.job.barring import check_hands, check_mains
from spindle.job.findings import check_vocabulary
from spindle.job.hazards import after_measuring
from spindle.job.line import Draft, Line
from spindle.job.opening import opened_to
from spindle.job.value import Job
from spindle.words.bench import Depth, Mains
from spindle.words.bounds import Short, Word, WordOrNone

MOST_CHARACTERS: Final = 20_000
"""Of the inputs as text: the largest flex with every pair read twice has half of that."""


@dataclass(frozen=True, slots=True)
class Measure:
    """What was measured, and for which question of the drive, if for any. What comes of it is computed here, never taken from outside."""

    tool: Word
    inputs: Mapping[str, Any]
    question: WordOrNone = ""
    about: Short = ""
    """Which one: the switch's name, the points."""


def _decide(job: Job, ask: Measure, world: World) -> Decision:
    """What was read needs the mains as it was read, opens the unit as far as its question, and is about what sits in it now."""
    if len(json.dumps(ask.inputs)) > MOST_CHARACTERS:
        raise InvalidError("inputs", f"More than {MOST_CHARACTERS} characters of readings: keep it in two.")
    told = tool(ask.tool).answer(ask.inputs)
    check_mains(job, told.mains, world.now)
    body: dict[str, Any] = {"tool": ask.tool, "inputs": dict(ask.inputs), "about": ask.about.strip(), **_said(told)}
    speaks = next((s for s in told.speaks if s.question == ask.question), None)
    if speaks is None:
        return Decision((Draft("measured", body),))
    answer = _answer(speaks, job)
    question = job.model.family_questions[ask.question]
    check_mains(job, question.mains, world.now)
    check_hands(job, question.depth if question.mains is Mains.OUT else Depth.CLOSED, world.now)
    return Decision((*opened_to(job, question.depth, world.now), Draft("measured", {**body, "answer": write_what(answer)})))


def _said(told: Told) -> dict[str, Any]:
    """Return what is kept of an answer: what the tape and the report say."""
    return {
        "headline": told.headline,
        "verdict": told.verdict.name.lower() if told.verdict is not None else "",
        "reasons": [r.text for r in told.reasons],
        "numbers": [[n.name, n.text] for n in told.numbers],
        "notes": list(told.notes),
        "may_power": told.may_power,
    }


def _answer(speaks: Speaks, job: Job) -> Answer:
    """Return the answer to the drive's question, with its weights.

    Raises
    ------
    InvalidError
        If the drive's family has no such question.
    """
    weights = tuple(Weight(outcome, round(share, 9)) for outcome, share in speaks.weights.items())
    outcome = max(speaks.weights, key=lambda o: speaks.weights[o])
    rest = 1.0 - sum(w.share for w in weights if w.outcome != outcome)
    weights = tuple(replace(w, share=rest) if w.outcome == outcome else w for w in weights)
    answer = Answer(speaks.question, outcome, weights=weights)
    check_vocabulary(answer, job)
    is_seen_now = job.model.family_questions[speaks.question].kind is not QuestionKind.INTAKE
    return replace(answer, setting=Setting(fitted=job.on_trial if is_seen_now else ()))


def _fold(job: Job, line: Line) -> Job:
    """Return the job with one finding more: an answer, or words where it speaks to no question."""
    body = line.body
    what = read_what("answer", body["answer"], f"/tape/{line.number}") if "answer" in body else Remark(body["headline"])
    finding = Finding(str(line.number), what, line.number in job.struck)
    holds = job.holds if finding.is_struck else after_measuring(job.holds, body["tool"], body["about"], body["may_power"], line.at)
    return replace(job, findings=(*job.findings, finding), holds=holds)


def _says(body: Mapping[str, Any], _speech: Speech) -> str:
    about = f", {body['about']}" if body.get("about") else ""
    return f"{TOOLS[body['tool']].title}{about}: {body['headline']}"


KIND: Final = LineKind("measured", _says, _fold, (AskKind("measure", Measure, _decide, Needs(OPEN)),), is_finding=True, weighs=True)
