"""What the owner wrote besides yes and no: a question, or that another offer is wanted. Somebody of the shop answers it, by a proposal or by telling."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Any, Final

from spindle.errors import InvalidError
from spindle.job.asking import OPEN, AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.line import Line
from spindle.job.value import Job
from spindle.words.bounds import LongText, Short, WordOrNone
from spindle.words.duty import Duty


class OwnerWant(StrEnum):
    """What the owner wants."""

    QUESTION = "question"
    ANOTHER = "another"


@dataclass(frozen=True, slots=True)
class OwnerSays:
    """A question in the owner's words, or a repair that is wanted instead of the one that was proposed."""

    want: OwnerWant
    by_name: Short
    how: Short
    text: LongText = ""
    repair: WordOrNone = ""


def _decide(job: Job, ask: OwnerSays, _world: World) -> Decision:
    if not ask.by_name.strip():
        raise InvalidError("by_name", "Who says so? Write the name.")
    if ask.want is OwnerWant.QUESTION and not ask.text.strip():
        raise InvalidError("text", "What is the question?")
    if ask.want is OwnerWant.ANOTHER and ask.repair not in job.model.repair_index:
        raise InvalidError("repair", "Which one instead?")
    name = job.model.repairs[job.model.repair_index[ask.repair]].name if ask.want is OwnerWant.ANOTHER else ""
    body = {"want": ask.want.value, "by_name": ask.by_name.strip(), "how": ask.how.strip(), "text": ask.text.strip()}
    return one("owner_says", {**body, "repair": ask.repair if name else "", "name": name})


def _fold(job: Job, line: Line) -> Job:
    return replace(job, owner_wants=line)


def _says(body: Mapping[str, Any], _speech: Speech) -> str:
    text = f" “{body['text']}”" if body["text"] else ""
    wants = f"would rather have: {body['name']}." if body["want"] == "another" else "asks:"
    return f"{body['by_name']} {wants}{text} ({body['how']})"


KIND: Final = LineKind("owner_says", _says, _fold, (AskKind("owner_says", OwnerSays, _decide, Needs(OPEN, Duty.AGREE)),))
