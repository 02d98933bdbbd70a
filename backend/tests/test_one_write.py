"""The one write: all of it or nothing, once, on what was seen; and what is kept beside the tape is what the tape says."""

import json
import threading
import uuid

import pytest
from apps.jobs.folding import value_of
from apps.jobs.models import Job, Taking, TapeLine, Want
from apps.jobs.selectors import economy_of, tried_repairs
from apps.jobs.services.rebuilding import rebuild
from apps.jobs.services.writing import JobCommand, append, keep, write
from apps.people.models import User
from apps.shelf.models import Part
from apps.shop.selectors import the_shop
from django.db import IntegrityError, OperationalError, connection
from spindle.diagnosis.given.case import Change, Trial, TrialResult
from spindle.errors import SpindleError
from spindle.job.kinds.mains import SetMains
from spindle.job.line import Line
from spindle.job.state import state_of
from spindle.words.bench import Power

from .conftest import AGREE, ANSWER, FRESH, HAND_BACK, NOTED, PROVE, SEEN

KEPT = ("version", "stage", "depth", "power", "waits_for", "tried", "owner_name", "limit_cents", "promised_on", "condition")


def kept(row):
    return {name: getattr(row, name) for name in KEPT}


def world():
    return (TapeLine.objects.count(), list(Part.objects.values_list("tag", "count")), list(Job.objects.values_list("tag", "version", "waits_for")))


@pytest.mark.parametrize(("tag", "what", "body"), [(FRESH, "answer", ANSWER), (AGREE, "take_part", {"part": "P-0001", "repair": "replace_pickup"})])
def test_what_cannot_be_shown_is_not_written_and_the_same_press_works_later(bram, monkeypatch, tag, what, body):
    bram.client.raise_request_exception = False
    before, version = world(), Job.objects.get(tag=tag).version
    with monkeypatch.context() as broken:
        broken.setattr("api.jobs.router.job_view", lambda _: 1 / 0)
        answer = bram.ask(tag, what, key="the-same-press", version=version, **body)
    assert (answer.status_code, answer.json()["code"], world()) == (500, "unexpected", before)
    assert bram.ask(tag, what, key="the-same-press", version=version, **body).json()["is_new"]


def test_a_shelf_that_cannot_be_shown_is_not_written_either(bram, monkeypatch):
    bram.client.raise_request_exception = False
    before = world()
    monkeypatch.setattr("api.shelf.router.part_detail_view", lambda _: 1 / 0)
    assert bram.post("/shelf/parts", key="a-broken-view", level="belt", code="BELT-71", count=3).status_code == 500
    assert world() == before


@pytest.mark.parametrize(("what", "body"), [("mains", {"state": "live"}), ("depth", {"depth": 0})])
def test_what_changes_nothing_raises_no_version_however_often(bram, what, body):
    bram.ask(FRESH, what, **body)
    version, count = Job.objects.get(tag=FRESH).version, TapeLine.objects.count()
    answers = [bram.ask(FRESH, what, **body).json() for _ in range(3)]
    assert {(a["version"], a["is_new"]) for a in answers} == {(version, False)}
    assert TapeLine.objects.count() == count
    assert bram.ask(FRESH, "answer", **ANSWER).json()["is_new"]


CLOSED = [
    ("strike", {"line": 1}),
    ("restore", {"line": 1}),
    ("mains", {"state": "live"}),
    ("consent", {"is_agreed": True, "amount_cents": 1, "by_name": "Wenna", "how": "here"}),
    ("put_back", {"line": 1, "seen": {}}),
    ("own_back", {"part": "K-0108-A"}),
    ("propose", {"repair": ""}),
    ("answer", ANSWER),
    ("advance", {"stage": "closed"}),
]


@pytest.fixture
def closed(bram):
    bram.ask(FRESH, "propose", repair="")
    bram.ask(FRESH, "mains", state="out")
    for stage in ("isolate", "agree", "repair", "prove"):
        bram.ask(FRESH, "advance", stage=stage)
    bram.ask(FRESH, "collect", by_name="Wenna")
    bram.ask(FRESH, "advance", stage="hand_back")
    return bram


