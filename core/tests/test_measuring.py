"""Quantities, readings and what they are worth: cases as data, and properties."""

import math

import numpy as np
import pytest
from hypothesis import assume, example, given
from hypothesis import strategies as st
from spindle.bench.quantity import KINDS, plus_minus, read_quantity, said
from spindle.bench.reading import Accuracy, Can, Limit, can_tell, far_repeats, is_creeping, measure, repeats_needed, soft_weights
from spindle.bench.run_chart import run_chart
from spindle.errors import InvalidError

READ = [
    ("12.34 mV", "voltage", 0.01234),
    ("4,7kΩ", "resistance", 4700.0),
    ("4.7 k\u2126", "resistance", 4700.0),
    ("4.7k", "resistance", 4700.0),
    ("12.3 VDC", "voltage", 12.3),
    ("-0.5 V", "voltage", -0.5),
    ("9.9E37", "resistance", math.inf),
    ("O.L MΩ", "resistance", math.inf),
    ("47 \u03bcF", "capacitance", 47.0),
    ("5 mF", "capacitance", 5.0),
    ("100 g", "force", 0.980665),
    ("5 in", "length", 127.0),
    ("12°", "angle", 12.0),
    ("56", "hardness", 56.0),
    ("40 %", "share", 40.0),
    (".5 A", "current", 0.5),
]


@pytest.mark.parametrize(("text", "kind", "value"), READ)
def test_a_quantity_is_read_in_its_working_unit(text, kind, value):
    assert read_quantity(text, kind, place="/x") == pytest.approx(value, rel=1e-12)


@pytest.mark.parametrize(
    ("text", "kind", "why"),
    [
        ("3", "voltage", "has no unit"),
        ("1.5 V", "resistance", "not ohms"),
        ("1,234.5 mV", "voltage", "no number"),
        ("1e400 V", "voltage", "not a finite"),
        ("nan V", "voltage", "no number"),
        ("OL", "voltage", "no number"),
        ("12 V; drop", "voltage", "no number"),
        ("9**9**9 V", "voltage", "no number"),
        ("3 furlongs", "voltage", "not volts"),
        ("", "length", "no number"),
    ],
)
def test_what_is_no_such_quantity_is_refused_with_what_was_expected(text, kind, why):
    with pytest.raises(InvalidError, match=why) as caught:
        read_quantity(text, kind, place="/band/low")
    assert caught.value.params["place"] == "/band/low"


@given(value=st.floats(1e-3, 1e6), kind=st.sampled_from(["voltage", "resistance", "current"]), size=st.sampled_from([("m", 1e-3), ("", 1.0), ("k", 1e3)]))
def test_a_unit_is_a_way_of_writing_and_no_more(value, kind, size):
    prefix, times = size
    unit = {"voltage": "V", "resistance": "ohm", "current": "A"}[kind]
    assert read_quantity(f"{value / times!r} {prefix}{unit}", kind, place="") == pytest.approx(value, rel=1e-9)


@pytest.mark.parametrize("kind", KINDS)
@given(value=st.floats(0.001, 99_999))
def test_what_is_said_can_be_read_again(kind, value):
    assert read_quantity(said(value, kind).replace("Shore A", ""), kind, place="") == pytest.approx(value, rel=2e-3)


@pytest.mark.parametrize(("value", "text"), [(0.5, "0.5 Ω"), (0.02, "0.02 Ω"), (4700.0, "4.7 kΩ"), (2.2e6, "2.2 MΩ"), (999.9, "999.9 Ω")])
def test_ohms_are_never_said_in_milliohms(value, text):
    assert said(value, "resistance") == text


@pytest.mark.parametrize(
    ("value", "u", "kind", "text"),
    [
        (11.58, 0.0683, "voltage", "11.58 ± 0.14 V"),
        (4712.0, 25.0, "resistance", "4.712 ± 0.050 kΩ"),
        (0.0123, 0.0002, "voltage", "12.30 ± 0.40 mV"),
        (3.0, 0.0, "length", "3 mm"),
    ],
)
def test_a_value_and_its_doubt_share_a_unit(value, u, kind, text):
    assert plus_minus(value, u, kind) == text


EXACT = Accuracy(0.0, 0.0, 0.0)


@pytest.mark.parametrize(
    ("values", "kind", "leads", "value", "u"),
    [
        ([10.0, 12.0], "voltage", None, 11.0, 0.5002),  # a mean of two: s2 = (3 * 0.022^2 + 2) / 4
        ([10.0, 10.1, 14.0], "voltage", None, 10.1, 1.044),  # a median of three: 1.57 * (10.41 + 0.001) / 5 / 3
        ([0.5], "resistance", None, 0.15, 0.1532),
        ([0.5], "resistance", 0.2, 0.3, 0.0588),
        ([0.1], "resistance", 0.2, 0.0, 0.0584),
        ([50.0], "resistance", 0.2, 50.0, 0.1),  # from ten ohm on the leads are nothing
    ],
)
def test_repeats_amount_to_a_value_with_its_doubt(values, kind, leads, value, u):
    found = measure(values, kind, EXACT, leads_ohm=leads)
    assert (found.value, found.n) == (pytest.approx(value), len(values))
    assert found.u == pytest.approx(u, rel=0.003)


