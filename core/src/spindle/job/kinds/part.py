"""Parts for a job: noted (here, a donor's, on its way), taken from the shelf or out of a donor, put back."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Annotated, Any, Final

from spindle.diagnosis.given.case import Stock
from spindle.drives.levels import LEVEL_OF_REPAIR
from spindle.errors import CaseError, InvalidError, NotFoundError
from spindle.formats.case_file import read_stock, write_stock
from spindle.job.asking import OPEN, AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.line import Line
from spindle.job.takings import check_repair, given_back, taken_piece
from spindle.job.value import Job
from spindle.words.bounds import Cents, LengthBound, Number, NumberBound, Short, Word
from spindle.words.health import FUNCTIONS, HEALTH_NAMES, Health


@dataclass(frozen=True, slots=True)
class NotePart:
    """A part for this job: the advice reckons with it until the line is struck."""

    repair: Word
    item: Short = ""
    health: Health = Health.NEW
    works: Annotated[frozenset[Word], LengthBound(6)] = frozenset()
    fails: Annotated[frozenset[Word], LengthBound(6)] = frozenset()
    price_cents: Cents = 0
    wait_days: Annotated[float, NumberBound(0, 365)] = 0.0
    is_donor: bool = False


@dataclass(frozen=True, slots=True)
class TakePart:
    """One piece, from the shelf or out of a donor, for a repair of this job."""

    part: Short
    repair: Word


@dataclass(frozen=True, slots=True)
class PutBack:
    """A piece that was taken goes back, with what it was seen to do here."""

    line: Number
    seen: Mapping[Word, bool] = field(default_factory=dict)


def _note(job: Job, ask: NotePart, _world: World) -> Decision:
    check_repair(job, ask.repair)
    body = write_stock(Stock(ask.repair, ask.item.strip(), ask.health, ask.works, ask.fails, ask.price_cents / 100, ask.wait_days, ask.is_donor))
    try:
        read_stock(body, "", job.model.sheet)
    except CaseError as error:
        raise InvalidError(error.place, error.message) from error
    return one("part", body)


def _take(job: Job, ask: TakePart, world: World) -> Decision:
    check_repair(job, ask.repair)
    piece = world.piece(ask.part.strip().upper(), LEVEL_OF_REPAIR.get(ask.repair, ""))
    if piece is None:
        raise NotFoundError(f"There is no part {ask.part}.")
    draft, effects = taken_piece(job, piece, ask.repair, world, line=job.next_number)
    return Decision((draft,), effects)


def _put_back(job: Job, ask: PutBack, _world: World) -> Decision:
    taken = job.takings.get(ask.line)
    if taken is None:
        raise NotFoundError(f"Line {ask.line} took nothing from the shelf, or it is back already.")
    unknown = sorted(set(ask.seen) - set(FUNCTIONS))
    if unknown:
        raise InvalidError(f"seen.{unknown[0]}", f"There is no function {unknown[0]!r}; there are {', '.join(FUNCTIONS)}.")
    body = {"line": ask.line, "why": "back on the shelf"}
    return one("strike", body, *given_back(job, taken, seen=ask.seen))


def _fold(job: Job, line: Line) -> Job:
    return job if line.number in job.struck else replace(job, parts={**job.parts, line.number: line})


def _says(body: Mapping[str, Any], speech: Speech) -> str:
    repair = speech.job.model.repairs[speech.job.model.repair_index[body["repair"]]]
    health = HEALTH_NAMES[Health(body["health"])]
    if body.get("taking"):
        return f"Taken from the shelf: {body['item']} for “{repair.name.lower()}”, {health}"
    where = "at a donor" if body["is_donor"] else f"in {body['wait_days']:g} days" if body["wait_days"] else "here"
    known = "".join(f", {word} {', '.join(body[key])}" for key, word in (("works", "works:"), ("fails", "fails:")) if body.get(key))
    return f"Part {body['item'] or 'without a tag'} for “{repair.name.lower()}”: {where}, {health}{known}"


def _taken_tag(job: Job, ask: PutBack) -> set[str]:
    return {job.takings[ask.line].body["item"]} if ask.line in job.takings else set()


KIND: Final = LineKind(
    "part",
    _says,
    _fold,
    (
        AskKind("note_part", NotePart, _note, Needs(OPEN)),
        AskKind("take_part", TakePart, _take, Needs(OPEN), lambda _, ask: {ask.part.strip().upper()}),
        AskKind("put_back", PutBack, _put_back, Needs(OPEN), _taken_tag),
    ),
)
