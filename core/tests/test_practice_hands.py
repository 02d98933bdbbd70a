"""Practice with hands: the meter reads what the drive hides in its own state, and a donor's part is as good as it is."""

from dataclasses import replace

import numpy as np
import pytest
from spindle.bench.tools.catalogue import TOOLS
from spindle.errors import InvalidError
from spindle.practice.advice import in_words
from spindle.practice.donors import SHARE_OF_NEW, donor_of
from spindle.practice.hidden import bench
from spindle.practice.meter import POINTS, Tips
from spindle.practice.session import after, begin
from spindle.practice.state import Care, Do, Move, repair_cost
from spindle.practice.traps import traps_of
from spindle.words.bench import Mains

CAREFUL = frozenset(Care)
RATE = bench("tray").plan.economy.rate_eur_per_min


METERED = [(f, q) for f in ("slot", "tray", "lid") for q in POINTS if q in bench(f).model.questions]


@pytest.mark.parametrize(("family", "question"), METERED)
@pytest.mark.parametrize("seed", range(4))
def test_a_reading_in_its_state_tells_the_answer_that_the_drive_hides_and_in_another_state_nothing(family, question, seed):
    point = POINTS[question]
    for outcome in (o.id for o in bench(family).model.questions[question].outcomes):
        tips = Tips(point, point.mains, outcome, (seed, 1))
        values = [tips.read(np.random.default_rng(seed + n)) for n in range(3)]
        told = TOOLS["reading"].answer(reading_inputs(point, values))
        said = next(x for x in told.speaks if x.question == question)
        assert said.weights[outcome] > 0.8
    wrong = replace(tips, mains=Mains.OUT if point.mains is Mains.LIVE else Mains.LIVE)
    assert not wrong.tells
    assert point.quantity != "resistance" or np.ptp([wrong.read(np.random.default_rng(n)) for n in range(20)]) > 0.3 * wrong.value()  # it does not stand still
    assert (wrong.value() > 0) == (point.quantity == "resistance")


def reading_inputs(point, values):
    unit = {"voltage": "V", "current": "A", "resistance": "ohm"}[point.quantity]
    band = {n: f"{v} {unit}" for n, v in (("low", point.low), ("high", point.high)) if v is not None}
    return {
        "quantity": point.quantity,
        "values": ["OL" if np.isinf(v) else f"{v} {unit}" for v in values],
        "leads": "0.2 ohm",
        "pct": 0.1,
        "digits": 1,
        "mains": "out",
        "disc": "any",
        "switch": "any",
        **band,
    }


def test_measured_in_the_wrong_state_it_costs_minutes_and_nothing_is_known():
    found = begin("any_slot", 3)
    wrong, right = (after(found, Move(Do.LOOK, "board_supply", mains=m)) for m in (Mains.OUT, Mains.LIVE))
    assert (wrong.done[-1].outcome, wrong.answers, wrong.at) == ("", found.answers, found.at)
    assert wrong.minutes == right.minutes > 0
    assert after(found, Move(Do.LOOK, "board_supply")).readings == right.readings != wrong.readings
    assert "The limit is 4.85 V to 5.25 V, running." in right.done[-1].says
    assert after(right, Move(Do.REPAIR, "clean_lens", CAREFUL)).tips is None  # whoever repairs takes the tips off


def test_what_was_read_in_the_wrong_state_cost_all_that_it_cost_more_than_the_same_in_the_right_one():
    wrong = after(begin("any_slot", 3, is_judged=True), Move(Do.LOOK, "board_supply", mains=Mains.OUT))
    beside = wrong.done[-1].beside
    assert beside.regret_eur == wrong.done[-1].eur > 0
    assert in_words(beside.best, wrong).endswith("(running)")


