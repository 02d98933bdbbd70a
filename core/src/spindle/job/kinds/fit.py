"""What sits in the unit for trying, instead of its own parts: whatever is seen until it is out again is about this configuration (C64)."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Annotated, Any, Final

from spindle.diagnosis.given.case import Change
from spindle.drives.levels import LEVEL_OF_REPAIR, LEVELS
from spindle.formats.case_file import read_changes, write_stock
from spindle.job.asking import NOTHING_CHANGES, AskKind, Decision, LineKind, Needs, Speech, World
from spindle.job.barring import check_hands
from spindle.job.findings import check_fitting
from spindle.job.line import Draft, Line
from spindle.job.opening import opened_to
from spindle.job.stages import Stage
from spindle.job.takings import with_pieces
from spindle.job.value import Job
from spindle.words.bench import Mains
from spindle.words.bounds import LengthBound

_WHEN: Final = frozenset({Stage.FAULT_SEEN, Stage.ISOLATE})


@dataclass(frozen=True, slots=True)
class Fit:
    """These sit in it from now on, each named by the repair that fits it; none: its own parts are back."""

    changes: Annotated[tuple[Change, ...], LengthBound(4)] = ()


def _touches(job: Job, ask: Fit) -> set[str]:
    mine = {line.body["item"] for line in job.takings.values()}
    return {c.item.strip().upper() for c in ask.changes if c.item.strip()} - mine


def _decide(job: Job, ask: Fit, world: World) -> Decision:
    check_fitting(ask.changes, job)
    depths = [job.model.repairs[job.model.repair_index[c.repair]].depth for c in ask.changes]
    check_hands(job, max(depths, default=job.depth), world.now)
    drafts = list(opened_to(job, max(depths, default=job.depth), world.now))
    changes, more, effects = with_pieces(job, ask.changes, world, line=job.next_number + len(drafts))
    if changes == job.on_trial:
        return NOTHING_CHANGES
    body = {"changes": [write_stock(c) for c in changes]}
    return Decision((*drafts, *more, Draft("fit", body)), effects)


def _says(body: Mapping[str, Any], _: Speech) -> str:
    names = [f"{c['item']} ({LEVELS[LEVEL_OF_REPAIR[c['repair']]].name.lower()})" for c in body["changes"]]
    return f"In it for trying: {', '.join(names)}" if names else "Its own parts are back in"


def _fold(job: Job, line: Line) -> Job:
    return replace(job, on_trial=read_changes(line.body["changes"], f"/tape/{line.number}"))


KIND: Final = LineKind("fit", _says, _fold, (AskKind("fit", Fit, _decide, Needs(_WHEN, mains=Mains.OUT), _touches),))
