"""Which drive is really in the unit: what the eye saw goes onto the tape, and the sheet is changed if it says another one."""

from __future__ import annotations

from collections.abc import Mapping

from apps.drives.models import Sheet
from apps.drives.selectors import key_reading, model_of, sheet
from apps.errors import InvalidError, NotNowError
from apps.jobs.models import Job
from apps.jobs.services.parts import check_open
from apps.jobs.services.writing import Command, Writing, writing
from apps.people.permissions import Action


def identify(command: Command, looks: Mapping[str, str], sheet_id: int | None) -> Job:
    """Note what the eye saw of the drive, and take another sheet, or a newer version of this one, if ``sheet_id`` says so.

    Raises
    ------
    NotNowError
        If the other drive is of another loader family and the tape has answers: those questions do not exist there.
        Or if the tape speaks of a repair that the other drive does not allow.
    InvalidError
        If nothing is said.
    """
    with writing(command, Action.BENCH, "drive", {"looks": dict(looks), "sheet": sheet_id}) as write:
        if not write.is_replay:
            check_open(write)
            key_reading(looks)
            old = write.job.sheet
            new = old if sheet_id is None else sheet(sheet_id)
            if not looks and new.pk == old.pk:
                raise InvalidError("looks", "Nothing was seen and nothing changed.")
            if new.facts["family"] != old.facts["family"] and write.record.findings:
                raise NotNowError(
                    f"{new.variant} loads another way than {old.variant}: the answers on the tape do not fit it. Take the unit in anew.", reason="family"
                )
            _check_repairs(write, new)
            write.job.sheet = new
            write.append("drive", {"looks": dict(looks), "from": f"{old.variant} v{old.version}", "to": f"{new.variant} v{new.version}"})
    return write.job


def _check_repairs(write: Writing, new: Sheet) -> None:
    """Refuse a sheet without a repair that was tried, proposed or has a part on the tape: its lines could not be read any more."""
    spoken = {c["repair"] for line in write.record.lines for c in line.body.get("changes", [line.body]) if c.get("repair")}
    missing = sorted(spoken - set(model_of(new.pk).repair_index))
    if missing:
        names = ", ".join(write.model.repairs[write.model.repair_index[r]].name.lower() for r in missing if r in write.model.repair_index)
        what = names or ", ".join(missing)
        raise NotNowError(f"By its sheet {new.variant} does not allow what the tape speaks of: {what}. Take the unit in anew.", reason="repair")