def test_the_meters_own_accuracy_is_a_rectangle_beside_the_spread():
    coarse, fine = (measure([10.0], "voltage", a).u for a in (Accuracy(1.0, 3, 0.01), EXACT))
    assert coarse**2 - fine**2 == pytest.approx(0.13**2 / 3)


@pytest.mark.parametrize(("values", "why"), [([], "at least once"), ([math.inf, 4.0], "Open at one look"), ([-3.0, -3.1], "below zero")])
def test_what_is_no_reading_is_refused(values, why):
    with pytest.raises(InvalidError, match=why):
        measure(values, "resistance", EXACT)


def test_an_overload_is_open_and_no_number():
    assert measure([math.inf], "resistance", EXACT).is_open


@pytest.mark.parametrize(("values", "far"), [([10.0, 10.1, 9.9, 14.0, 10.0], (3,)), ([10.0, 10.1, 9.9, 10.2, 10.0], ()), ([1.0, 99.0], ())])
def test_a_slip_is_asked_again_and_a_sound_set_is_not(values, far):
    assert far_repeats(values, 0.1) == far


@pytest.mark.parametrize(
    ("values", "creeps"),
    [([1.0, 1.2, 1.5, 1.9], True), ([1.9, 1.5, 1.2, 1.0], True), ([1.0, 1.2, 1.1, 1.9], False), ([1.0, 1.9], False), ([1.0, 1.01, 1.02, 1.03], False)],
)
def test_a_reading_that_goes_one_way_is_of_a_moment(values, creeps):
    assert is_creeping(values, 0.05) is creeps


@pytest.mark.parametrize(("u", "can"), [(0.0, Can.TELL), (0.125, Can.TELL), (0.13, Can.ROUGHLY), (0.25, Can.ROUGHLY), (0.26, Can.NOT)])
def test_a_band_of_one_volt_is_told_by_a_meter_that_is_fine_enough(u, can):
    assert can_tell(u, Limit(11.0, 12.0)) == can


def test_more_repeats_help_until_the_meter_itself_is_too_coarse():
    noisy = measure([10.0, 10.4, 9.6], "voltage", EXACT)
    need = repeats_needed(noisy, EXACT, Limit(9.8, 10.2))
    assert need is not None
    assert 1.57 * noisy.spread**2 / need <= 0.1**2 < 1.57 * noisy.spread**2 / (need - 1)
    assert repeats_needed(noisy, Accuracy(5.0, 0, 0), Limit(9.8, 10.2)) is None


TILES = {"low": [(-math.inf, 11.6)], "in": [(11.6, 12.3)], "high": [(12.3, math.inf)]}
VALUES = st.floats(5.0, 20.0)


@given(x=VALUES, u=st.floats(0.0, 5.0))
@example(x=11.6, u=0.0)
@example(x=12.3, u=0.0)
def test_soft_weights_share_one_and_swap_with_a_mirror(x, u):
    weights = soft_weights(x, u, TILES)
    mirrored = soft_weights(-x, u, {k: [(-hi, -lo) for lo, hi in v] for k, v in TILES.items()})
    assert sum(weights.values()) == pytest.approx(1.0)
    assert mirrored == pytest.approx(weights, abs=1e-9)


@given(x=VALUES)
def test_soft_evidence_becomes_crisp_and_becomes_nothing(x):
    assume(min(abs(x - 11.6), abs(x - 12.3)) > 1e-6)
    crisp = "low" if x < 11.6 else "in" if x < 12.3 else "high"
    assert soft_weights(x, 1e-9, TILES)[crisp] == pytest.approx(1.0)
    blind = soft_weights(x, 1e9, TILES)
    assert (blind["low"], blind["in"]) == (pytest.approx(0.5, abs=1e-6), pytest.approx(0.0, abs=1e-6))


@given(x=VALUES, dx=st.floats(0.0, 3.0), u=st.floats(0.001, 2.0))
def test_a_higher_value_never_speaks_more_for_low(x, dx, u):
    assert soft_weights(x + dx, u, TILES)["low"] <= soft_weights(x, u, TILES)["low"] + 1e-12


def test_a_run_chart_has_limits_of_its_own_from_fifteen_on():
    quiet = [10.0, 10.2] * 7
    assert run_chart(quiet).low is None
    found = run_chart([*quiet, 10.1, 13.0])
    assert (found.out, found.shifted) == ((15,), False)
    assert found.high == pytest.approx(found.median + 4 * np.abs(np.diff([*quiet, 10.1, 13.0])).mean() / 1.128)


def test_a_run_chart_says_what_it_is_in_a_sentence():
    assert run_chart([10.0, 12.0]).says("voltage") == "2 read before, 11 V in the middle. From 15 on they have limits of their own."
    told = run_chart([10.0, 10.2] * 5 + [10.6] * 10).says("voltage")
    assert told.startswith("20 read before, 10.4 V in the middle, ")
    assert told.endswith("something has shifted.")
    assert "1 lie outside" in run_chart([10.0, 10.2] * 7 + [10.1, 13.0]).says("voltage")


def test_ten_on_one_side_are_a_shift():
    assert run_chart([10.0, 10.2] * 5 + [10.6] * 10).shifted
    assert not run_chart([10.0, 10.2] * 5 + [10.6] * 9 + [10.0]).shifted
