"""Views of what is out of a unit, and of which drive is really in it."""

from __future__ import annotations

from typing import Any

from apps.drives.selectors import full_sheet, key_reading, sheet_of
from apps.jobs.selectors import JobState
from spindle.drives.features import FEATURES
from spindle.drives.levels import LEVELS, is_within

from . import schemas as s

SHOWN = 3


def custody_fields(state: JobState) -> dict[str, Any]:
    """Return the fields of a job that say what is away, what the eye saw of the drive, and whether its sheet is the newest."""
    job, unit = state.job, full_sheet(state.job.sheet_id)
    newest = sheet_of(job.sheet.variant)
    return {
        "custody": [
            s.CustodyView(
                tag=p.tag,
                name=LEVELS[p.kind.level].name,
                place=p.place,
                since=p.away_since,
                is_key=bool(unit.key_carrier) and is_within(unit.key_carrier, p.kind.level),
            )
            for p in state.away
            if p.away_since is not None
        ],
        "identity": _identity(state),
        "looks": state.record.looks,
        "sheet_version": job.sheet.version,
        "newer_sheet_id": None if newest.pk == job.sheet_id else newest.pk,
    }


def _identity(state: JobState) -> list[s.IdentityView]:
    if not state.record.looks:
        return []
    reading, sheets = key_reading(state.record.looks)
    return [
        s.IdentityView(sheet_id=sheets[c.id].pk, variant=c.id, p=c.p, is_ours=c.id == state.job.sheet.variant, against=[FEATURES[f].ask for f in c.against])
        for c in reading.candidates[:SHOWN]
    ]
