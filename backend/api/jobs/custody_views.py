"""Views of what is out of a unit, and of which drive is really in it."""

from __future__ import annotations

from typing import Any

from api.jobs import schemas as s
from apps.jobs.selectors import OpenJob
from spindle.drives.features import FEATURES
from spindle.drives.levels import is_within
from spindle.job.value import level_of

SHOWN = 3


def custody_fields(shown: OpenJob) -> dict[str, Any]:
    """Return the fields of a job that say what is away, what the eye saw of the drive, and whether its sheet is the newest."""
    job, row = shown.job, shown.row
    return {
        "custody": [
            s.CustodyView(tag=tag, name=line.body["name"], place=line.body["place"], since=line.at, is_key=_is_key(shown, level_of(line)))
            for tag, line in job.away.items()
        ],
        "identity": [
            s.IdentityView(sheet_id=shown.sheets[c.id].pk, variant=c.id, p=c.p, is_ours=c.id == row.sheet.variant, against=[FEATURES[f].ask for f in c.against])
            for c in (shown.identity.candidates[:SHOWN] if shown.identity else ())
        ],
        "looks": dict(job.looks),
        "sheet_version": row.sheet.version,
        "newer_sheet_id": None if shown.job.start.sheet.newest == row.sheet_id else shown.job.start.sheet.newest,
    }


def _is_key(shown: OpenJob, level: str) -> bool:
    """Tell whether a piece carries the pairing: this console accepts no other."""
    carrier = shown.unit.key_carrier
    return bool(carrier) and is_within(carrier, level)
