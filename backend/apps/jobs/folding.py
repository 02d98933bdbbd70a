"""What a tape amounts to: read from the database and folded, and kept, so that an answer folds its own lines and not all before them."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from apps.drives.consoles import InUse, in_use
from apps.drives.models import Sheet
from apps.drives.selectors import full_sheet, model_under
from apps.jobs.models import Job, TapeLine
from apps.people.models import names_of, shown_name
from apps.shop.models import Shop
from spindle.job import value
from spindle.job.ledger import fold, grown
from spindle.job.line import Line
from spindle.job.value import Notes, SheetRef, Start

MOST_KEPT = 256
"""Jobs whose folded tape a process keeps: all that are on benches, and some."""
_folded: dict[int, tuple[int, value.Job]] = {}
"""Number of a job -> how often names had changed by then, and what its tape amounted to."""

_used: dict[int, tuple[int, InUse]] = {}
"""Number of a sheet -> the shelf's version by then, and what was newest beside it: one for each version of a sheet."""


def lines_of(row: Job, since: int = 1) -> list[Line]:
    """Return the tape of a job from a number on, oldest first."""
    told = TapeLine.objects.filter(job=row, number__gte=since).order_by("number").values_list("number", "version", "kind", "body", "at", *names_of("by"))
    return [Line(number, version, kind, body, at, shown_name(*names)) for number, version, kind, body, at, *names in told]


def sheet_ref(sheet: Sheet, used: InUse | None = None) -> SheetRef:
    """Return a version of a sheet as the rules of a job know it; ``used`` is what is newest beside it, where that is known."""
    used = in_use(sheet) if used is None else used
    return SheetRef(sheet.pk, sheet.variant, sheet.version, model_under(sheet.pk, used.layer), used.opening(sheet), full_sheet(sheet.pk), used.sheet)


def start_of(row: Job, used: InUse | None = None) -> Start:
    """Return a job as it was before anything happened to it; ``used`` as for :func:`sheet_ref`."""
    counter = Notes(row.owner_name, row.owner_contact, row.complaint, row.supply, row.limit_cents, row.promised_on, row.condition)
    notes = replace(counter, returns=row.returns.tag if row.returns else "", is_covered=row.is_covered)
    return Start(row.tag, sheet_ref(row.sheet, used), notes, frozenset(row.returns.bridged) if row.returns else frozenset())


def value_of(row: Job) -> value.Job:
    """Return what a job's tape amounts to."""
    return fold(start_of(row), lines_of(row))


def kept_value(row: Job, shop: Shop) -> value.Job:
    """Return :func:`value_of` for the price of the lines that are new since this process folded the tape last.

    A tape only grows, so what was folded stands as long as the job begins as it did, nobody's name has changed, and its last line is
    still the database's: whatever else was kept is forgotten.
    """
    names, known = _folded.get(row.pk, (-1, None))
    start = start_of(row, _kept_in_use(row.sheet, shop))
    if known is not None and names == shop.names_version and known.start == start and known.lines:
        read = lines_of(row, known.lines[-1].number)
        if read[:1] == [known.lines[-1]]:
            return keep_folded(row, grown(known, read[1:]) if read[1:] else known, shop)
    return keep_folded(row, fold(start, lines_of(row)), shop)


def _kept_in_use(sheet: Sheet, shop: Shop) -> InUse:
    """Return what is newest beside a sheet: asked again when the database says that sheets, or what was learnt, may have changed."""
    at, used = _used.get(sheet.pk, (-1, None))
    if used is None or at != shop.shelf_version or shop._state.adding:
        used = in_use(sheet)
        _used[sheet.pk] = (shop.shelf_version, used)
    return used


def keep_folded(row: Job, job: value.Job, shop: Shop) -> value.Job:
    """Keep what a tape amounts to for whoever asks next, and return it. Where nobody has set the shop up, nobody counts its names: nothing is kept."""
    if shop._state.adding:
        return job
    _folded.pop(row.pk, None)
    make_room(_folded, MOST_KEPT)
    _folded[row.pk] = (shop.names_version, job)
    return job


def make_room(kept: dict[Any, Any], most: int) -> None:
    """Forget what was kept longest, until one more fits. Other threads may keep and forget meanwhile: what to forget is listed first, in one step."""
    for key in list(kept)[: max(0, len(kept) - most + 1)]:
        kept.pop(key, None)


def forget_folded() -> None:
    """Forget every tape and what was newest beside a sheet: for a database whose numbers begin anew."""
    _folded.clear()
    _used.clear()
