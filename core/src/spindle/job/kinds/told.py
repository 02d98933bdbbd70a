"""Who told the owner what, and how. Also what was tried in vain: an owner who was called three times was called."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from enum import StrEnum
from types import MappingProxyType
from typing import Annotated, Any, Final

from spindle.job.asking import ALWAYS, AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.line import Line
from spindle.job.value import Job
from spindle.words.bounds import TextBound
from spindle.words.duty import Duty


class Means(StrEnum):
    """How an owner was told."""

    PHONE = "phone"
    MESSAGE = "message"
    PERSON = "person"
    IN_VAIN = "in_vain"


_SAYS: Final = MappingProxyType(
    {Means.PHONE: "Told by phone", Means.MESSAGE: "Told by message", Means.PERSON: "Told at the counter", Means.IN_VAIN: "Tried to reach the owner in vain"}
)


@dataclass(frozen=True, slots=True)
class TellOwner:
    """The owner was told something, or could not be reached."""

    means: Means
    what: Annotated[str, TextBound(400, is_stripped=True)] = ""


def _decide(_job: Job, ask: TellOwner, _world: World) -> Decision:
    return one("told", {"means": ask.means.value, "what": ask.what})


def _says(body: Mapping[str, Any], _speech: Speech) -> str:
    return _SAYS[Means(body["means"])] + (f": {body['what']}" if body["what"] else "")


def _fold(job: Job, line: Line) -> Job:
    return replace(job, told=(*job.told, line), owner_wants=None)


KIND: Final = LineKind("told", _says, _fold, (AskKind("tell_owner", TellOwner, _decide, Needs(ALWAYS, Duty.NOTE)),))