def test_a_meter_on_another_function_reads_none_of_it():
    live, out = (Tips(POINTS[q], POINTS[q].mains, o, (1,)) for q, o in (("board_supply", "in_band"), ("fuse_test", "closed")))
    rng = np.random.default_rng(1)
    assert (live.read(rng, "resistance"), live.read(rng, "current"), out.read(rng, "voltage")) == (np.inf, 0.0, 0.0)
    assert live.read(rng, "voltage") == pytest.approx(5.05, abs=0.25)


def test_power_beside_something_loose_is_a_trap_for_who_measures_running_too():
    rattles = begin("something_loose", 1)
    rattles = replace(rattles, answers={**rattles.answers, "rattle": "rattles"})
    told = [after(rattles, Move(Do.LOOK, "fuse_test", mains=m)).done[-1].beside.traps for m in (Mains.LIVE, Mains.OUT, Mains.ANY)]
    assert told == [("T35",), (), ()]


def swap_of(name, seed, repair):
    found = begin(name, seed)
    found = replace(found, answers={**found.answers, "rattle": "silent"})
    a = [r.id for r in found.ready.plan.repairs].index(repair)
    return found, a, donor_of(found, a)


def test_a_donors_part_is_the_same_each_time_cheaper_here_at_once_and_a_third_of_them_are_bad():
    good = []
    for seed in range(200):
        found, a, donor = swap_of("not_the_motor", seed, "replace_spindle_motor")
        assert donor.is_good is donor_of(after(found, Move(Do.LOOK, "spins")), a).is_good
        good.append(donor.is_good)
    assert donor.eur == pytest.approx(SHARE_OF_NEW * found.ready.plan.repairs[a].part_eur)
    assert 0.25 < 1 - np.mean(good) < 0.45


@pytest.mark.parametrize("seed", range(12))
def test_a_donors_part_helps_as_far_as_it_is_good_and_one_that_changes_nothing_comes_out_and_clears_less_than_a_new_one(seed):
    found, a, donor = swap_of("not_the_motor", seed, "replace_spindle_motor")
    swapped, new = (after(found, Move(do, "replace_spindle_motor", CAREFUL)) for do in (Do.SWAP, Do.REPAIR))
    done = swapped.done[-1]
    assert done.has_cured == (new.done[-1].has_cured and donor.is_good)
    assert done.eur == pytest.approx(new.done[-1].eur - repair_cost(found, a)[0] + donor.minutes * RATE + done.has_cured * donor.eur)
    assert (swapped.has_repaired, found.has_repaired, done.beside.best) == (True, False, None)
    assert (swapped.tried, swapped.swapped) == ((), () if done.has_cured else ("replace_spindle_motor",))
    if not done.has_cured:
        mine = [f.part == "spindle" for f in found.ready.model.faults]
        before, doubtful, cleared = (x.at.w[mine].sum() / x.at.w.sum() for x in (found, swapped, new))
        assert cleared < doubtful < before
        assert swapped.at.free[a]
        assert donor.is_good or swapped.hidden.units == found.hidden.units


@pytest.mark.parametrize(("name", "repair"), [("own_board", "replace_drive"), ("first_unit", "clean_lens")])
def test_where_no_donor_would_do_none_is_offered(name, repair):
    found, _, donor = swap_of(name, 1, repair)
    assert donor is None
    with pytest.raises(InvalidError, match="No donor"):
        after(found, Move(Do.SWAP, repair))


def test_a_place_that_a_doubtful_donor_did_not_clear_is_a_trap_for_who_goes_elsewhere():
    found = begin("not_the_motor", 3)
    likeliest = np.array([float(f.part == "spindle") for f in found.ready.model.faults])
    found = replace(found, at=replace(found.at, w=likeliest), swapped=("replace_spindle_motor",))
    assert "T14" in traps_of(found, Move(Do.REPAIR, "replace_pickup"), 5.0)
    assert "T14" not in traps_of(found, Move(Do.REPAIR, "replace_spindle_motor"), 5.0)
    assert "T14" not in traps_of(replace(found, swapped=()), Move(Do.REPAIR, "replace_pickup"), 5.0)
