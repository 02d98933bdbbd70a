"""Before a job is parked: looks that still pay, and the second part."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from spindle.diagnosis.belief.posterior import believe
from spindle.diagnosis.given.case import Stock
from spindle.diagnosis.given.economy import Economy
from spindle.diagnosis.planning.outlook import look_ahead
from spindle.offers.ordering import BACK_SHARE, SHIP_EUR, SPREAD, before_parking, mean_days, mean_of_sooner, saved_eur

from .conftest import PAIRED, RETRIES, TRAY, Bench

DAYS = st.floats(0.5, 30)


@pytest.mark.parametrize(("a", "b"), [(7, 7), (2, 12), (20, 3), (1, 1.5)])
def test_the_sooner_of_two_parcels_comes_when_counting_says(a, b):
    rng, n = np.random.default_rng(4), 200_000
    sooner = np.minimum(*(m * np.exp(SPREAD * rng.standard_normal(n)) for m in (a, b)))
    assert abs(mean_of_sooner(a, b) - sooner.mean()) < 3 * sooner.std() / np.sqrt(n)


@given(a=DAYS, b=DAYS)
def test_the_sooner_is_sooner_than_either_and_the_order_does_not_matter(a, b):
    assert mean_of_sooner(a, b) == pytest.approx(mean_of_sooner(b, a))
    assert mean_of_sooner(a, b) < min(mean_days(a), mean_days(b))


@given(p=st.floats(0, 1), price=st.floats(0, 90), days=DAYS)
def test_the_second_part_pays_the_more_the_likelier_it_is_needed(p, price, days):
    economy = Economy()
    one, two = (saved_eur(p, price, days, economy, parcels=n) for n in (1, 2))
    assert one - two == pytest.approx(SHIP_EUR)
    assert saved_eur(1.0, price, days, economy, parcels=1) >= one >= saved_eur(0.0, price, days, economy, parcels=1) == pytest.approx(-price * (1 - BACK_SHARE))
    by_hand = p * (1.2 * days + SHIP_EUR) - (1 - p) * price * (1 - BACK_SHARE)
    assert one == pytest.approx(by_hand)


def parked(words, repair, *, stock=(), sheet=PAIRED):
    bench = Bench(words, sheet)
    if stock:
        bench.with_stock(repair, *stock)
    outlook = look_ahead(bench.case, bench.model, believe(bench.case.findings, bench.model))
    return before_parking(repair, bench.model, outlook, bench.case.economy), outlook, bench.model


def test_looks_that_still_pay_are_cheaper_than_ordering_and_come_first():
    found, outlook, model = parked(f"{RETRIES} game_bd=fails", "replace_driver")
    at_once = outlook.choice.repair[model.repair_index["replace_driver"]]
    asks = {a.id: n for n, a in enumerate(outlook.plan.asks)}
    assert found.looks
    assert [x.saves_eur for x in found.looks] == sorted((x.saves_eur for x in found.looks), reverse=True)
    assert all(x.saves_eur == pytest.approx(at_once - outlook.choice.ask[asks[x.id]]) for x in found.looks)


def test_the_second_part_is_what_most_likely_is_needed_if_the_first_does_not_mend_it():
    found, outlook, model = parked(f"{RETRIES} game_bd=fails film_dvd=reads lens_look=clear", "replace_pickup")
    assert 0.7 < found.p_cures < 1.0
    assert found.p_used < 1 - found.p_cures
    assert found.two_parcels_eur < found.one_parcel_eur < 0  # the pickup mends it mostly: alone
    left = outlook.position.w / outlook.position.w.sum() * (1 - outlook.plan.problem.success[model.repair_index["replace_pickup"]])
    assert found.p_used == pytest.approx(float(outlook.plan.problem.aims[model.repair_index[found.second]] @ left))


def test_a_likely_second_part_that_costs_little_goes_into_the_parcel():
    found, _, _ = parked("tray_opens_empty=motor_only belt_pull=slips", "replace_load_motor", sheet=TRAY)
    assert (found.second, found.p_used > 0.4) == ("replace_belt", True)
    assert found.one_parcel_eur > found.two_parcels_eur > 0


def test_what_is_here_or_needs_no_part_waits_for_nothing():
    assert parked(RETRIES, "clean_lens")[0] is None
    assert parked(RETRIES, "replace_pickup", stock=("P-1",))[0] is None
    assert Stock("replace_pickup").wait_days == 0.0
