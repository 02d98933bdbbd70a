"""Numbered dots on a photo, so that a step or a remark can speak of one."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Annotated, Any, Final

from spindle.errors import NotFoundError
from spindle.job.asking import NOTHING_CHANGES, OPEN, AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.line import Line
from spindle.job.recordings import Dot
from spindle.job.value import Job
from spindle.words.bounds import LengthBound, Number
from spindle.words.duty import Duty

MOST_DOTS: Final = 12
"""More cannot be told apart on a picture a hand wide."""


@dataclass(frozen=True, slots=True)
class MarkPhoto:
    """The dots of a photo, all of them anew, and whether the owner may have it."""

    line: Number
    dots: Annotated[tuple[Dot, ...], LengthBound(MOST_DOTS)] = ()
    for_owner: bool = False


def _decide(job: Job, ask: MarkPhoto, _world: World) -> Decision:
    was = job.photos.get(ask.line)
    if was is None:
        raise NotFoundError(f"Line {ask.line} is no photo, or is struck.")
    if (was.dots, was.for_owner) == (ask.dots, ask.for_owner):
        return NOTHING_CHANGES
    dots = [{"x": d.x, "y": d.y, "says": d.says.strip()} for d in ask.dots]
    return one("dots", {"photo": ask.line, "about": was.about, "dots": dots, "for_owner": ask.for_owner})


def _fold(job: Job, line: Line) -> Job:
    was = job.photos.get(line.body["photo"])
    if was is None:
        return job
    dots = tuple(Dot(d["x"], d["y"], d["says"]) for d in line.body["dots"])
    return replace(job, photos={**job.photos, was.line: replace(was, dots=dots, for_owner=line.body["for_owner"])})


def _says(body: Mapping[str, Any], _speech: Speech) -> str:
    named = "; ".join(f"{n} {d['says']}" for n, d in enumerate(body["dots"], start=1) if d["says"])
    owner = ", the owner may have it" if body["for_owner"] else ""
    return f"Photo {body['about'] or body['photo']}: {len(body['dots'])} dots{owner}" + (f" ({named})" if named else "")


KIND: Final = LineKind("dots", _says, _fold, (AskKind("mark_photo", MarkPhoto, _decide, Needs(OPEN, Duty.NOTE)),))
