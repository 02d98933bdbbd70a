"""The shop's figures and its people: who sets them, what comes of it at once, and what no mistake can do."""

import pytest
from apps.people.models import Role, User
from apps.shop.models import Shop
from apps.shop.selectors import the_shop
from django.core.management import CommandError, call_command
from django.test import Client

from .conftest import AGREE, FRESH, Browser

FIRST = "a-first-word-77"


def figures(browser, key="figures-0001", version=0, **told):
    return browser.post("/shop", key=key, version=version, **told)


def add(browser, username="tove", key="add-tove-0001", name="Tove Lund Marr", role="technician", password=FIRST):
    return browser.post("/people", key=key, username=username, name=name, role=role, password=password)


def sign_in(username, password):
    browser = Browser.__new__(Browser)
    browser.client = Client()
    return browser, browser.post("/session", username=username, password=password)


@pytest.mark.parametrize("path", ["/shop", "/people"])
def test_only_a_manager_sees_and_sets_it(bram, nia, path):
    for browser in (bram, nia):
        assert browser.get(path).status_code == 403
        assert browser.post(path, key="not-mine-0001", version=0, username="x", name="x", role="manager", password=FIRST).status_code == 403


def test_a_figure_counts_for_every_job_at_once_and_leaves_a_trace(ida):
    before = ida.get(f"/jobs/{AGREE}").json()["agree"]["offers"][0]
    told = figures(ida, price_cents_per_min=180, guarantee_days=10, phone="0555 0199").json()
    after = ida.get(f"/jobs/{AGREE}").json()["agree"]["offers"][0]
    assert after["labour_cents"] == 2 * before["labour_cents"]
    assert (before["guarantee_days"], after["guarantee_days"]) == (90, 10)
    assert (told["version"], told["phone"]) == (1, "0555 0199")
    assert {(t["field"], t["was"], t["now"], t["by"]) for t in told["traces"]} == {
        ("price_cents_per_min", 90, 180, "Ida Corve"), ("guarantee_days", 90, 10, "Ida Corve"), ("phone", "0555 0142", "0555 0199", "Ida Corve"),
    }  # fmt: skip


def test_what_stands_there_already_is_no_change(ida):
    told = figures(ida, price_cents_per_min=90).json()
    assert (told["version"], told["traces"]) == (0, [])


@pytest.mark.parametrize(
    ("told", "status", "code"),
    [({"name": " "}, 422, "invalid"), ({"time_zone": "Harbour/Time"}, 422, "invalid"), ({"currency": "euro"}, 422, "invalid"),
     ({"guarantee_days": -1}, 422, "invalid"), ({"version": 3, "name": "Late"}, 409, "stale_write")],
)  # fmt: skip
def test_a_wrong_figure_changes_nothing_and_says_where(ida, told, status, code):
    answer = figures(ida, **told)
    assert (answer.status_code, answer.json()["code"]) == (status, code)
    assert (the_shop().version, the_shop().name) == (0, "Quayside Games Library, repair counter")


def test_a_shop_that_nobody_set_up_can_be_set_up(ida):
    Shop.objects.all().delete()
    assert figures(ida, name="Lamp Street").status_code == 200
    assert (the_shop().name, the_shop().price_cents_per_min) == ("Lamp Street", 90)


def test_who_is_new_chooses_a_password_before_anything_else(ida):
    assert add(ida).status_code == 200
    tove, session = sign_in("tove", FIRST)
    assert session.json()["user"] == {
        "username": "tove",
        "name": "Tove Lund Marr",
        "role": "technician",
        "has_first_password": True,
        "may": session.json()["user"]["may"],
    }
    assert tove.get("/day").json()["code"] == "not_allowed"
    assert tove.post("/session/password", old="wrong", new="lantern-on-quay-5").status_code == 403
    assert tove.post("/session/password", old=FIRST, new="lantern-on-quay-5").json()["user"]["has_first_password"] is False
    assert tove.get("/day").status_code == 200
    assert sign_in("tove", FIRST)[1].status_code == 403
    assert sign_in("tove", "lantern-on-quay-5")[1].status_code == 200


@pytest.mark.parametrize("weak", ["short", "password1234", "739201846512", "lund marr 9"])
def test_a_password_that_others_would_guess_is_refused_with_the_reason(ida, weak):
    answer = add(ida, password=weak)
    assert (answer.status_code, answer.json()["params"]["place"]) == (422, "password")
    assert not User.objects.filter(username="tove").exists()


@pytest.mark.parametrize(("username", "name"), [("nia", "Another"), ("NIA", "Another"), ("two words", "X"), ("tove", "  ")])
def test_a_name_that_is_taken_or_none_is_refused(ida, username, name):
    assert add(ida, username, name=name).status_code == 422
    assert User.objects.count() == 3


def test_adding_twice_with_one_key_adds_once(ida):
    assert [add(ida).status_code for _ in range(2)] == [200, 200]
    assert add(ida, "tova").json()["code"] == "key_reused"


def change(browser, username, key="change-0001", **told):
    return browser.post(f"/people/{username}", key=key, **told)


def test_who_is_let_go_is_out_at_once_and_stays_on_the_tapes(ida, bram):
    said = {line["by"] for line in ida.get("/jobs/K-0102").json()["tape"]}
    told = change(ida, "bram", is_active=False).json()
    assert bram.get("/day").status_code == 401
    assert [p["is_active"] for p in told["people"] if p["username"] == "bram"] == [False]
    assert {line["by"] for line in ida.get("/jobs/K-0102").json()["tape"]} == said
    change(ida, "bram", "change-0002", is_active=True)
    assert sign_in("bram", "rope-kettle-72")[1].status_code == 200


def test_a_new_first_password_signs_the_person_out_everywhere(ida, nia):
    assert nia.get("/day").status_code == 200
    told = change(ida, "nia", password=FIRST).json()
    assert nia.get("/day").status_code == 401
    assert FIRST not in str(told)
    assert User.objects.get(username="nia").has_first_password


def test_a_name_and_a_role_change_and_count_from_then_on(ida, nia):
    change(ida, "nia", name="Nia Osk-Hale", role="technician")
    assert nia.get("/session").json()["user"]["name"] == "Nia Osk-Hale"
    assert "bench" in nia.get("/session").json()["user"]["may"]


@pytest.mark.parametrize("told", [{"is_active": False}, {"role": "counter"}])
def test_the_last_manager_stays(ida, told):
    assert change(ida, "ida", **told).json()["code"] == "not_now"
    assert User.objects.get(username="ida").role == Role.MANAGER
    add(ida, role="manager")
    assert change(ida, "ida", "change-0002", **told).status_code == 200


def test_nobody_of_that_name_is_said(ida):
    assert change(ida, "nobody", name="X").status_code == 404


def test_a_shop_of_ones_own_begins_with_one_person_and_throws_no_work_away(demo, bram, capsys):
    bram.ask(FRESH, "remark", text="real work")
    with pytest.raises(CommandError, match="nothing was thrown away"):
        call_command("prepare", "--own", "wenna")
    call_command("load_demo", "--fresh", "--yes")
    call_command("prepare", "--own", "wenna")
    password = capsys.readouterr().out.split("password ")[1].split(";")[0]
    assert [u.username for u in User.objects.all()] == ["wenna"]
    assert sign_in("wenna", password)[1].json()["user"]["has_first_password"] is True
