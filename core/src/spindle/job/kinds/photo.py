"""A photo: of a step before it is done or after it is back, or of anything. The picture is kept elsewhere, under the hash of its content."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Annotated, Any, Final

from spindle.errors import NotFoundError
from spindle.job.asking import NOTHING_CHANGES, OPEN, AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.line import Line
from spindle.job.recordings import Photo
from spindle.job.value import Job
from spindle.words.bounds import CONTENT_HASH, Short, TextBound
from spindle.words.duty import Duty


class Moment(StrEnum):
    """When it was taken, as the step sees it."""

    BEFORE = "before"
    NOW = "now"
    FREE = "free"


@dataclass(frozen=True, slots=True)
class Photograph:
    """A picture that was sent before is kept with this job. ``of`` is a step of the opening order, "" for anything."""

    hash: Annotated[str, TextBound(64, CONTENT_HASH)]
    of: Short = ""
    moment: Moment = Moment.FREE
    says: Short = ""
    for_owner: bool = False
    """The owner may have it: it stands on the report."""


def _decide(job: Job, ask: Photograph, world: World) -> Decision:
    if not world.has_photo(ask.hash):
        raise NotFoundError("This picture has not arrived: send it again.")
    if any((p.hash, p.of, p.moment) == (ask.hash, ask.of, ask.moment.value) for p in job.photos.values()):
        return NOTHING_CHANGES  # sent again by a browser that did not hear that it had arrived
    step = job.opening.steps.get(ask.of)
    if ask.of and step is None and ask.of not in job.mat.open:
        raise NotFoundError(f"The sheets of this unit have no step {ask.of!r}.")
    body = {"hash": ask.hash, "of": ask.of, "name": step.name if step else "", "moment": ask.moment.value, "says": ask.says.strip()}
    return one("photo", {**body, "for_owner": ask.for_owner})


def _fold(job: Job, line: Line) -> Job:
    if line.number in job.struck:
        return job
    b = line.body
    taken = Photo(line.number, b["hash"], b["of"], b["moment"], _about(b), b["for_owner"], line.at, line.by)
    return replace(job, photos={**job.photos, line.number: taken})


def _about(body: Mapping[str, Any]) -> str:
    return ": ".join(x for x in (body["name"], body["says"]) if x)


def _says(body: Mapping[str, Any], _speech: Speech) -> str:
    when = {"before": ", before", "now": ", as it is now", "free": ""}[body["moment"]]
    return f"Photo{when}" + (f" of {_about(body)}" if _about(body) else "") + (", for the owner" if body["for_owner"] else "")


KIND: Final = LineKind("photo", _says, _fold, (AskKind("photograph", Photograph, _decide, Needs(OPEN, Duty.NOTE)),))
