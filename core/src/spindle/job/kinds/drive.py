"""Which drive is really in the unit: what the eye saw, and another sheet, or a newer version of this one, if it says so."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Any, Final

from spindle.drives.key import check_answers
from spindle.errors import CaseError, InvalidError, NotNowError
from spindle.job.asking import NOTHING_CHANGES, OPEN, AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.effects import UseSheet
from spindle.job.line import Line
from spindle.job.value import Job, SheetRef
from spindle.words.bounds import Number, Word


@dataclass(frozen=True, slots=True)
class Identify:
    """What the eye saw of the drive, and which sheet is taken then; None keeps the one that it has."""

    looks: Mapping[Word, Word] = field(default_factory=dict)
    sheet_id: Number | None = None


def _decide(job: Job, ask: Identify, world: World) -> Decision:
    try:
        check_answers(ask.looks)
    except CaseError as error:
        raise InvalidError(error.place, error.message) from error
    old = job.start.sheet
    new = old if ask.sheet_id is None else world.sheet(ask.sheet_id)
    if not ask.looks and new.number == old.number:
        raise InvalidError("looks", "Nothing was seen and nothing changed.")
    if new.number == old.number and all(job.looks.get(k) == v for k, v in ask.looks.items()):
        return NOTHING_CHANGES
    _check_sheet(job, new)
    body = {"looks": dict(ask.looks), "from": old.name, "to": new.name, "sheet": new.number}
    return one("drive", body, *(() if new.number == old.number else (UseSheet(new),)))


def _check_sheet(job: Job, new: SheetRef) -> None:
    """Refuse a sheet by which the tape could not be read any more: of another family, or without a repair that it speaks of.

    Raises
    ------
    NotNowError
    """
    if new.model.sheet.family != job.model.sheet.family and job.findings:
        old = job.start.sheet.variant
        raise NotNowError(f"{new.variant} loads another way than {old}: the answers on the tape do not fit it. Take the unit in anew.", reason="family")
    spoken = {c["repair"] for line in job.lines for c in line.body.get("changes", [line.body]) if isinstance(c, Mapping) and c.get("repair")}
    missing = sorted(spoken - set(new.model.repair_index))
    if missing:
        names = [job.model.repairs[job.model.repair_index[r]].name.lower() if r in job.model.repair_index else r for r in missing]
        what = ", ".join(names)
        raise NotNowError(f"By its sheet {new.variant} does not allow what the tape speaks of: {what}. Take the unit in anew.", reason="repair")


def _fold(job: Job, line: Line) -> Job:
    return replace(job, looks={**job.looks, **line.body["looks"]})


def _says(body: Mapping[str, Any], _speech: Speech) -> str:
    seen = f"Looked at the drive: {len(body['looks'])} features" if body["looks"] else "Drive sheet"
    return seen + (f"; {body['from']} → {body['to']}" if body["from"] != body["to"] else f"; it stays {body['to']}")


KIND: Final = LineKind("drive", _says, _fold, (AskKind("identify", Identify, _decide, Needs(OPEN)),))
