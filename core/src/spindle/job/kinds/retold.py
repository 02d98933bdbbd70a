"""What was heard in a recording, put right by somebody who listened: another kind, another end, dropped."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Annotated, Any, Final

from spindle.errors import InvalidError, NotFoundError
from spindle.job.asking import NOTHING_CHANGES, OPEN, AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.line import Line
from spindle.job.recordings import Sound
from spindle.job.sounds import in_words, read_event, written
from spindle.job.value import Job
from spindle.sound.kinds import Event, Kind
from spindle.words.bounds import LengthBound, Number, NumberBound

MOST_EVENTS: Final = 200
SAME_S: Final = 0.02
"""Ends that are nearer than that are one: a frame of the picture."""
Seconds = Annotated[float, NumberBound(0.0, 120.0)]


@dataclass(frozen=True, slots=True)
class ToldEvent:
    """One sound as somebody heard it."""

    kind: Kind
    start_s: Seconds
    end_s: Seconds


@dataclass(frozen=True, slots=True)
class Retell:
    """All that is in a recording, anew."""

    sound: Number
    events: Annotated[tuple[ToldEvent, ...], LengthBound(MOST_EVENTS)] = ()


def _decide(job: Job, ask: Retell, _world: World) -> Decision:
    was = job.sounds.get(ask.sound)
    if was is None:
        raise NotFoundError(f"Line {ask.sound} is no recording, or is struck.")
    for n, told in enumerate(ask.events):
        if not told.start_s < told.end_s <= was.length_s + 0.5:
            raise InvalidError(
                f"events/{n}", f"It ends at {told.end_s:g} s: after its start at {told.start_s:g} s, and before the recording does at {was.length_s:g} s."
            )
    events = sorted((_put_right(was, told) for told in ask.events), key=lambda e: e.start_s)
    if tuple(events) == was.events:
        return NOTHING_CHANGES
    return one("retold", {"sound": ask.sound, "events": [written(e) for e in events]})


def _put_right(was: Sound, told: ToldEvent) -> Event:
    """Return the event as it was if nobody changed it, else as somebody heard it, who is sure; of a moved end nothing is measured."""
    there = [e for e in was.events if abs(e.start_s - told.start_s) < SAME_S and abs(e.end_s - told.end_s) < SAME_S]
    if (same := next((e for e in there if e.kind is told.kind), None)) is not None:
        return same
    return Event(told.kind, told.start_s, told.end_s)


def _fold(job: Job, line: Line) -> Job:
    was = job.sounds.get(line.body["sound"])
    if was is None or line.number in job.struck:
        return job
    events = tuple(read_event(e) for e in line.body["events"])
    return replace(job, sounds={**job.sounds, was.line: replace(was, events=events, retold=line.number)})


def _says(body: Mapping[str, Any], _speech: Speech) -> str:
    return f"Recording of line {body['sound']}, put right by ear: {in_words(tuple(read_event(e) for e in body['events']))}"


KIND: Final = LineKind("retold", _says, _fold, (AskKind("retell", Retell, _decide, Needs(OPEN)),))
