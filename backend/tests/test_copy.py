"""A copy of the database: lists of what is past are read there, nothing else is, and without it nobody waits."""

import pytest
from apps.jobs.models import Job
from apps.people.models import User
from apps.writing.copy import COPY, Router, from_the_copy
from django.db import OperationalError

from .conftest import FRESH

ROUTER = Router()


@pytest.fixture
def asked(settings, monkeypatch):
    """A shop with a copy: which database each kind of row was read from."""
    settings.HAS_COPY = True
    found = []

    def told(_self, model, **_hints):
        found.append((model, ROUTER.db_for_read(model)))
        return "default"  # there is but one in a test

    monkeypatch.setattr("django.db.utils.ConnectionRouter.db_for_read", told)
    return found


@pytest.mark.parametrize(
    ("path", "is_read_there"),
    [
        *((path, True) for path in ("/closed", "/week", "/owners?q=wen", "/claims", "/record/advice", "/record/schools")),
        *((path, False) for path in ("/day", f"/jobs/{FRESH}", "/shelf/parts", "/record/learning")),
    ],
)
def test_what_is_past_is_read_from_the_copy_and_who_may_what_never(bram, asked, path, is_read_there):
    asked.clear()
    assert bram.get(path).status_code == 200
    assert {db for model, db in asked if model is Job} <= {COPY if is_read_there else "default"}
    assert {db for model, db in asked if model is User} == {"default"}
    assert (COPY in {db for _, db in asked}) is is_read_there


def test_a_copy_that_does_not_answer_is_passed_over(settings, caplog):
    seen = []

    @from_the_copy
    def reads():
        seen.append(ROUTER.db_for_read(Job))
        if seen[-1] == COPY:
            raise OperationalError("gone")
        return "read"

    assert (reads(), seen) == ("read", ["default"])
    settings.HAS_COPY = True
    assert (reads(), seen[1:]) == ("read", [COPY, "default"])
    assert "the copy does not answer" in caplog.text


def test_nothing_is_written_to_the_copy_and_no_table_made_there():
    assert ROUTER.db_for_write(Job) == "default"
    assert [ROUTER.allow_migrate(db, "jobs") for db in ("default", COPY)] == [True, False]
    assert ROUTER.allow_relation(Job(), User())
