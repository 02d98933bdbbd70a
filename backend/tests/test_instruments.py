"""What the shop has: who may say so, and what it does to every bench."""

import pytest
from apps.shop.models import Shop
from apps.shop.selectors import the_shop
from django.db import connection
from django.test.utils import CaptureQueriesContext
from spindle.words.bench import Instrument

from .conftest import FRESH, NOTED


def say(browser, instrument, is_there, key="one-key-0001"):
    return browser.post("/instruments", key=key, instrument=instrument, is_there=is_there)


def barred(browser, tag):
    return {b["why"]: b["titles"] for b in browser.get(f"/jobs/{tag}").json()["diagnosis"]["barred"]}


def test_what_it_lacks_is_barred_on_every_bench_and_comes_back(ida):
    why = "This shop has none: bench supply or current clamp."
    assert why not in barred(ida, NOTED)
    assert say(ida, "bench_supply", False).status_code == 200
    assert len(barred(ida, NOTED)[why]) == 1
    say(ida, "bench_supply", True, "one-key-0002")
    assert why not in barred(ida, NOTED)


def test_saying_it_twice_is_one_write_and_no_other_body_takes_the_key(ida):
    answers = [say(ida, "scope", True).json() for _ in range(2)]
    assert answers[0] == answers[1]
    assert Instrument.SCOPE not in the_shop().lacks
    assert say(ida, "scope", False).json()["code"] == "key_reused"


def test_saying_it_writes_nothing_else_of_the_shop(ida):
    """The database itself raises the version of the shelf: a row written whole would take it back."""
    with CaptureQueriesContext(connection) as asked:
        say(ida, "scope", True)
    written = [q["sql"] for q in asked if q["sql"].startswith('UPDATE "shop_shop"')]
    assert [("lacks_words" in sql, "shelf_version" in sql.split("WHERE")[0]) for sql in written] == [(True, False)]


def test_a_shop_that_nobody_set_up_can_say_it(ida):
    Shop.objects.all().delete()
    assert say(ida, "scope", False).status_code == 200
    assert the_shop().lacks == {Instrument.SCOPE}


def test_a_technician_reads_and_does_not_say(bram):
    assert [i["id"] for i in bram.get("/instruments").json()["instruments"]] == [i.value for i in Instrument]
    assert say(bram, "scope", True).status_code == 403


@pytest.mark.parametrize("instrument", ["hammer", "", None])
def test_an_instrument_that_nobody_knows_is_refused(ida, instrument):
    assert say(ida, instrument, True).status_code == 422


def test_a_rattle_bars_every_step_that_needs_power(bram):
    bram.ask(FRESH, "mains", state="out")
    bram.ask(FRESH, "answer", question="rattle", outcome="rattles", source="bench")
    job = bram.get(f"/jobs/{FRESH}").json()
    assert "live" not in {m["mains"] for m in job["diagnosis"]["moves"]}
    assert any("rattle" in b["why"] for b in job["diagnosis"]["barred"])
