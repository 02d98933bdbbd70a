"""One screw's place is not simply as it was: its screw was missing, another is in it, or it stays empty and somebody says why."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Annotated, Any, Final

from spindle.bench.opening.mat import Odd, PlaceState
from spindle.bench.screws import Screw, may_go_in
from spindle.bench.verdict import Verdict
from spindle.errors import InvalidError, NotFoundError, RefusedError
from spindle.job.asking import NOTHING_CHANGES, OPEN, AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.line import Line
from spindle.job.value import Job
from spindle.words.bounds import NumberBound, Short


@dataclass(frozen=True, slots=True)
class MarkPlace:
    """Say what is true of one place: "in" is its own screw again. Of another screw its length and thread are said, in mm."""

    place: Short
    state: PlaceState
    why: Short = ""
    length_mm: Annotated[float, NumberBound(0, 60)] = 0.0
    thread_mm: Annotated[float, NumberBound(0, 8)] = 0.0
    head: Short = ""


def _decide(job: Job, ask: MarkPlace, _world: World) -> Decision:
    """A screw that would reach, strip or split something goes in nowhere."""
    opening = job.opening
    if ask.place not in opening.step_of:
        raise NotFoundError(f"The sheets of this unit have no place {ask.place!r}.")
    if ask.state is PlaceState.OUT:
        raise InvalidError("state", "Screws come out by the step that takes them out.")
    if ask.state is PlaceState.EXPLAINED and not ask.why.strip():
        raise InvalidError("why", "Why does it stay empty? The next one who opens it will want to know.")
    group = next(g for g in opening.groups.values() if ask.place in g.places)
    body: dict[str, Any] = {"place": ask.place, "name": _name(group.name, ask.place), "state": ask.state.value, "why": ask.why.strip()}
    if ask.state is PlaceState.REPLACED:
        screw = Screw(ask.length_mm, ask.thread_mm, ask.head.strip())
        verdict, reasons = may_go_in(screw, group.screw, group.reaches)
        if verdict is Verdict.REFUSED:
            raise RefusedError(" ".join(r.text for r in reasons if r.verdict is Verdict.REFUSED), place=ask.place)
        body |= {"screw": screw.text, "says": [r.text for r in reasons]}
    was = job.mat.odd.get(ask.place)
    if was == _odd(body):
        return NOTHING_CHANGES
    return one("place", body)


def _name(group: str, place: str) -> str:
    return f"{group}, {place.rpartition('#')[2]}"


def _odd(body: Mapping[str, Any]) -> Odd | None:
    state = PlaceState(body["state"])
    return None if state is PlaceState.IN else Odd(state, body["why"], body.get("screw", ""))


def _fold(job: Job, line: Line) -> Job:
    return replace(job, mat=job.mat.with_odd(line.body["place"], _odd(line.body)))


_WORDS: Final = {
    PlaceState.IN: "its own screw",
    PlaceState.MISSING: "no screw was there",
    PlaceState.EXPLAINED: "stays empty",
    PlaceState.REPLACED: "another screw",
}


def _says(body: Mapping[str, Any], _speech: Speech) -> str:
    more = [x for x in (body.get("screw"), *body.get("says", ()), body["why"]) if x]
    return f"{body['name']}: {_WORDS[PlaceState(body['state'])]}{': ' if more else ''}{'; '.join(more)}"


KIND: Final = LineKind("place", _says, _fold, (AskKind("mark_place", MarkPlace, _decide, Needs(OPEN)),))
