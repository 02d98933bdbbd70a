"""Fuse, belt, shim, capacitors: the rules of each, and what never holds."""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from spindle.bench.belts.geometry import Belt, Pulleys, loop_from_flat, loop_from_oval, loop_from_pins, nearest, size_to_buy
from spindle.bench.belts.opening import CLEAN, GLAZED_RUBBER, Loader, modulus, opens, pull, slack_or_glazed, slips_at_speed, tension
from spindle.bench.capacitors import Capacitor, cost, may_power, plan, why_not
from spindle.bench.fuse import CAUSES, SIGNS, Candidate, Place, judge_fuse, power_after, rank_fuses, why_blown
from spindle.bench.shim import best_shim, tilts
from spindle.bench.verdict import Verdict
from spindle.errors import InvalidError

# fuse

HERE = Place("1.5 A fast", 12.0, gap_mm=1.6, span_mm=3.4, pad_mm=1.6)
GOOD = Candidate("a", "F1.5AL250V", 3.0, 1.5, ohm=0.1)
FUSES = [
    ({}, Verdict.ALLOWED, ""),
    ({"marking": "wire"}, Verdict.REFUSED, "bridge"),
    ({"marking": ""}, Verdict.REFUSED, "unknown rating"),
    ({"ohm": None}, Verdict.REFUSED, "Not proven closed"),
    ({"ohm": 2.1}, Verdict.REFUSED, "not closed"),
    ({"marking": "F2AL250V"}, Verdict.REFUSED, "is more"),
    ({"marking": "F1AL250V"}, Verdict.TRIAL_ONLY, "is less"),
    ({"marking": "F0.5AL250V"}, Verdict.REFUSED, "under half"),
    ({"marking": "T1.5AL250V"}, Verdict.REFUSED, "slower"),
    ({"marking": "FF1.5AL250V"}, Verdict.TRIAL_ONLY, "quicker"),
    ({"marking": "F1.5AL5V"}, Verdict.REFUSED, "fewer than"),
    ({"marking": "F1.5A"}, Verdict.TRIAL_ONLY, "volts are not known"),
    ({"length_mm": None}, Verdict.TRIAL_ONLY, "not measured"),
    ({"length_mm": 2.0}, Verdict.REFUSED, "too short"),
    ({"length_mm": 4.5}, Verdict.REFUSED, "longer"),
    ({"width_mm": 2.3}, Verdict.TRIAL_ONLY, "wider"),
    ({"has_leads": True}, Verdict.TRIAL_ONLY, "shake loose"),
]


@pytest.mark.parametrize(("change", "verdict", "why"), FUSES)
def test_a_fuse_is_judged_with_its_reason(change, verdict, why):
    found = judge_fuse(replace(GOOD, **change), HERE)
    assert found.verdict is verdict
    assert why in " ".join(r.text for r in found.reasons)


def test_above_24_volts_an_unknown_voltage_is_refused():
    assert judge_fuse(replace(GOOD, marking="F1.5A"), replace(HERE, supply_v=25.0)).verdict is Verdict.REFUSED


@given(
    marking=st.sampled_from(["wire", "solder bridge", "", "3 A", "F2A250V", "F3AL250V"]),
    length=st.none() | st.floats(1, 9),
    ohm=st.none() | st.floats(0, 1),
    leads=st.booleans(),
)
def test_a_bridge_an_unknown_or_a_larger_fuse_is_refused_whatever_else_is_said(marking, length, ohm, leads):
    assert judge_fuse(Candidate("x", marking, length, 1.0, leads, ohm=ohm), HERE).verdict is Verdict.REFUSED


def test_fuses_are_tried_by_verdict_then_likeness_then_price():
    kit = [
        replace(GOOD, id="worse", marking="F1AL250V"),
        replace(GOOD, id="dear", price_cents=9),
        replace(GOOD, id="used", is_new=False),
        replace(GOOD, id="wire", marking="wire"),
        GOOD,
    ]
    assert [f.candidate.id for f in rank_fuses(kit, HERE)] == ["a", "dear", "used", "worse", "wire"]


@pytest.mark.parametrize(("ohm", "may"), [(0.4, False), (7.99, False), (8.0, None), (19.9, None), (20.0, True), (math.inf, True)])
def test_ohms_behind_the_fuse_say_whether_power_may_follow(ohm, may):
    found = power_after(ohm, 12.0, 1.5)
    assert (found.may, found.blow_ohm) == (may, 4.0)


