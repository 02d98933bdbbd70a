"""Something would be installed or copied on the owner's account: the owner is asked first, and what was said stays on the tape and on the report."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Annotated, Any, Final

from spindle.job.asking import OPEN, AskKind, LineKind, Needs, Speech, one
from spindle.job.line import Line
from spindle.job.value import Job
from spindle.words.bounds import TextBound


@dataclass(frozen=True, slots=True)
class AskAccount:
    """What the console wants, who of the owner's side was asked, and whether they agreed. Without a yes it is not done."""

    what: Annotated[str, TextBound(120, least=1, is_stripped=True)]
    by_name: Annotated[str, TextBound(120, least=1, is_stripped=True)]
    is_agreed: bool


def _says(body: Mapping[str, Any], _speech: Speech) -> str:
    word = f"agreed by {body['by_name']}" if body["is_agreed"] else f"not agreed by {body['by_name']}, not done"
    return f"On the owner's account: {body['what']}; {word}"


def _fold(job: Job, line: Line) -> Job:
    return replace(job, account=(*job.account, line))


KIND: Final = LineKind(
    "account",
    _says,
    _fold,
    (
        AskKind(
            "ask_account",
            AskAccount,
            lambda _job, ask, _world: one("account", {"what": ask.what, "by_name": ask.by_name, "is_agreed": ask.is_agreed}),
            Needs(OPEN),
        ),
    ),
)
