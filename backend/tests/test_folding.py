"""What is kept of a folded tape is what the tape amounts to, whatever happened to the job, the shop or this process meanwhile."""

from datetime import timedelta
from uuid import uuid4

import pytest
from apps.drives.models import Console, Layer, Sheet
from apps.jobs import folding
from apps.jobs.folding import keep_folded, kept_value, value_of
from apps.jobs.models import Job
from apps.jobs.selectors import job_row
from apps.people.models import User
from apps.shop.models import Shop
from apps.shop.selectors import the_shop
from django.db import transaction
from django.db.models import F
from spindle.job.ledger import grown
from spindle.job.line import Line

from .conftest import ANSWER, FRESH, SEEN


@pytest.fixture(autouse=True)
def empty(monkeypatch):
    monkeypatch.setattr(folding, "_folded", {})
    monkeypatch.setattr(folding, "_used", {})


def both(tag):
    row = job_row(tag)
    return kept_value(row, the_shop()), value_of(row)


def answered(who, tag, n):
    """Something new on the tape each time: a remark, and a strike or a restore of its newest finding."""
    newest = [x["number"] for x in who.get(f"/jobs/{tag}").json()["tape"] if x["is_finding"]][-1]
    asks = [("answer", ANSWER), ("strike", {"line": newest, "why": "slip"}), ("restore", {"line": newest}), ("remark", {"text": f"once more {n}"})]
    return who.ask(tag, asks[n % 4][0], **asks[n % 4][1])


@pytest.mark.parametrize("forgets", [(), (1, 3), (0, 1, 2, 3, 4, 5, 6, 7)])
def test_a_kept_tape_is_the_tape_after_every_write_also_of_another_process(bram, forgets):
    for n in range(8):
        here = dict(folding._folded)
        assert answered(bram, SEEN, n).status_code == 200
        if n in forgets:  # another process wrote it: this one knows what it knew
            folding._folded.clear()
            folding._folded.update(here)
        kept, whole = both(SEEN)
        assert kept == whole


def test_what_is_new_alone_is_read_once_the_tape_was_folded(bram, monkeypatch):
    both(SEEN)
    read, lines_of = [], folding.lines_of
    monkeypatch.setattr(folding, "lines_of", lambda row, since=1: read.append(since) or lines_of(row, since))
    known = Job.objects.get(tag=SEEN).lines.count()
    bram.ask(SEEN, "remark", text="one line more")
    assert read == [known]


def test_a_write_keeps_what_it_made_once_it_stands(bram, django_capture_on_commit_callbacks):
    with django_capture_on_commit_callbacks() as callbacks:
        bram.ask(FRESH, "answer", **ANSWER)
    row = job_row(FRESH)
    before = folding._folded[row.pk][1].lines
    for made in callbacks:
        made()
    assert len(folding._folded[row.pk][1].lines) == len(before) + 1
    assert kept_value(row, the_shop()) == value_of(row)


def test_a_name_that_changed_is_new_on_the_tape(bram):
    both(SEEN)
    User.objects.filter(username="nia").update(first_name="Wren", last_name="Tolley")
    kept, whole = both(SEEN)
    assert kept == whole
    assert "Wren Tolley" in {x.by for x in kept.lines[:-1]} - {kept.lines[-1].by}


def test_only_a_name_that_changed_is_told_as_such(db):
    before = the_shop().names_version
    User.objects.update(is_active=True, first_name="")
    after = the_shop().names_version
    User.objects.update(first_name="")
    assert (after > before, the_shop().names_version) == (True, after)


def phantom(job):
    """The tape as a write that was taken back, or another database, would have left it here."""
    last = job.lines[-1]
    return grown(job, [Line(last.number + 1, last.version + 1, "remark", {"text": "a dream"}, last.at + timedelta(minutes=1), last.by)])


def test_lines_that_never_came_to_stand_are_forgotten(bram):
    kept, whole = both(SEEN)
    keep_folded(job_row(SEEN), phantom(kept), the_shop())
    assert both(SEEN) == (whole, whole)
    keep_folded(job_row(SEEN), phantom(kept), the_shop())
    bram.ask(SEEN, "remark", text="awake")
    kept, whole = both(SEEN)
    assert (kept, kept.lines[-1].body["text"]) == (whole, "awake")


@pytest.mark.parametrize("change", ["notes", "sheet", "returns"])
def test_a_job_that_begins_otherwise_is_folded_anew(bram, change):
    both(SEEN)
    if change == "notes":
        bram.ask(SEEN, "amend", owner_name="Someone Else")
    elif change == "sheet":
        newer = Job.objects.get(tag=SEEN).sheet
        Sheet.objects.filter(variant=newer.variant).update(is_current=False)
        newer.pk, newer.version, newer.is_current = None, newer.version + 9, True
        newer.save()
    else:
        Job.objects.filter(tag=SEEN).update(returns=Job.objects.get(tag=FRESH))
    kept, whole = both(SEEN)
    assert kept == whole


@pytest.mark.parametrize("model", [Sheet, Console, Layer])
def test_what_is_newest_beside_a_sheet_is_asked_again_when_any_of_it_changes(db, bram, model):
    before = the_shop().shelf_version
    model.objects.update(id=F("id"))
    assert the_shop().shelf_version > before


@pytest.mark.parametrize(
    ("change", "version"), [(lambda: Sheet.objects.update(id=F("id")), "shelf_version"), (lambda: User.objects.update(first_name=uuid4().hex), "names_version")]
)
def test_a_version_that_was_taken_back_is_not_given_again_for_something_else(db, change, version):
    taken_back = transaction.savepoint()
    change()
    seen = getattr(the_shop(), version)
    transaction.savepoint_rollback(taken_back)
    change()
    assert getattr(the_shop(), version) > seen


def test_what_is_newest_beside_a_sheet_is_asked_once(bram, django_assert_num_queries):
    row, shop = job_row(SEEN), the_shop()
    kept_value(row, shop)
    with django_assert_num_queries(1):  # the last line alone
        kept_value(row, shop)


def test_no_more_is_kept_than_fits_and_nothing_where_no_shop_counts_names(db, monkeypatch):
    monkeypatch.setattr(folding, "MOST_KEPT", 3)
    for row in Job.objects.all()[:8]:
        kept_value(row, the_shop())
    assert len(folding._folded) == 3
    folding._folded.clear()
    Shop.objects.all().delete()
    row = job_row(SEEN)
    assert kept_value(row, the_shop()) == value_of(row)
    assert not folding._folded
