"""What owners took to answer: counted while the shop is open, drawn towards what is usual, in steps."""

from datetime import datetime
from math import log

import pytest
from hypothesis import given
from hypothesis import strategies as st
from spindle.day.hours import read_hours
from spindle.day.legs import Pace
from spindle.day.owners import STEP, Waits, owners_pace, waits_of

HOURS = read_hours("Mon-Fri 9:00-12:00 13:00-18:00\nSat 9:00-13:00", "2026-03-11")


@pytest.mark.parametrize(
    ("begins", "ends", "minutes"),
    [
        ("02T09:30", "02T10:15", 45),
        ("02T11:30", "02T13:30", 60),
        ("02T17:00", "02T21:00", 60),
        ("02T20:00", "03T09:10", 10),
        ("07T12:30", "09T09:30", 60),
        ("10T17:00", "12T10:00", 120),
        ("08T10:00", "08T12:00", 0),
        ("03T10:00", "02T10:00", 0),
    ],
)
def test_only_open_minutes_count(begins, ends, minutes):
    assert HOURS.open_between(*(datetime.fromisoformat(f"2026-03-{x}") for x in (begins, ends))) == minutes


@pytest.mark.parametrize(
    ("said", "waits"),
    [
        ("c02T09:59 p02T10:01 p02T10:02 c02T10:12 c02T10:40", [10.0]),
        ("p02T10:00 c02T10:12 p02T10:41 c02T11:00", [12.0, 19.0]),
        ("p02T10:00 c02T10:05", []),
        ("p02T17:59 c02T21:30", [5.0]),
        ("p02T10:00", []),
        ("p02T09:00 c02T09:30 p02T11:00", [30.0]),
    ],
)
def test_the_first_word_on_each_proposal_is_what_was_waited_for(said, waits):
    kinds = {"p": "proposal", "c": "consent"}
    lines = [(1, kinds[x[0]], datetime.fromisoformat(f"2026-03-{x[1:]}")) for x in said.split()]
    now = datetime.fromisoformat("2026-03-02T14:00")
    told = waits_of([*lines, *((2, *rest) for _, *rest in lines)], HOURS, now, waiting={2})
    assert told.answered == tuple(2 * waits)
    asked = lines[-1][2] if lines[-1][1] == "proposal" else None
    assert told.so_far == (() if asked is None else (HOURS.open_between(asked, now),))


@given(st.lists(st.floats(6.0, 5_000.0), max_size=60))
def test_what_is_said_lies_between_the_usual_and_what_they_took_within_a_step(waits):
    pace = owners_pace(Waits(tuple(waits)))
    usual, mean = log(Pace().owner_min), sum(map(log, waits)) / len(waits) if waits else log(Pace().owner_min)
    assert min(usual, mean) - log(STEP) / 2 - 1e-3 <= log(pace.owner_min) <= max(usual, mean) + log(STEP) / 2 + 1e-3


def test_a_shop_without_answers_keeps_what_is_usual():
    assert owners_pace(Waits()) == Pace()


@given(st.lists(st.floats(6.0, 5_000.0), max_size=30), st.lists(st.floats(6.0, 9_000.0), min_size=1, max_size=10))
def test_what_is_waited_for_still_is_longer_than_it_has_been_waited_for(waits, open_):
    without, with_it = owners_pace(Waits(tuple(waits))), owners_pace(Waits(tuple(waits), tuple(open_)))
    answered = owners_pace(Waits((*waits, *open_)))
    assert with_it.owner_min >= min(without.owner_min, answered.owner_min) / STEP
    assert with_it.owner_min >= answered.owner_min / STEP


def test_owners_who_never_answer_are_slow_owners_and_one_just_asked_says_nothing():
    quick = (60.0,) * 40
    assert owners_pace(Waits(quick, (6.0,))) == owners_pace(Waits(quick))
    assert owners_pace(Waits(quick, (5_000.0,) * 40)).owner_min > 3 * owners_pace(Waits(quick)).owner_min


def test_quick_owners_are_quick_and_alike_ones_scatter_less():
    pace = owners_pace(Waits((60.0,) * 80))
    assert (pace.owner_min < 90.0, pace.owner_sigma < Pace().owner_sigma) == (True, True)
    assert owners_pace(Waits((60.0,) * 80 + (61.0,))) == pace
