"""The owner's page: what it says, what it takes, once, and that nothing of anybody else is found there."""

import secrets
import threading
from datetime import timedelta

import pytest
from apps.jobs.folding import value_of
from apps.jobs.models import Job
from apps.owner_page.models import OwnerPage
from apps.owner_page.selectors import page_by
from apps.writing.secrets import secret_of
from django.core.cache import cache
from django.db import connection
from django.test import Client
from django.utils import timezone

JOB, OTHER = "K-0104", "K-0114"
KEY = "owner-page-key-1"


@pytest.fixture(autouse=True)
def no_misses():
    cache.clear()


def made(who, tag=JOB, key=KEY):
    return who.post(f"/jobs/{tag}/owner-page", key=key).json()


@pytest.fixture
def address(bram):
    return made(bram)["address"].removeprefix("http://testserver")


def say(address, choice, **more):
    return Client().post(address, {"choice": choice, "by_name": "Wenna", **more})


def last(tag=JOB):
    line = value_of(Job.objects.get(tag=tag)).lines[-1]
    return line.kind, line.body, line.by


def test_it_says_what_is_wrong_what_can_be_done_and_for_how_much(bram, address):
    shown = Client().get(address)
    text = shown.content.decode()
    proposal = bram.get(f"/jobs/{JOB}").json()["agree"]["proposal"]
    assert all(words in text for words in (JOB, proposal["name"], "What is wrong, and how sure", "Guarantee", "Yes:", "I have a question"))
    assert "<script" not in text
    assert bram.get(f"/jobs/{JOB}/owner-page").json()["seen_at"]


def test_it_tells_nobody_where_it_is_and_lets_nothing_in_from_outside(address):
    shown = Client().get(address)
    assert shown["Referrer-Policy"] == "no-referrer"
    assert "noindex" in shown["X-Robots-Tag"]
    assert shown["Cache-Control"] == "no-store"
    assert "default-src 'none'" in shown["Content-Security-Policy"]
    assert not shown.cookies
    assert "http" not in shown.content.decode().replace("http-equiv", "")


ANSWERS = [
    ("yes", {}, "consent", {"is_agreed": True, "by_name": "Wenna", "how": "on the owner’s page"}),
    ("no", {}, "consent", {"is_agreed": False}),
    ("question", {"text": "Is my save safe?"}, "owner_says", {"want": "question", "text": "Is my save safe?"}),
]


@pytest.mark.parametrize(("choice", "more", "kind", "body"), ANSWERS)
def test_an_answer_is_a_line_of_the_tape_in_the_owners_name(bram, address, choice, more, kind, body):
    assert say(address, choice, **more).status_code == 200
    found, said, by = last()
    assert (found, by) == (kind, "Owner’s page")
    assert said.items() >= body.items()
    assert bram.get(f"/jobs/{JOB}/owner-page").json()["standing"] == "answered"


def test_another_offer_of_the_page_is_asked_for_and_the_day_says_so(bram, address):
    other = page_by(address.rpartition("/")[2]).told["offers"][1]
    assert say(address, f"another:{other['repair']}").status_code == 200
    assert last()[1]["name"] == other["name"]
    row = bram.day()[JOB]
    assert (row["acts"], row["waits_for"]) == ("counter", f"The owner would rather have: {other['name']}.")


WRONG = [("", {}), ("maybe", {}), ("yes", {"by_name": " "}), ("question", {}), ("another:sing", {}), ("another", {}), ("yes", {"by_name": "\x00"})]


@pytest.mark.parametrize(("choice", "more"), WRONG)
def test_a_wrong_answer_is_said_and_takes_nothing(address, choice, more):
    before = last()
    refused = say(address, choice, **more)
    assert refused.status_code == 422
    assert 'role="alert"' in refused.content.decode()
    assert last() == before
    assert say(address, "yes").status_code == 200


def test_an_answer_is_taken_once(address):
    assert [say(address, "yes").status_code for _ in range(2)] == [200, 409]
    assert say(address, "no").status_code == 409
    assert last()[1]["is_agreed"] is True
    assert "Your answer is with the shop" in Client().get(address).content.decode()


