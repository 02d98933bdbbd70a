"""What the owner has paid in all. Said anew, it replaces what was said: a slip of the keys is put right by saying it again."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Any, Final

from spindle.job.asking import ALWAYS, NOTHING_CHANGES, AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.line import Line
from spindle.job.value import Job
from spindle.words.bounds import Cents
from spindle.words.duty import Duty
from spindle.words.money import money


class Tender(StrEnum):
    """How it was paid."""

    CASH = "cash"
    CARD = "card"
    TRANSFER = "transfer"


@dataclass(frozen=True, slots=True)
class TakePayment:
    """So much is paid in all."""

    cents: Cents
    how: Tender


def _decide(job: Job, ask: TakePayment, _world: World) -> Decision:
    said = {"cents": ask.cents, "how": ask.how.value}
    return NOTHING_CHANGES if job.paid is not None and job.paid.body == said else one("paid", said)


def _says(body: Mapping[str, Any], speech: Speech) -> str:
    return f"Paid in all: {money(body['cents'], speech.sign)}, by {body['how']}"


def _fold(job: Job, line: Line) -> Job:
    return replace(job, paid=line)


KIND: Final = LineKind("paid", _says, _fold, (AskKind("take_payment", TakePayment, _decide, Needs(ALWAYS, Duty.HAND_BACK)),))
