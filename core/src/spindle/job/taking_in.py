"""What stands on a tape from the start: the findings that the condition at the counter amounts to."""

from __future__ import annotations

from spindle.formats.case_file import write_what
from spindle.job.asking import Decision
from spindle.job.line import Draft
from spindle.job.prompts import findings_of
from spindle.job.value import Job


def opening(job: Job) -> Decision:
    """Return the lines of a job that was just taken in, as far as its drive's family knows their questions."""
    answers = [a for a in findings_of(job.notes.condition) if a.question in job.model.family_questions]
    return Decision(tuple(Draft("answer", write_what(a)) for a in answers))