@pytest.mark.django_db(transaction=True)
def test_two_answers_at_once_leave_one(demo, bram):
    where, start, ends = made(bram)["address"].removeprefix("http://testserver"), threading.Barrier(2), []

    def answers(choice):
        start.wait()
        ends.append(say(where, choice).status_code)
        connection.close()

    pair = [threading.Thread(target=answers, args=(c,)) for c in ("yes", "no")]
    for t in pair:
        t.start()
    for t in pair:
        t.join()
    assert sorted(ends) == [200, 409]
    assert sum(x.kind == "consent" and x.body["how"] == "on the owner’s page" for x in value_of(Job.objects.get(tag=JOB)).lines) == 1


def test_a_newer_proposal_or_page_withdraws_it_and_time_ends_it(bram, address):
    OwnerPage.objects.update(ends_at=timezone.now() - timedelta(minutes=1))
    assert "has ended" in Client().get(address).content.decode()
    OwnerPage.objects.update(ends_at=timezone.now() + timedelta(days=1))
    newer = made(bram, key="owner-page-key-2")["address"].removeprefix("http://testserver")
    assert "newer page" in Client().get(address).content.decode()
    other = page_by(newer.rpartition("/")[2]).told["offers"][1]["repair"]
    bram.ask(JOB, "propose", repair=other)
    assert "newer page" in Client().get(newer).content.decode()
    assert say(newer, "yes").status_code == 409


MEANWHILE = [("consent", {"is_agreed": False, "amount_cents": 0, "by_name": "Wenna", "how": "by phone"}), ("go_back", {"to": "isolate", "why": "look again"})]


@pytest.mark.parametrize(("ask", "body", "standing"), [(*MEANWHILE[0], "withdrawn"), (*MEANWHILE[1], "open")])
def test_a_word_by_another_way_ends_it_and_a_step_back_does_not(bram, address, ask, body, standing):
    assert bram.ask(JOB, ask, **body).status_code == 200
    assert bram.get(f"/jobs/{JOB}/owner-page").json()["standing"] == standing
    assert say(address, "yes").status_code == (200 if standing == "open" else 409)


def test_once_the_work_has_begun_the_page_is_too_late(bram, address):
    bram.ask(JOB, "consent", is_agreed=True, amount_cents=9_000, by_name="Wenna", how="by phone")
    assert bram.ask(JOB, "advance", stage="agree").json()["stage"] == "repair"
    assert "gone on since" in Client().get(address).content.decode()


def test_the_same_press_makes_one_page(bram):
    assert made(bram) == made(bram)
    assert OwnerPage.objects.count() == 1


def test_no_guess_finds_a_page_and_who_guesses_is_sent_away_while_the_page_stays(bram, address):
    made(bram, OTHER, "owner-page-key-3")
    near = [address[:-1] + c for c in "abcdefghij"] + [f"/o/{n}" for n in range(90)] + [f"/o/{secrets.token_urlsafe(32)}" for _ in range(9_900)]
    client = Client()
    found = [client.get(a) for a in near if a != address]
    assert {f.status_code for f in found} == {404, 429}
    assert not any(tag in f.content.decode() for f in found for tag in (JOB, OTHER, "K-0"))
    assert client.get(address).status_code == 200


def test_a_page_shows_its_own_job_alone_and_its_secret_is_kept_nowhere(bram, address):
    text = Client().get(address).content.decode()
    assert not [t for t in Job.objects.exclude(tag=JOB).values_list("tag", flat=True) if t in text]
    page = OwnerPage.objects.get()
    assert secret_of("owner-page", page.pk) not in str(OwnerPage.objects.values().get())
    assert secret_of("owner-page", page.pk) == address.rpartition("/")[2]


def test_who_may_not_agree_makes_none_and_where_nothing_is_proposed_there_is_none(bram, client):
    assert client.post(f"/api/jobs/{JOB}/owner-page", {"key": KEY}, content_type="application/json").status_code in (401, 403)
    assert bram.post("/jobs/K-0107/owner-page", key="owner-page-key-4").json()["params"]["reason"] == "no_proposal"
    assert bram.get("/jobs/K-0107/owner-page").json() is None


def test_nobody_signs_in_as_the_owners_hand_and_it_is_nobody_of_the_shop(bram, ida, address):
    say(address, "yes")
    assert "Owner’s page" not in str(ida.get("/people").json()["people"])
    assert Client().post("/api/session", {"username": "owners-page", "password": "!"}, content_type="application/json").status_code in (401, 403)
