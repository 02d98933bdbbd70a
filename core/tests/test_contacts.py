"""Switch, flex and supply: what is read, and what it says."""

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st
from spindle.bench.flex import Flex, Read, foil_readings, judge_flex
from spindle.bench.flex import said as flex_said
from spindle.bench.supply import Supply, judge_supply
from spindle.bench.switch import Press, answer_weights, expected_table, judge_switch
from spindle.bench.verdict import Verdict
from spindle.errors import InvalidError

# switch

TABLES = [
    (math.inf, 0.2, "open", "no", True),
    (0.2, math.inf, "closed", "nc", True),
    (0.2, math.inf, "open", "nc", False),
    (math.inf, 0.2, "not known", "no", None),
    (0.2, 0.3, "open", "always", None),
    (5e5, 49.0, "open", "no", True),
    (5e5, 51.0, "open", "never", None),
]


@pytest.mark.parametrize(("rest", "pressed", "sheet", "kind", "agrees"), TABLES)
def test_two_states_say_what_switch_it_is(rest, pressed, sheet, kind, agrees):
    table = expected_table(rest, pressed, at_rest=sheet)
    assert (table.kind, table.agrees) == (kind, agrees)


def presses(n, *, closes=True, ohm=0.15, travel=0.55):
    return [Press(closes, ohm, travel)] * n


SWITCHES = [
    (presses(5), [True] * 5, "sound"),
    (presses(5, ohm=4.0), [True] * 5, "dirty"),
    (presses(3) + presses(2, closes=False), [True] * 5, "dirty"),
    (presses(5, closes=False), [True] * 5, "dead"),
    (presses(5, travel=0.9), [True] * 5, "late"),
    (presses(5), [False] * 5, "stuck"),
]


@pytest.mark.parametrize(("made", "opens_again", "state"), SWITCHES)
def test_five_presses_say_what_is_wrong_with_it(made, opens_again, state):
    found = judge_switch(made, releases=opens_again)
    assert found.likeliest == state
    assert sum(found.chances.values()) == pytest.approx(1)
    assert (found.fails_factor > 1) == (state != "sound")
    weights = answer_weights(found)
    assert weights["works"] == pytest.approx(1 / (1 + found.fails_factor))
    assert sum(weights.values()) == pytest.approx(1)
    assert max(weights, key=weights.__getitem__) == {"sound": "works", "dead": "dead", "stuck": "stuck"}.get(state, "fails")


@given(n=st.integers(1, 12), missed=st.integers(0, 12))
def test_each_miss_speaks_for_failing(n, missed):
    if 1 <= missed < n:
        fewer, more = (judge_switch(presses(n - k) + presses(k, closes=False)).fails_factor for k in (missed, missed + 1))
        assert more > fewer


@pytest.mark.parametrize("made", [[], presses(1, travel=55.0)])
def test_nothing_pressed_or_a_travel_in_percent_is_refused(made):
    with pytest.raises(InvalidError):
        judge_switch(made)


# flex


def read_as(flex, is_closed, most=200):
    """Read as advised until it is sure; what is closed is said by a function of the pair."""
    done = []
    found = judge_flex(flex, done)
    while found.next_pair and len(done) < most:
        done.append(Read(found.next_pair, is_closed(found.next_pair)))
        found = judge_flex(flex, done)
    return found, len(done)


FLEXES = [
    ("sound", 0, lambda p: p[0] == "through" and p[1] == p[2], True),
    ("one_over", 1, lambda p: p[0] == "through" and p[2] == p[1] + 1, False),
    ("open", 7, lambda p: p[0] == "through" and p[1] == p[2] != 7, True),
    ("short", 3, lambda p: (p[0] == "through" and p[1] == p[2]) or {p[1], p[2]} == {3, 4}, False),
    ("torn", 4, lambda p: p[0] == "through" and p[1] == p[2] > 4, True),
    ("torn", -2, lambda p: p[0] == "through" and p[1] == p[2] <= 18, True),
]


@pytest.mark.parametrize(("kind", "where", "is_closed", "power"), FLEXES)
def test_a_flex_is_told_by_what_is_read(kind, where, is_closed, power):
    found, readings = read_as(Flex(20), is_closed)
    assert (found.likeliest, found.may_power) == ((kind, where), power)
    assert readings <= (39 if kind in ("sound", "short") else 25)


def test_t31_one_track_over_forbids_power_after_a_reading_or_two():
    over = [Read(("through", 1, 1), closed=False), Read(("through", 1, 2), closed=True)]
    assert judge_flex(Flex(24), over).may_power is False


def test_nothing_read_no_power_and_the_first_reading_is_at_an_edge():
    found = judge_flex(Flex(24), [])
    assert found.may_power is None
    assert found.next_pair[1] in (1, 24)
    assert foil_readings(23) == 12


@pytest.mark.parametrize("pair", [("through", 1, 9), ("side", 1, 3), ("through", 25, 25)])
def test_a_pair_that_the_flex_has_not_is_refused(pair):
    with pytest.raises(InvalidError):
        judge_flex(Flex(24), [Read(pair, closed=True)])


@pytest.mark.parametrize(
    ("found", "words"),
    [(("one_over", -1), "first track"), (("torn", -3), "22 to 24"), (("torn", 3), "1 to 3"), (("open", 5), "Track 5"), (("short", 5), "5 and 6")],
)
def test_what_a_flex_is_in_words(found, words):
    assert words in flex_said(found, 24)


def test_a_finer_pitch_bridges_more():
    assert [round(Flex(9, p).bridges, 4) for p in (2.0, 1.0, 0.75, 0.5, 0.4, 0.3, 0.2)] == [0.005, 0.005, 0.0175, 0.03, 0.045, 0.06, 0.06]


# supply

OWN = Supply(12.0, 2.0, 12.1, is_loaded=True, rated_a=2.0, centre_positive=True, wants_centre_positive=True)
SUPPLIES = [
    ({}, Verdict.ALLOWED, ""),
    ({"read_v": 13.3}, Verdict.REFUSED, "over"),
    ({"read_v": 16.0, "is_loaded": False}, Verdict.TRIAL_ONLY, "nothing on it is over"),
    ({"read_v": 16.3, "is_loaded": False}, Verdict.REFUSED, "over"),
    ({"read_v": 10.7}, Verdict.REFUSED, "sags"),
    ({"is_loaded": False}, Verdict.TRIAL_ONLY, "only under load"),
    ({"rated_a": 1.5}, Verdict.REFUSED, "less than"),
    ({"rated_a": None}, Verdict.TRIAL_ONLY, "amps are not known"),
    ({"is_alternating": True}, Verdict.REFUSED, "alternating"),
    ({"centre_positive": False}, Verdict.REFUSED, "other way round"),
    ({"centre_positive": None}, Verdict.TRIAL_ONLY, "was not looked at"),
    ({"centre_positive": None, "read_v": -12.0}, Verdict.REFUSED, "other way round"),
]


@pytest.mark.parametrize(("change", "verdict", "why"), SUPPLIES)
def test_a_supply_is_judged_before_it_is_plugged_in(change, verdict, why):
    found = judge_supply(replace(OWN, **change))
    assert found.verdict is verdict
    assert why in " ".join(r.text for r in found.reasons)