@pytest.mark.parametrize(
    ("signs", "cause"),
    [
        ({"polarity_reversed": True}, "supply_reversed"),
        ({"ohms_low": True, "supply_not_own": False}, "short"),
        ({"wrong_rating": True}, "wrong_fuse"),
        ({"motor_drags": True, "ohms_low": False}, "motor"),
    ],
)
def test_signs_say_why_it_blew(signs, cause):
    chances = why_blown(signs)
    assert next(iter(chances)) == cause
    assert sum(chances.values()) == pytest.approx(1)
    assert chances.keys() == CAUSES.keys()
    assert signs.keys() <= SIGNS.keys()


# belt

PULLEYS = Pulleys(6.0, 28.0, 46.0)


def stretched(percent):
    return Belt(PULLEYS.path(1.2) / (1 + percent / 100), 1.2, PULLEYS)


def test_a_loop_is_one_length_however_it_is_measured():
    around, section = 152.0, 1.2
    flat = (around + (4 - math.pi) * section) / 2
    pins = (around - math.pi * (4.0 + section)) / 2
    circle = around / math.pi - section
    assert [loop_from_flat(flat, section), loop_from_pins(pins, 4.0, section), loop_from_oval(circle, circle, section)] == pytest.approx([around] * 3)


@given(a=st.floats(4, 30), b=st.floats(4, 30), c=st.floats(35, 200))
def test_the_path_does_not_care_which_pulley_is_the_motors_and_equal_ones_are_two_straights(a, b, c):
    assert Pulleys(a, b, c).path(1.0) == pytest.approx(Pulleys(b, a, c).path(1.0))
    assert Pulleys(a, a, c).path(1.0) == pytest.approx(2 * c + math.pi * (a + 1.0))
    assert Pulleys(a, b, c).wrap(1.0) + Pulleys(b, a, c).wrap(1.0) == pytest.approx(2 * math.pi)


def test_pulleys_that_touch_are_refused():
    with pytest.raises(InvalidError, match="touch"):
        Pulleys(30.0, 30.0, 30.0).path(1.0)


def test_rubber_by_its_formulas():
    assert modulus(60.0) == pytest.approx(3.61, abs=0.02)
    assert tension(0.05, 1.2, 60.0, 0.8) == pytest.approx(3.61 / 3 * (1.05 - 1.05**-2) * 1.44 * 0.8, rel=0.01)
    assert tension(-0.01, 1.2, 60.0, 0.8) == 0.0
    assert pull(1.0, 0.7, math.pi) == pytest.approx(2 * (math.exp(0.7 * math.pi) - 1) / (math.exp(0.7 * math.pi) + 1))


@pytest.mark.parametrize("rubber", [CLEAN, GLAZED_RUBBER])
def test_chances_rise_with_strain_and_with_a_disc_in(rubber):
    found = [opens(stretched(p), rubber, Loader(), np.random.default_rng(1)) for p in (-1, 2, 4, 6, 9, 12)]
    assert [o.empty for o in found] == sorted(o.empty for o in found)
    assert all(o.loaded >= o.empty for o in found)
    assert all(o.pattern == pytest.approx(o.loaded - o.empty) for o in found)
    assert found[0].loaded == 0


def test_a_spacer_opens_empty_and_lets_a_disc_slip():
    bare, spaced = (opens(stretched(5), GLAZED_RUBBER, Loader(), np.random.default_rng(1), spacer_mm=s).empty for s in (0.0, 0.8))
    slip = [slips_at_speed(Loader(), np.random.default_rng(1), spacer_mm=s) for s in (0.0, 0.8)]
    assert spaced > bare + 0.2
    assert slip[1] > slip[0] + 0.05


def test_little_strain_says_slack_much_says_glazed_and_a_balance_decides():
    found = [slack_or_glazed(stretched(p), Loader(), np.random.default_rng(1)).glazed for p in (2.5, 5, 9)]
    assert found == sorted(found)
    assert found[0] < 0.25
    assert found[-1] > 0.7
    unsure = slack_or_glazed(stretched(5.5), Loader(), np.random.default_rng(1), shines=True)
    assert (unsure.undecided, unsure.ask_balance) == (True, True)
    assert not slack_or_glazed(stretched(5.5), Loader(), np.random.default_rng(1), shines=True, pull_n=2.0).ask_balance


def test_a_belt_is_bought_for_ten_percent_unless_the_sheet_knows():
    aim, low, high = size_to_buy(PULLEYS, 1.2)
    assert [PULLEYS.path(1.2) / x - 1 for x in (aim, low, high)] == pytest.approx([0.10, 0.12, 0.08])
    assert size_to_buy(PULLEYS, 1.2, sheet_mm=148.0)[0] == 148.0
    found = nearest(PULLEYS, [("loose", 145.0, 1.2), ("thick", 138.0, 1.5), ("right", 138.5, 1.2), ("near", 137.0, 1.2), ("slack", 155.0, 1.2)], 1.2)
    assert [(s.id, s.fits) for s in found] == [("right", True), ("near", True), ("loose", False), ("slack", False), ("thick", False)]


