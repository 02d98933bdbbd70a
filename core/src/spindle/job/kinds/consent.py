"""The owner's word on a proposal: yes or no, to what amount, by whom and how. The last word counts."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, Final

from spindle.errors import InvalidError, NotNowError
from spindle.job.asking import OPEN, AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.line import Line
from spindle.job.value import Job
from spindle.words.bounds import Cents, Short
from spindle.words.duty import Duty
from spindle.words.money import money


@dataclass(frozen=True, slots=True)
class Consent:
    """What the owner said, who said it and how."""

    is_agreed: bool
    amount_cents: Cents
    by_name: Short
    how: Short


def _decide(job: Job, ask: Consent, _world: World) -> Decision:
    if not ask.by_name.strip():
        raise InvalidError("by_name", "Who agreed? Write down the name.")
    if job.proposal is None:
        raise NotNowError("Nothing has been proposed yet.", reason="no_proposal")
    body = {"is_agreed": ask.is_agreed, "amount_cents": ask.amount_cents, "by_name": ask.by_name.strip(), "how": ask.how.strip()}
    return one("consent", body)


def _fold(job: Job, line: Line) -> Job:
    return replace(job, consents=(*job.consents, line), owner_wants=None)


def _says(body: Mapping[str, Any], speech: Speech) -> str:
    said = f"agreed to {money(body['amount_cents'], speech.sign)}" if body["is_agreed"] else "did not agree"
    return f"{body['by_name']} {said}, {body['how']}"


KIND: Final = LineKind("consent", _says, _fold, (AskKind("consent", Consent, _decide, Needs(OPEN, Duty.AGREE)),))
