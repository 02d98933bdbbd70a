"""What belongs to the owner, out of its unit and home again: it has a tag, is chased until it is back, and is never stock."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, Final

from spindle.drives.levels import LEVELS
from spindle.errors import InvalidError, NotNowError
from spindle.job.asking import OPEN, AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.barring import check_hands
from spindle.job.effects import OwnBack, OwnLeft, OwnOut
from spindle.job.line import Line
from spindle.job.value import Job
from spindle.words.bounds import Short, Word
from spindle.words.duty import Duty

_SAID: Final = {
    "out": "Owner's {name} out, under tag {tag}: {place}",
    "back": "Owner's {name} {tag} back in its unit",
    "released": "Owner's {name} {tag} left here by {place}",
}


@dataclass(frozen=True, slots=True)
class TakeOutOwn:
    """An owner's part leaves its unit, and lies there."""

    level: Word
    place: Short


@dataclass(frozen=True, slots=True)
class BringOwnBack:
    """An owner's part is back in its unit."""

    part: Short


@dataclass(frozen=True, slots=True)
class ReleaseOwn:
    """The owner leaves a part with the shop, by name: only then is it stock."""

    part: Short
    by_name: Short


def _out(job: Job, ask: TakeOutOwn, world: World) -> Decision:
    check_hands(job, job.depth, world.now)
    if ask.level not in LEVELS:
        raise InvalidError("level", f"There is no level {ask.level!r}; there are {', '.join(LEVELS)}.")
    tag = f"{job.tag}-{_letters(job.own_out)}"
    body = {"event": "out", "tag": tag, "name": LEVELS[ask.level].name, "place": ask.place, "level": ask.level}
    return one("custody", body, OwnOut(tag, ask.level, ask.place))


def _letters(n: int) -> str:
    """Return A, B, … Z, AA, AB, …"""
    return ("" if n < 26 else _letters(n // 26 - 1)) + chr(ord("A") + n % 26)


def _own(job: Job, part: str) -> Line:
    tag = part.strip().upper()
    if tag not in job.away:
        raise NotNowError(f"{tag} is not away from this unit.", reason="custody")
    return job.away[tag]


def _back(job: Job, ask: BringOwnBack, world: World) -> Decision:
    check_hands(job, job.depth, world.now)
    out = _own(job, ask.part).body
    return one("custody", {"event": "back", "tag": out["tag"], "name": out["name"], "place": ""}, OwnBack(out["tag"]))


def _release(job: Job, ask: ReleaseOwn, _world: World) -> Decision:
    name = ask.by_name.strip()
    if not name:
        raise InvalidError("by_name", "Who leaves it here? Write down the name.")
    out = _own(job, ask.part).body
    return one("custody", {"event": "released", "tag": out["tag"], "name": out["name"], "place": name}, OwnLeft(out["tag"], name))


def _fold(job: Job, line: Line) -> Job:
    tag = line.body["tag"]
    if line.body["event"] == "out":
        return replace(job, away={**job.away, tag: line}, own_out=job.own_out + 1)
    return replace(job, away={t: x for t, x in job.away.items() if t != tag})


def _says(body: Mapping[str, Any], _speech: Speech) -> str:
    return _SAID[body["event"]].format(**{**body, "name": body["name"].lower()})


KIND: Final = LineKind(
    "custody",
    _says,
    _fold,
    (
        AskKind("own_out", TakeOutOwn, _out, Needs(OPEN)),
        AskKind("own_back", BringOwnBack, _back, Needs(OPEN), lambda _, ask: {ask.part.strip().upper()}),
        AskKind("own_left", ReleaseOwn, _release, Needs(OPEN, Duty.AGREE), lambda _, ask: {ask.part.strip().upper()}),
    ),
)
