"""A hold is cleared by its own test, or lifted by hand: with a name and a reason, both on the tape."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, Final

from spindle.errors import InvalidError, NotNowError
from spindle.job.asking import OPEN, AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.hazards import HAZARDS, Hazard, cleared
from spindle.job.line import Line
from spindle.job.value import Job
from spindle.words.bounds import Short, Word


@dataclass(frozen=True, slots=True)
class ClearHold:
    """The test that clears a hold was done, and found it well."""

    code: Word


@dataclass(frozen=True, slots=True)
class LiftHold:
    """Somebody lifts a hold by hand, by name and with a reason."""

    code: Word
    by_name: Short
    why: Short


def _open_one(job: Job, code: str, world: World) -> Hazard:
    found = next((h for h in job.hazards(world.now, None) if h.code == code), None)
    if found is None:
        raise NotNowError("Nothing of that kind holds anything back.", reason="no_hold")
    return found


def _clear(job: Job, ask: ClearHold, world: World) -> Decision:
    hazard = _open_one(job, ask.code, world)
    if not hazard.clears:
        raise NotNowError(hazard.text, reason="not_by_test")
    return one("hold", {"event": "cleared", "code": ask.code, "says": hazard.clears})


def _lift(job: Job, ask: LiftHold, world: World) -> Decision:
    name, why = ask.by_name.strip(), ask.why.strip()
    if not name or not why:
        raise InvalidError("why" if name else "by_name", "Who lifts it, and why? Both stay on the tape.")
    hazard = _open_one(job, ask.code, world)
    return one("hold", {"event": "lifted", "code": hazard.code, "by_name": name, "why": why})


def _fold(job: Job, line: Line) -> Job:
    return replace(job, holds=cleared(job.holds, (line.body["code"],), "hand"))


def _says(body: Mapping[str, Any], _speech: Speech) -> str:
    if body["event"] == "cleared":
        return str(body["says"])
    return f"Hold lifted by {body['by_name']}, {HAZARDS[body['code']].name}: {body['why']}"


KIND: Final = LineKind("hold", _says, _fold, (AskKind("clear_hold", ClearHold, _clear, Needs(OPEN)), AskKind("lift_hold", LiftHold, _lift, Needs(OPEN))))
