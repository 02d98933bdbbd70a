"""A whole job in an open format: its tape, what it began with, the sheet that it was done with, and which photos it names."""

from __future__ import annotations

from typing import Any, Final

from apps.drives.consoles import console_sheet, current_console
from apps.drives.selectors import document_of
from apps.jobs.folding import lines_of, start_of
from apps.jobs.models import Job
from spindle.formats.console_file import write_console
from spindle.job.line import Line

FORMAT: Final = "tidy-spindle-job"
VERSION: Final = 1


def record_of(row: Job) -> dict[str, Any]:
    """Return a job as the JSON object of its format: folding its lines gives the job back."""
    notes, sheet = start_of(row).notes, row.sheet
    console = current_console((sheet.maker, sheet.console, sheet.revision))
    lines = lines_of(row)
    return {
        "format": FORMAT,
        "version": VERSION,
        "tag": row.tag,
        "taken_in_at": row.taken_in_at.isoformat(),
        "sheet": {"variant": sheet.variant, "version": sheet.version, "document": document_of(sheet)},
        "console": write_console(console_sheet(console.pk)) if console else None,
        "notes": {
            "owner_name": notes.owner_name,
            "owner_contact": notes.owner_contact,
            "complaint": notes.complaint,
            "supply": notes.supply,
            "limit_cents": notes.limit_cents,
            "promised_on": notes.promised_on.isoformat() if notes.promised_on else None,
            "condition": dict(notes.condition),
            "returns": notes.returns,
            "is_covered": notes.is_covered,
        },
        "photos": sorted({line.body["hash"] for line in lines if line.kind == "photo"}),
        "sounds": sorted({line.body["hash"] for line in lines if line.kind == "sound"}),
        "lines": [_line(line) for line in lines],
    }


def _line(line: Line) -> dict[str, Any]:
    return {"number": line.number, "version": line.version, "kind": line.kind, "at": line.at.isoformat(), "by": line.by, "body": line.body}
