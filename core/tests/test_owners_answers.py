"""What owners took to answer: counted while the shop is open, drawn towards what is usual, in steps."""

from datetime import datetime
from math import log

import pytest
from hypothesis import given
from hypothesis import strategies as st
from spindle.day.hours import read_hours
from spindle.day.legs import Pace
from spindle.day.owners import STEP, owners_pace, waits_of

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


def test_the_first_word_on_each_proposal_is_what_was_waited_for():
    at = lambda minute: datetime.fromisoformat(f"2026-03-02T10:{minute:02}")  # noqa: E731
    said = [(1, "consent", at(0)), (1, "proposal", at(1)), (1, "proposal", at(2)), (1, "consent", at(12)), (1, "consent", at(40))]
    again = [(1, "proposal", at(41)), (1, "consent", at(44)), (2, "consent", at(50)), (2, "proposal", at(51))]
    assert waits_of([*said, *again], HOURS) == [10.0, 3.0]


@given(st.lists(st.floats(6.0, 5_000.0), max_size=60))
def test_what_is_said_lies_between_the_usual_and_what_they_took_within_a_step(waits):
    pace, n = owners_pace(waits)
    usual, mean = log(Pace().owner_min), sum(map(log, waits)) / len(waits) if waits else log(Pace().owner_min)
    assert n == len(waits)
    assert min(usual, mean) - log(STEP) / 2 - 1e-3 <= log(pace.owner_min) <= max(usual, mean) + log(STEP) / 2 + 1e-3


def test_nobody_is_learnt_from_who_stood_there_and_a_shop_without_answers_keeps_what_is_usual():
    assert owners_pace([]) == owners_pace([0.0, 2.0, 5.0]) == (Pace(), 0)


def test_quick_owners_are_quick_and_alike_ones_scatter_less():
    pace, n = owners_pace([60.0] * 80)
    assert (n, pace.owner_min < 90.0, pace.owner_sigma < Pace().owner_sigma) == (80, True, True)
    assert owners_pace([60.0] * 80 + [61.0])[0] == pace
