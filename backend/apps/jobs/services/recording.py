"""What was recorded while a unit was opened becomes the draft in its sheets: for the next one of its kind."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from apps.drives.consoles import console_sheet, current_console
from apps.drives.models import Sheet
from apps.drives.selectors import full_sheet, sheet_of
from apps.drives.services import save_console, save_sheet
from apps.jobs.folding import value_of
from apps.jobs.selectors import job_row
from apps.people.permissions import require
from apps.writing.once import Command
from django.db import transaction
from spindle.bench.opening.recording import draft_tables, with_draft
from spindle.bench.opening.steps import INSIDE, OUTSIDE
from spindle.drives.console_sheet import ConsoleSheet
from spindle.drives.tables import CONSOLE_TABLES, TABLES
from spindle.errors import NotNowError
from spindle.formats.console_file import read_console, write_console
from spindle.formats.sheet_file import read_sheet, write_sheet
from spindle.formats.table_rows import read_tables
from spindle.job.opening import pictured
from spindle.words.duty import Duty

Draft = Mapping[str, list[dict[str, Any]]]


def draft_sheets(command: Command, tag: str) -> list[str]:
    """Write what was recorded on a job into the sheets of its console and drive, as their next versions: both or neither. Return what was written.

    Raises
    ------
    NotAllowedError, NotFoundError
    NotNowError
        If nothing was recorded, or a sheet has an opening order by now.
    SheetError
        If a recorded name is one that the sheet has for something else.
    """
    require(command.user, Duty.SHEETS)
    row = job_row(tag)
    job = value_of(row)
    recorded, pictures = job.recorded, pictured(job)
    if not recorded:
        raise NotNowError("Nothing was recorded on this job.", reason="nothing_recorded")
    source = f"recorded on {row.tag}"
    outside, inside = (draft_tables(recorded, whose, source, pictures) for whose in (OUTSIDE, INSIDE))
    with transaction.atomic():
        return [*(_outside(command, row.sheet, outside, source) if outside else ()), *(_inside(command, row.sheet, inside, source) if inside else ())]


def _outside(command: Command, sheet: Sheet, draft: Draft, source: str) -> list[str]:
    named = (sheet.maker, sheet.console, sheet.revision)
    now = current_console(named)
    tables = with_draft(console_sheet(now.pk).tables if now else {}, read_tables(draft, "/tables", CONSOLE_TABLES), source)
    checked = read_console(write_console(ConsoleSheet(*named, tables)))
    saved = save_console(Command(command.user, f"{command.key}-c"[-64:]), checked, based_on=None, why=f"Opening order {source}")
    return [f"{saved.console}, revision {saved.revision}: version {saved.version}"]


def _inside(command: Command, sheet: Sheet, draft: Draft, source: str) -> list[str]:
    full = full_sheet(sheet_of(sheet.variant).pk)
    checked = read_sheet(write_sheet(replace(full, tables=with_draft(full.tables, read_tables(draft, "/tables", TABLES), source))))
    saved = save_sheet(Command(command.user, f"{command.key}-d"[-64:]), checked, based_on=None, why=f"Opening order {source}")
    return [f"{saved.variant}: version {saved.version}"]
