"""A step of opening that no sheet knows is written down as it is done. It counts as open from then on, and becomes a row of the sheet's draft."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Annotated, Any, Final

from spindle.bench.opening.recording import draft_tables, minutes_since, recorded_opening
from spindle.bench.opening.steps import DEPTHS, INSIDE, OUTSIDE, Kind
from spindle.drives.tables import CONSOLE_TABLES, TABLES
from spindle.errors import CaseError, InvalidError, NotNowError, SheetError
from spindle.formats.table_rows import read_tables
from spindle.job.asking import OPEN, AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.barring import check_wait
from spindle.job.hazards import Bars
from spindle.job.line import Line
from spindle.job.opening import at_depth
from spindle.job.value import Job
from spindle.words.bench import Depth, Mains
from spindle.words.bounds import NumberBound, Short, WordOrNone


class Whose(StrEnum):
    """Whose sheet a step belongs to."""

    CONSOLE = OUTSIDE
    DRIVE = INSIDE


@dataclass(frozen=True, slots=True)
class RecordStep:
    """What was just done. Of screws how many, and their size in mm; of a plug how it is held. Empty is what nobody noted."""

    whose: Whose
    step: Short
    kind: Kind
    how: Short = ""
    side: Short = ""
    tool: Short = ""
    opens_to: Short = ""
    frees: WordOrNone = ""
    way_round: Short = ""
    tether: Short = ""
    falls: Short = ""
    route: Short = ""
    fragile: bool = False
    count: Annotated[int, NumberBound(0, 40)] = 0
    length_mm: Annotated[float, NumberBound(0, 60)] = 0.0
    thread_mm: Annotated[float, NumberBound(0, 8)] = 0.0
    head: Short = ""
    latch: Short = ""


_CELLS: Final = ("how", "side", "tool", "opens_to", "frees", "way_round", "tether", "falls", "route", "fragile")


def _decide(job: Job, ask: RecordStep, world: World) -> Decision:
    """Only where the sheets say nothing: what they say is followed, and put right in them."""
    if job.start.sheet.opening.says_of(ask.whose):
        raise NotNowError(f"The sheet of this {ask.whose.value} says how it is opened: follow it, or put it right.", reason="has_order")
    check_wait(job, Bars.OPENING, world.now)
    cells = {name: value.strip() if isinstance(value := getattr(ask, name), str) else value for name in _CELLS}
    size = {"count": ask.count, "length_mm": ask.length_mm, "thread_mm": ask.thread_mm, "head": ask.head.strip(), "latch": ask.latch.strip()}
    before = next((x.at for x in reversed(job.lines) if x.kind in ("recorded", "opened", "mains")), world.now)
    minutes = minutes_since((world.now - before).total_seconds())
    body = {"whose": ask.whose.value, "step": ask.step.strip(), "kind": ask.kind.value, "cells": cells, **size, "minutes": minutes}
    _check(job, body)
    return one("recorded", body)


def _check(job: Job, body: Mapping[str, Any]) -> None:
    """Refuse what could be no row of a sheet: an empty name, one that is there, a size that is none, a word that the sheet does not have."""
    known = TABLES if body["whose"] == INSIDE else CONSOLE_TABLES
    try:
        read_tables(draft_tables((*job.recorded, body), body["whose"], "recorded"), "", known)
        recorded_opening((*job.recorded, body))
    except (CaseError, SheetError) as error:
        cell = error.place.rpartition("/")[2]
        raise InvalidError("step" if cell.isdigit() else cell, error.message.removeprefix(f"{error.place}: ")) from error


def _fold(job: Job, line: Line) -> Job:
    if line.number in job.struck:
        return job
    body = line.body
    job = replace(job, recorded=(*job.recorded, body), records=job.records | {line.number})
    mat = job.mat.with_open((f"{body['whose']}:{body['step']}",), body["cells"]["side"])
    return at_depth(replace(job, mat=mat), max(job.depth, DEPTHS.get(body["cells"]["opens_to"], Depth.CLOSED)))


def _says(body: Mapping[str, Any], _speech: Speech) -> str:
    screws = f", {body['count']} screws {body['thread_mm']:g} × {body['length_mm']:g} mm" if body["count"] else ""
    latch = f", {body['latch']}" if body["latch"] else ""
    return f"Recorded while opening: {body['step']}{screws}{latch}"


KIND: Final = LineKind("recorded", _says, _fold, (AskKind("record_step", RecordStep, _decide, Needs(OPEN, mains=Mains.OUT)),))