@pytest.mark.parametrize(("what", "body"), CLOSED, ids=[what for what, _ in CLOSED])
def test_a_closed_job_takes_nothing_but_remarks(closed, what, body):
    before = world()
    answer = closed.ask(FRESH, what, **body)
    assert (answer.status_code, answer.json()["params"]["reason"]) == (409, "closed")
    assert world() == before
    assert closed.ask(FRESH, "remark", text="rang").status_code == 200


def test_the_owners_no_holds_whatever_the_limit_allows(bram):
    Job.objects.filter(tag=AGREE).update(limit_cents=90_000)
    assert bram.get(f"/jobs/{AGREE}").json()["missing"] == []
    bram.ask(AGREE, "consent", is_agreed=True, amount_cents=90_000, by_name="Wenna", how="by phone")
    bram.ask(AGREE, "consent", is_agreed=False, amount_cents=0, by_name="Wenna", how="by phone")
    assert bram.ask(AGREE, "advance", stage="agree").status_code == 409


def test_a_job_that_cannot_be_read_is_named_and_takes_nothing_else_away(bram):
    same = {"version": 99, "number": 99, "at": "2026-03-01T09:00Z", "by": User.objects.first()}
    TapeLine.objects.create(job=Job.objects.get(tag=SEEN), kind="riddle", body={}, **same)
    gone = {"repair": "pray", "name": "Pray", "total_cents": 0, "p_success": 0.1}  # it folds, and nothing can be computed from it
    TapeLine.objects.create(job=Job.objects.get(tag=PROVE), kind="proposal", body=gone, **same)
    assert {tag for tag, _ in rebuild()} == {SEEN, PROVE}
    assert "cannot be read" in bram.day()[SEEN]["waits_for"]
    assert bram.get(f"/jobs/{FRESH}").status_code == 200
    answer = bram.get(f"/jobs/{SEEN}")
    assert (answer.status_code, "line 99" in answer.json()["title"]) == (422, True)


def test_four_new_parts_tried_clean_three_times_leave_a_job_that_is_read(bram):
    changes = [{"repair": r, "health": "new"} for r in ("replace_pickup", "replace_spindle_motor", "replace_load_motor", "replace_rollers")]
    bram.ask(AGREE, "mains", state="live")
    assert {bram.ask(AGREE, "trial", changes=changes, result="clean").status_code for _ in range(3)} == {200}
    assert {bram.get(path).status_code for path in (f"/jobs/{AGREE}", "/day", f"/jobs/{AGREE}/report.pdf")} == {200}


def test_a_part_typed_in_lower_case_is_the_part_of_the_shelf(bram):
    bram.ask(AGREE, "mains", state="live")
    bram.ask(AGREE, "trial", changes=[{"repair": "replace_pickup", "item": " p-0001 ", "health": "new"}], result="no_change")
    assert (Part.objects.get(tag="P-0001").count, Taking.objects.get(part__tag="P-0001").job.tag) == (0, AGREE)


def test_a_clean_trial_that_the_proof_took_back_is_none_for_the_register(bram):
    before = sum(t.is_clean for t in tried_repairs())
    bram.ask(PROVE, "pass", is_clean=False)
    assert sum(t.is_clean for t in tried_repairs()) == before - 1


def test_an_amended_note_keeps_what_stood_there_on_the_tape(bram):
    bram.ask(NOTED, "amend", limit_cents=4_200)
    text = bram.ask(NOTED, "amend", limit_cents=5_000).json()["tape"][-1]["text"]
    assert text == "Noted at the counter: spending limit €50.00 (was €42.00)"


def test_the_row_beside_the_tape_is_what_the_fold_says(bram):
    for tag, what, body in ((FRESH, "answer", ANSWER), (PROVE, "pass", {"is_clean": False}), (AGREE, "propose", {"repair": "replace_fuse"})):
        bram.ask(tag, what, **body)
    shop = the_shop()
    for row in Job.objects.select_related("sheet").filter(lines__isnull=False).distinct():
        before, job = kept(row), value_of(row)
        keep(row, state_of(job, economy_of(job, shop)), shop)
        assert kept(row) == before


