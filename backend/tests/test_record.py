"""A whole job as a file: what is in it folds to the very same job."""

from datetime import date, datetime

import pytest
from apps.jobs.folding import start_of, value_of
from apps.jobs.models import Job
from spindle.formats.sheet_file import read_sheet
from spindle.job.ledger import fold
from spindle.job.line import Line
from spindle.job.value import Notes, Start

TAGS = ["K-0101", "K-0103", "K-0105", "K-0107", "K-0111"]


@pytest.mark.parametrize("tag", TAGS)
def test_what_is_in_the_file_folds_to_the_very_same_job(bram, tag):
    row = Job.objects.get(tag=tag)
    told = bram.get(f"/jobs/{tag}/record").json()
    lines = [Line(**{**x, "at": datetime.fromisoformat(x["at"])}) for x in told["lines"]]
    day = told["notes"]["promised_on"]
    notes = Notes(**{**told["notes"], "promised_on": date.fromisoformat(day) if day else None})
    assert fold(Start(told["tag"], start_of(row).sheet, notes), lines) == value_of(row)
    assert read_sheet(told["sheet"]["document"]).drive.variant == row.sheet.variant


def test_the_photos_that_it_names_are_there(bram):
    told = bram.get("/jobs/K-0105/record").json()
    assert len(told["photos"]) == 3
    assert {bram.client.get(f"/api/photos/{name}").status_code for name in told["photos"]} == {200}
