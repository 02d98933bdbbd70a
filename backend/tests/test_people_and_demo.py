"""Roles as a table, the demo's loader, the shop's figures, and two writers at the same moment."""

import threading
from io import StringIO

import pytest
from apps.demo.services import is_empty, sign_ins
from apps.drives.models import Sheet
from apps.drives.selectors import current_sheets, sheet
from apps.jobs.folding import lines_of
from apps.jobs.models import Job, TapeLine
from apps.jobs.selectors import job_row, open_job
from apps.jobs.services.writing import JobCommand, write
from apps.people.models import Role, User
from apps.people.permissions import allowed, require
from apps.refusals import NotAllowedError, StaleWriteError
from apps.reports.selectors import report_of
from apps.shop.models import Shop
from apps.shop.selectors import the_shop
from django.core.management import CommandError, call_command
from django.db import IntegrityError, connection, transaction
from spindle.diagnosis.given.case import Remark
from spindle.errors import NotFoundError
from spindle.offers.ends import ENDS
from spindle.words.duty import Duty

from .conftest import AGREE, FRESH, HAND_BACK, PROVE

MAY = [(Role.COUNTER, {"TAKE_IN", "NOTE", "AGREE", "HAND_BACK"}), (Role.TECHNICIAN, {a.name for a in Duty} - {"SHOP"}), (Role.MANAGER, {a.name for a in Duty})]


@pytest.mark.parametrize(("role", "names"), MAY)
def test_each_role_may_do_its_own_and_is_told_whom_to_ask(role, names):
    user = User(username="x", role=role)
    assert {a.name for a in allowed(user)} == names
    for action in Duty:
        if action.name in names:
            require(user, action)
        else:
            with pytest.raises(NotAllowedError, match=r"Ask a "):
                require(user, action)


@pytest.mark.parametrize(("first", "last"), [("Ada", "Moss"), ("Ada", ""), ("", "Moss"), ("", ""), (" Ada ", " ")])
def test_a_name_is_the_same_on_the_tape(demo, first, last):
    row = Job.objects.exclude(lines=None).first()
    by = row.lines.order_by("number").first().by
    User.objects.filter(pk=by.pk).update(first_name=first, last_name=last)
    assert lines_of(row)[0].by == User.objects.get(pk=by.pk).shown_name == (f"{first} {last}".strip() or by.username)


def test_the_demo_is_loaded_into_an_empty_database_only(db):
    count = TapeLine.objects.count()
    call_command("load_demo")
    assert TapeLine.objects.count() == count
    assert not is_empty()


def test_the_demo_prints_who_can_sign_in(db):
    out = StringIO()
    call_command("load_demo", "--sign-ins", stdout=out)
    assert all(name in out.getvalue() and password in out.getvalue() for _, name, password in sign_ins())


def test_a_fresh_demo_replaces_everything(demo):
    Job.objects.filter(tag=FRESH).update(owner_name="Somebody else")
    call_command("load_demo", "--fresh")
    assert Job.objects.get(tag=FRESH).owner_name == "Lending desk, copy 3"
    assert Job.objects.count() == 14


def test_a_database_that_holds_more_than_the_demo_is_not_emptied_without_asking(demo, bram):
    bram.ask(FRESH, "remark", text="real work")
    bram.post("/shelf/parts", key="a-real-part-1", level="belt", code="BELT-71", count=1)
    with pytest.raises(CommandError):
        call_command("load_demo", "--fresh")
    assert Job.objects.get(tag=FRESH).lines.filter(body__text="real work").exists()
    call_command("load_demo", "--fresh", "--yes")
    assert not Job.objects.get(tag=FRESH).lines.filter(body__text="real work").exists()


def test_there_is_one_shop_and_its_figures_are_the_advices(db):
    economy = the_shop().economy()
    assert (economy.rate_eur_per_min, economy.give_up_eur) == (0.6, 150)
    with pytest.raises(IntegrityError), transaction.atomic():
        Shop.objects.create(pk=2, name="Another")


def test_a_sheet_has_one_current_version(db):
    old = current_sheets()[0]
    with pytest.raises(IntegrityError), transaction.atomic():
        Sheet.objects.create(maker="M", console="C", revision="1", variant=old.variant, version=2, facts=old.facts)
    with pytest.raises(NotFoundError):
        sheet(0)


@pytest.mark.parametrize(("field", "value"), [("depth", 4), ("stage", "lost")])
def test_the_database_knows_which_states_exist(db, field, value):
    with pytest.raises(IntegrityError), transaction.atomic():
        Job.objects.filter(tag=FRESH).update(**{field: value})


@pytest.mark.parametrize(
    ("tag", "verdict", "sureness", "guarantee"),
    [
        (HAND_BACK, "Repaired", "That it is cured: 99 in 100.", "90 days"),
        (PROVE, "Repaired", "That it is cured: ", "90 days"),
        (AGREE, "Not repaired yet", "in 100", "No guarantee"),
        ("K-0101", "Repaired", "nearly certain", "60 days"),
    ],
)
def test_the_report_judges_as_far_as_it_knows(db, tag, verdict, sureness, guarantee):
    report = report_of(open_job(job_row(tag), the_shop()))
    assert report.verdict == verdict
    assert sureness in report.sureness
    assert report.guarantee.startswith(guarantee)
    assert "mains voltage" in report.cautions[0]
    assert all(line.endswith(".") for line in [*report.seen, *report.done, *report.readings, *report.proof])
    assert report.labour_cents + report.part_cents == report.total_cents


@pytest.mark.parametrize("end", ENDS)
def test_each_end_without_a_repair_has_its_words_price_and_guarantee(bram, end):
    says, sold = ENDS[end], bram.ask(AGREE, "propose", repair="", end=end).json()["agree"]
    report = report_of(open_job(job_row(AGREE), the_shop()))
    assert (report.verdict, report.guarantee, report.total_cents) == (says.verdict, says.guarantee, says.charged_min * 90)
    assert report.cause == says.cause or not says.cause
    assert not report.workaround
    assert sold["proposal"]["end"] == end
    assert {e["id"]: e["total_cents"] for e in sold["ends"]}[end] == report.total_cents


def test_of_two_writers_at_the_same_moment_one_is_told(demo):
    version, told, start = Job.objects.get(tag=FRESH).version, [], threading.Barrier(2)

    def say(name):
        user = User.objects.get(username=name)
        start.wait()
        try:
            write(JobCommand(user, FRESH, f"at-once-{name}", version), Remark(name), lambda shown: shown)
        except StaleWriteError as error:
            told.append(error.params["changed"])
        finally:
            connection.close()

    threads = [threading.Thread(target=say, args=(name,)) for name in ("bram", "nia")]
    [t.start() for t in threads]
    [t.join() for t in threads]
    assert len(told) == 1
    assert len(told[0]) == 1
    assert Job.objects.get(tag=FRESH).version == version + 1


def test_the_owner_reads_no_guess_and_nothing_of_children_or_pests(bram):
    reports = {row.tag: report_of(open_job(row, the_shop())) for row in Job.objects.select_related("sheet")}
    likeliest = {tag: bram.get(f"/jobs/{tag}").json()["diagnosis"]["suspects"][0] for tag in reports}
    for tag, report in reports.items():
        assert (report.cause == f"{likeliest[tag]['name']}.") is (likeliest[tag]["p"] >= 0.5 and likeliest[tag]["id"] != "unlisted")
        assert not any("children" in line or "pests" in line for line in report.noted)
    assert {r.cause == "Cause not found for certain." for r in reports.values()} == {True, False}
    assert len({tuple(r.care) for r in reports.values()}) == 3
