"""What answers, trials and remarks share: they are findings, and the diagnosis reads them."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from dataclasses import replace

from spindle.diagnosis.evidence.vocabulary import check_fitted, check_words
from spindle.diagnosis.given.case import Answer, Change, Finding, Remark, Trial
from spindle.errors import CaseError, InvalidError
from spindle.formats.case_file import read_what
from spindle.job.hazards import after_finding
from spindle.job.line import Line
from spindle.job.value import Job


def fold_finding(job: Job, line: Line) -> Job:
    """Return the job with one more finding; a struck one stays, and weighs nothing."""
    what = read_what(line.kind, line.body, f"/tape/{line.number}")
    finding = Finding(str(line.number), what, line.number in job.struck)
    return replace(job, findings=(*job.findings, finding), holds=after_finding(job.holds, finding, line.at))


def check_fitting(changes: Sequence[Change], job: Job) -> None:
    """Refuse what cannot sit in this drive.

    Raises
    ------
    InvalidError
    """
    with _as_invalid():
        check_fitted(changes, job.model, "changes")


def check_vocabulary(what: Answer | Trial | Remark, job: Job) -> None:
    """Refuse words that the drive's family does not have.

    Raises
    ------
    InvalidError
    """
    with _as_invalid():
        check_words(Finding("new", what), job.model, "")


@contextmanager
def _as_invalid() -> Iterator[None]:
    try:
        yield
    except CaseError as error:
        raise InvalidError(error.place, error.message) from error