def test_the_day_counts_every_job_in_few_queries_and_reads_the_first_of_each_group(bram, django_assert_max_num_queries):
    old = Job.objects.get(tag=FRESH)
    Job.objects.bulk_create(Job(tag=f"K-{n}", sheet=old.sheet, owner_name="x", taken_in_at=old.taken_in_at) for n in range(2_000, 2_230))
    with django_assert_max_num_queries(5):
        house = bram.get("/day").json()
    (counter,) = (g for g in house["groups"] if g["acts"] == "counter")
    assert (house["units"] > 230, counter["count"] > 230, len(counter["rows"])) == (True, True, 25)
    assert len(bram.day("?whole=counter")) > 230
    assert [r["tag"] for r in bram.day("?whole=counter").values() if r["acts"] == "counter"][:25] == [r["tag"] for r in counter["rows"]]


def test_an_answer_takes_few_queries_and_one_diagnosis(bram, monkeypatch, django_assert_max_num_queries):
    from api.jobs import views  # noqa: PLC0415

    bram.ask(FRESH, "answer", **ANSWER)
    seen, found = [], views.diagnose
    monkeypatch.setattr("api.jobs.views.diagnose", lambda *a, **k: seen.append(1) or found(*a, **k))
    with django_assert_max_num_queries(14):
        bram.ask(FRESH, "answer", version=Job.objects.get(tag=FRESH).version, question="sled_sound", outcome="seeks")
    assert len(seen) == 1


def test_two_trials_that_take_two_parts_in_opposite_order_both_end(demo):
    ends, start, bram = [], threading.Barrier(2), User.objects.get(username="bram")
    Part.objects.filter(tag__in=["P-0001", "P-0012"]).update(count=5)

    def tries(tag, items):
        job = Job.objects.get(tag=tag)
        repairs = {"P-0001": "replace_pickup", "P-0012": "replace_spindle_motor"}
        start.wait()
        try:
            ask = Trial(tuple(Change(repairs[i], i) for i in items), TrialResult.NO_CHANGE)
            ends.append(write(JobCommand(bram, tag, str(uuid.uuid4()), job.version), ask, lambda _: None).is_new)
        except SpindleError as error:
            ends.append(error)
        finally:
            connection.close()

    for tag in (AGREE, "K-0114"):
        write(JobCommand(bram, tag, f"live-{tag}", Job.objects.get(tag=tag).version), SetMains(Power.LIVE), lambda _: None)
    for _ in range(4):
        threads = [threading.Thread(target=tries, args=a) for a in ((AGREE, ["P-0001", "P-0012"]), ("K-0114", ["P-0012", "P-0001"]))]
        [t.start() for t in threads]
        [t.join(60) for t in threads]
    assert len(ends) == 8
    assert not [e for e in ends if e is not True]


def test_a_database_that_is_away_is_said_so_and_not_taken_for_a_mistake(bram, monkeypatch):
    def away(*_a, **_k):
        raise OperationalError("the connection is closed")

    monkeypatch.setattr("api.jobs.house_router.in_the_house", away)
    answer = bram.get("/day")
    assert (answer.status_code, answer.json()["code"]) == (503, "database_away")


def test_the_tape_takes_no_line_twice(db):
    row = Job.objects.get(tag=FRESH)
    job = value_of(row)
    again = Line(1, 1, "remark", {"text": "x"}, row.taken_in_at, "bram")
    with pytest.raises(IntegrityError):
        append(row, job, type(job)(job.start, job.notes, (*job.lines, again)), User.objects.first())


def test_a_job_waits_for_one_part_and_forgets_it_when_the_unit_goes_back_as_it_is(bram):
    bram.ask(AGREE, "propose", repair="replace_fuse")
    assert Want.objects.get(job__tag=AGREE).level == "fuse"
    bram.ask(AGREE, "propose", repair="")
    assert not Want.objects.filter(job__tag=AGREE).exists()


def test_a_report_is_made_of_every_demo_job(bram):
    tags = list(bram.day())
    assert {bram.get(f"/jobs/{t}/report.pdf").status_code for t in tags} == {200}
    assert HAND_BACK in tags
    assert json.loads(bram.get(f"/jobs/{HAND_BACK}/case").content)["format"]
