"""What stands on a tape from the start: the findings that the condition at the counter amounts to, and what the eye saw of the drive there."""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType

from spindle.drives.key import check_answers
from spindle.formats.case_file import write_what
from spindle.job.asking import Decision
from spindle.job.line import Draft
from spindle.job.prompts import findings_of
from spindle.job.value import Job


def opening(job: Job, looks: Mapping[str, str] = MappingProxyType({})) -> Decision:
    """Return the lines of a job that was just taken in, as far as its drive's family knows their questions.

    Parameters
    ----------
    looks : what was seen of the drive to find it, for the identification key: the bench goes on from there

    Raises
    ------
    CaseError
        If the key knows no such feature or value.
    """
    check_answers(looks)
    answers = [a for a in findings_of(job.notes.condition) if a.question in job.model.family_questions]
    sheet = job.start.sheet
    seen = [Draft("drive", {"looks": dict(looks), "from": sheet.name, "to": sheet.name, "sheet": sheet.number})] if looks else []
    return Decision((*(Draft("answer", write_what(a)) for a in answers), *seen))
