"""Where somebody is signed in, a second factor at the door, and who may do what by the table."""

from datetime import timedelta
from io import StringIO

import pyotp
import pytest
from apps.people.models import SecondFactor, SignedIn, User
from apps.people.permissions import allowed
from apps.people.second_factor import STEP_S, takes
from config.urls import api
from django.core.management import CommandError, call_command
from django.test import Client
from django.utils import timezone
from spindle.words.duty import Duty

PASSWORD = "buoy-garden-18"


def sign_in(client=None, *, code="", password=PASSWORD, agent="x (Mobile)"):
    client = client or Client()
    body = {"username": "ida", "password": password, "code": code}
    return client, client.post("/api/session", body, content_type="application/json", headers={"User-Agent": agent})


def ask(client, path, **body):
    return client.post(f"/api/session/account{path}", body, content_type="application/json")


def now_code(back=0):
    factor = SecondFactor.objects.get()
    return pyotp.TOTP(factor.secret).at(timezone.now() - timedelta(seconds=back))


@pytest.fixture
def client(db):
    return sign_in()[0]


@pytest.fixture
def on(client):
    """Ida has a second factor, and these are her codes for paper."""
    ask(client, "/factor")
    return ask(client, "/factor/on", code=now_code(STEP_S)).json()["codes"]


def test_each_place_is_listed_and_every_other_is_ended_by_a_press(client):
    other, _ = sign_in(agent="x (Windows)")
    told = client.get("/api/session/account").json()["sessions"]
    assert [(s["device"], s["is_this"]) for s in told] == [("computer", False), ("phone", True)]
    assert len(ask(client, "/end-others").json()["sessions"]) == 1
    assert (other.get("/api/day").status_code, client.get("/api/day").status_code) == (401, 200)


def test_nobody_sees_or_ends_the_sessions_of_others(client, bram):
    assert len(bram.get("/session/account").json()["sessions"]) == 1
    bram.post("/session/account/end-others")
    assert SignedIn.objects.filter(user__username="ida").count() == 1


@pytest.mark.parametrize(
    ("code", "status", "reason"), [("", 403, "code_wanted"), ("000000", 403, "code"), ("１２３４５é", 403, "code"), ("now", 200, None), ("paper", 200, None)]
)
def test_with_a_second_factor_a_password_alone_opens_nothing(on, code, status, reason):
    told = {"now": now_code(), "paper": on[0]}.get(code, code)
    _, answer = sign_in(code=told)
    assert (answer.status_code, answer.json().get("params", {}).get("reason")) == (status, reason)


def test_a_wrong_password_does_not_say_that_there_is_a_second_factor(on):
    assert sign_in(password="wrong")[1].json()["params"]["reason"] == "sign_in"


@pytest.mark.parametrize("which", ["now", "paper"])
def test_no_code_is_good_twice(on, which):
    code = now_code() if which == "now" else on[3]
    assert [sign_in(code=code)[1].status_code for _ in range(2)] == [200, 403]


@pytest.mark.parametrize(("late_s", "is_good"), [(0, True), (STEP_S, True), (3 * STEP_S, False), (-3 * STEP_S, False)])
def test_a_code_is_good_for_a_step_either_way(client, late_s, is_good):
    ask(client, "/factor")
    assert takes(SecondFactor.objects.get(), now_code(), timezone.now() + timedelta(seconds=late_s)) is is_good


def test_wrong_codes_lock_the_door_like_wrong_passwords(on):
    client = Client()
    for _ in range(5):
        sign_in(client, code="000000")
    assert sign_in(client, code=now_code())[1].status_code == 429


def test_it_asks_for_nothing_before_the_first_code_was_right(client):
    ask(client, "/factor")
    assert ask(client, "/factor/on", code="000000").status_code == 403
    assert sign_in()[1].status_code == 200


def test_switching_it_on_ends_other_sessions_and_off_takes_the_password(client):
    other, _ = sign_in()
    ask(client, "/factor")
    ask(client, "/factor/on", code=now_code())
    assert other.get("/api/day").status_code == 401
    assert ask(client, "/factor/off", password="wrong").status_code == 403
    assert ask(client, "/factor").status_code == 409
    assert ask(client, "/factor/off", password=PASSWORD).json()["has_factor"] is False
    assert sign_in()[1].status_code == 200


def test_who_lost_device_and_paper_is_let_in_from_the_machine_itself(on):
    for says in ("Off.", "There was none."):
        out = StringIO()
        call_command("drop_second_factor", "ida", stdout=out)
        assert out.getvalue().strip() == says
    with pytest.raises(CommandError):
        call_command("drop_second_factor", "nobody")


OPEN_TO_ALL = {"session", "sign_in"}
READ_BY_MANAGERS = {"/api/shop", "/api/people", "/api/practice/class", "/api/archive", "/api/calendars", "/api/record/months", "/api/record/months.csv"}


def operations():
    """Every operation of the API: its id, method and path."""
    return [(op["operationId"], method, path) for path, own in api.get_openapi_schema()["paths"].items() for method, op in own.items()]


def test_nothing_but_the_door_is_open_to_who_is_not_signed_in(db):
    closed = {name: getattr(Client(), method)(path.replace("{", "").replace("}", "")).status_code for name, method, path in operations()}
    assert {name for name, status in closed.items() if status not in (401, 403)} == OPEN_TO_ALL


@pytest.mark.parametrize(("who", "lacks"), [("nia", {Duty.BENCH, Duty.SHEETS, Duty.SHELF, Duty.SHOP}), ("bram", {Duty.SHOP}), ("ida", set())])
def test_the_table_says_who_may_do_what(db, who, lacks):
    assert set(Duty) - allowed(User.objects.get(username=who)) == lacks


def test_what_managers_read_is_refused_to_others(bram, ida):
    read = [path for _, method, path in operations() if method == "get" and "{" not in path]
    assert {path for path in read if bram.client.get(path).status_code == 403} == READ_BY_MANAGERS
    assert {path for path in read if ida.client.get(path).status_code == 403} == set()