# shim

STOCK = [0.05, 0.1, 0.2]


def test_the_shim_that_leans_least_and_never_more_than_before():
    found = best_shim([0.0, 0.12, 0.25], 30.0, STOCK, [650])
    assert sum(found.pieces_mm) == pytest.approx(0.25)
    assert found.worst_after < 0.05
    assert found.before_deg[2] == pytest.approx(math.degrees(math.atan(0.25 / 30)))
    assert tilts([0.1, 0.1, 0.1], 30.0, 0.2)[1] == pytest.approx(0.0)


@given(wear=st.lists(st.floats(0, 1), min_size=3, max_size=3), base=st.floats(20, 60))
def test_a_shim_is_never_worse_than_none(wear, base):
    found = best_shim(wear, base, STOCK, [405, 780])
    assert found.worst_after <= found.worst_before + 1e-12
    assert found.tolerance_deg == 0.60
    assert len(found.pieces_mm) <= 2


@pytest.mark.parametrize(
    ("wear", "stock", "says"),
    [
        ([0, 0.05, 0.1], STOCK, "less than it may"),
        ([0, 0.3, 0.6], [], "rail or deck"),
        ([0, 0.3, 0.6], [0.1], "Not even half"),
        ([0, 0.6, 1.2], [0.4], "still more"),
        ([0, 0.2, 0.4], STOCK, "stopgap"),
    ],
)
def test_a_shim_says_what_it_is_worth(wear, stock, says):
    assert says in best_shim([float(w) for w in wear], 30.0, stock, [650]).text


@pytest.mark.parametrize("wrong", [([-0.1, 0.0], 30.0, [650]), ([0.1, 0.1], 0.0, [650]), ([0.1, 0.1], 30.0, [])])
def test_wear_below_zero_no_base_and_no_wavelength_are_refused(wrong):
    with pytest.raises(InvalidError):
        best_shim(wrong[0], wrong[1], STOCK, wrong[2])


# capacitors

SPOT = Capacitor("C1", 100.0, 10.0, degrees=105.0, low_esr=True, height_mm=7.0, diameter_mm=6.3)
CAP = Capacitor("K1", 100.0, 10.0, degrees=105.0, low_esr=True, height_mm=7.0, diameter_mm=6.3)
CAPS = [
    ({}, ""),
    ({"volt": 6.3}, "fewer"),
    ({"uf": 90.0}, "less than"),
    ({"uf": 151.0}, "one and a half"),
    ({"uf": 150.0}, ""),
    ({"degrees": 85.0}, "105 °C"),
    ({"low_esr": False}, "low ESR"),
    ({"height_mm": 8.0}, "too high"),
    ({"diameter_mm": 8.0}, "too wide"),
    ({"polar": False}, ""),
]


@pytest.mark.parametrize(("change", "why"), CAPS)
def test_a_part_may_go_in_or_says_why_not(change, why):
    found = why_not(replace(CAP, **change), SPOT)
    assert (why in found) if why else (found == "")
    assert cost(CAP, SPOT) == 0


def test_polarity_does_not_go_where_there_is_none():
    assert "polarity" in why_not(CAP, replace(SPOT, polar=False))


PARTS = st.builds(Capacitor, st.just("k"), st.sampled_from([47.0, 100.0, 150.0]), st.sampled_from([6.3, 10.0, 16.0]), st.booleans())
SPOTS = st.builds(Capacitor, st.just("c"), st.sampled_from([47.0, 100.0]), st.sampled_from([6.3, 10.0, 16.0]), st.booleans())


@given(places=st.lists(SPOTS, max_size=5), kit=st.lists(PARTS, max_size=6))
def test_a_plan_never_uses_fewer_volts_and_loses_no_part(places, kit):
    found = plan(places, kit)
    fitted = [f.part for f in found.fittings if f.part]
    assert all(f.part.volt >= f.place.volt for f in found.fittings if f.part)
    assert len(fitted) + len(found.spare) == len(kit)
    assert len(found.short) == len(places) - len(fitted)


def test_one_wrong_voltage_leaves_one_place_and_names_who_shares():
    places = [replace(SPOT, name=f"C{n}") for n in (1, 2)]
    found = plan(places, [CAP, replace(CAP, name="K2", volt=6.3)])
    assert [s.split(":")[1].strip() for s in found.short] == ["C1, C2 share 1 part."]
    assert [p.name for p in found.spare] == ["K2"]


@pytest.mark.parametrize(("seen", "may"), [(0, False), (1, False), (2, True)])
def test_polarity_is_seen_twice_before_power(seen, may):
    fittings = [replace(f, polarity_seen=seen) for f in plan([SPOT], [CAP]).fittings]
    assert may_power(fittings)[0] is may
