"""Two chances of a repair: that it cures now, and that the unit is still well after a year."""

from itertools import permutations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from spindle.diagnosis.given.case import Stock
from spindle.diagnosis.given.compiled import compile_model
from spindle.diagnosis.given.economy import Economy
from spindle.diagnosis.planning.cost import expected_cost, fixed_order_cost
from spindle.diagnosis.planning.plan import plan_for
from spindle.faults.lasting import well_after
from spindle.words.health import Health

from .conftest import FAMILIES, LID, PAIRED, TRAY, Bench
from .test_small_problems import problem_of

SHORT_LIVED = ("reflow_driver", "reflow_connector", "press_hub", "reseat_belt", "free_balls")
MODELS = {name: compile_model(sheet) for name, sheet in FAMILIES.items()}


@given(st.floats(1, 100), st.floats(1, 100))
def test_half_are_well_at_the_median_and_fewer_later(median, months):
    assert well_after(median, median) == pytest.approx(0.5)
    assert (well_after(median, months) > 0.5) == (months < median) or months == pytest.approx(median)


@pytest.mark.parametrize("model", MODELS.values(), ids=list(MODELS))
def test_ordinary_repairs_last_and_stopgaps_do_not(model):
    plan = plan_for(model, Economy())
    for a, repair in enumerate(model.repairs):
        main = int((plan.problem.aims[a]).argmax())
        fading = [p for p, aim in zip(plan.p_year[a], plan.problem.aims[a], strict=True) if aim > 0.0 and p < 0.75]
        assert fading if repair.stopgap else plan.p_year[a, main] >= 0.75 or repair.id in SHORT_LIVED, repair.id


@pytest.mark.parametrize(
    ("sheet", "fault", "stopgap", "lasting"), [(LID, "pickup_780", "raise_drive", "replace_pickup"), (TRAY, "belt_slack", "revive_belt", "replace_belt")]
)
def test_what_mends_at_once_and_fades_is_no_match_for_what_lasts(sheet, fault, stopgap, lasting):
    model = compile_model(sheet)
    plan, f = plan_for(model, Economy()), model.fault_index[fault]
    a, b = (model.repair_index[r] for r in (stopgap, lasting))
    assert plan.p_year[a, f] < 0.1 * plan.p_year[b, f]
    cured = [expected_cost(np.eye(len(model.faults))[[f]], np.array([4]), np.arange(len(model.repairs))[None] == r, plan.problem)[0][0] for r in (a, b)]
    assert cured[0] > cured[1]


def test_what_is_reseated_by_the_way_holds_however_short_lived_the_repair():
    model = MODELS["tray"]
    a = model.repair_index["revive_belt"]
    assert model.lasts_months[a, model.fault_index["belt_slack"]] < 12 < model.lasts_months[a, model.fault_index["flex_board_loose"]]


def test_a_donors_part_has_half_of_its_life_behind_it_and_a_used_drive_says_so_itself():
    for repair, is_shorter in (("replace_pickup", True), ("replace_drive", False)):
        model = MODELS["slot"]
        a = model.repair_index[repair]
        new, used = (plan_for(model, Economy(), stock=s).p_year[a] for s in ((), (Stock(repair, "D-1", Health.PROVEN, is_donor=True),)))
        assert bool((used < new).any()) == is_shorter


def test_a_shop_that_fears_no_return_takes_what_reads_today():
    def cost(eur):
        plan = plan_for(MODELS["lid"], Economy(return_eur=eur))
        return plan.problem.goodwill[MODELS["lid"].repair_index["raise_drive"]].sum()

    assert cost(0.0) == 0.0 < cost(40.0) == pytest.approx(cost(80.0) / 2)


@settings(deadline=None, max_examples=60)
@given(seed=st.integers(0, 10**6))
def test_one_fault_is_worth_the_best_order_of_all(seed):
    problem = problem_of(seed, ends=np.zeros((3, 3), dtype=int), close_after=np.full((3, 3), 4.0), sound=np.zeros(4))
    w = np.eye(4)[0]
    orders = [order[:n] for order in permutations(range(3)) for n in range(4)]
    best = min(fixed_order_cost(w, 0, order, problem) for order in orders)
    assert expected_cost(w[None], np.array([0]), np.ones((1, 3), dtype=bool), problem)[0][0] == pytest.approx(best, abs=1e-9)


def test_every_move_says_both_chances_and_the_offer_repeats_them():
    found = Bench("takes_disc=takes spins=cycles game_bd=fails film_dvd=reads", PAIRED).found
    repairs = [m for m in found.advice.moves if m.kind == "repair"]
    assert repairs
    assert all(m.p_lasts_year <= m.p_cures for m in repairs)
    raised, replaced = (next(m for m in repairs if m.id == r) for r in ("raise_drive", "replace_pickup"))
    assert raised.p_lasts_year < 0.2 * raised.p_cures < replaced.p_lasts_year
