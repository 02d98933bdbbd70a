"""The deeper look: kept for as long as it holds, made apart from requests, given up as soon as nobody waits for it."""

from datetime import timedelta
from uuid import uuid4

import pytest
from apps.jobs.models import Job, Outlook, WantedLook
from apps.jobs.outlook import BUDGET_S, DeeperLook, deeper_look, keep_looks
from apps.jobs.selectors import job_row, open_job
from apps.people.models import User
from apps.refusals import SupersededError
from apps.shop.selectors import the_shop
from django.utils import timezone

from .conftest import ANSWER, FRESH, NOTED


@pytest.fixture
def asker(db):
    return User.objects.get(username="bram")


@pytest.fixture
def quick(monkeypatch):
    """Looks that cost nothing, and how often one was made."""
    made = []
    monkeypatch.setattr("apps.jobs.outlook._look", lambda *_: made.append(1) or DeeperLook(None, True, None))
    return made


@pytest.fixture
def apart(settings, monkeypatch):
    """A process for looks: what is put here happens whenever the asker's thread sleeps."""
    settings.LOOKS_APART = True
    process = []
    monkeypatch.setattr("apps.jobs.outlook.time.sleep", lambda _: [do() for do in process])
    return process


def told(look, shown):
    return {"of": shown.row.tag, "same": look.is_same}


def ask(asker, tag=FRESH, is_left=lambda: False, build=told):
    return deeper_look(open_job(job_row(tag), the_shop()), asker, build, is_left)


def work():
    keep_looks(told, lambda: True)


def test_it_is_kept_for_as_long_as_what_it_rests_on(bram, asker, quick):
    assert ask(asker) == ask(asker) == {"of": FRESH, "same": True}
    bram.ask(FRESH, "answer", **ANSWER)
    ask(asker)
    assert (len(quick), WantedLook.objects.count()) == (2, 0)


def test_it_is_given_up_when_its_asker_has_left(asker, quick):
    with pytest.raises(SupersededError):
        ask(asker, is_left=lambda: True)
    assert (quick, WantedLook.objects.count(), Outlook.objects.count()) == ([], 0, 0)


def test_the_process_beside_makes_what_others_wait_for(asker, quick, apart):
    apart.append(work)
    assert ask(asker) == {"of": FRESH, "same": True}
    assert (len(quick), WantedLook.objects.count()) == (1, 0)


def test_two_who_ask_for_the_same_have_it_made_once(asker, quick, apart):
    WantedLook.objects.create(user=User.objects.get(username="ida"), job=job_row(FRESH), ticket=uuid4(), at=timezone.now())
    apart.append(work)
    ask(asker)
    assert (len(quick), WantedLook.objects.count()) == (1, 0)


def test_a_newer_wish_takes_the_place_of_the_older_one(asker, quick, apart):
    newer = {"job": job_row(NOTED), "ticket": uuid4(), "is_taken": False}
    apart.append(lambda: WantedLook.objects.filter(user=asker).update(**newer))
    with pytest.raises(SupersededError, match="newer"):
        ask(asker)
    assert WantedLook.objects.get().ticket == newer["ticket"]


def wanted(asker):
    return WantedLook.objects.create(user=asker, job=job_row(FRESH), ticket=uuid4(), at=timezone.now())


@pytest.mark.parametrize("why", ["not wanted", "too late", "server stops", "goes on"])
def test_a_look_in_the_making_ends_when_nobody_waits_for_it(asker, monkeypatch, why):
    monkeypatch.setattr("apps.jobs.outlook.ASKED_EVERY_S", 0.0)
    look, went_on = wanted(asker), []

    def slow(_shown, _seed, go_on):
        if why == "not wanted":
            WantedLook.objects.all().delete()
        if why == "too late":
            monkeypatch.setattr("apps.jobs.outlook.BUDGET_S", -1.0)
        went_on.append(go_on())
        return DeeperLook(None, True, None)

    monkeypatch.setattr("apps.jobs.outlook._look", slow)
    answers = iter([True, why != "server stops"])
    keep_looks(told, lambda: next(answers, False) or why == "goes on")
    assert (len(went_on), Outlook.objects.filter(job=look.job).count()) == ((1, 1) if why == "goes on" else (0, 0))


@pytest.mark.parametrize("late", [False, True])
def test_what_nobody_waits_for_any_more_is_not_made(asker, quick, late):
    at = timezone.now() - timedelta(seconds=BUDGET_S + 1) * late
    WantedLook.objects.create(user=asker, job=job_row(FRESH), ticket=uuid4(), at=at)
    work()
    assert (len(quick), WantedLook.objects.count()) == (not late, 0)


def test_one_that_breaks_is_wanted_no_more_and_the_next_is_made(asker, apart, monkeypatch, quick):
    def broken(look, shown):
        return told(look, shown) if shown.row.tag == NOTED else 1 / 0

    apart.append(lambda: keep_looks(broken, lambda: True))
    WantedLook.objects.create(user=User.objects.get(username="ida"), job=job_row(NOTED), ticket=uuid4(), at=timezone.now() + timedelta(seconds=1))
    with pytest.raises(SupersededError):
        ask(asker)
    assert (Outlook.objects.get().job, WantedLook.objects.count()) == (Job.objects.get(tag=NOTED), 0)


def test_nobody_waits_for_ever_where_no_process_is(asker, apart, monkeypatch):
    monkeypatch.setattr("apps.jobs.outlook.BUDGET_S", 0.0)
    with pytest.raises(SupersededError, match="too long"):
        ask(asker)
    assert not WantedLook.objects.exists()
