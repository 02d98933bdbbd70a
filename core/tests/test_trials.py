"""Trials against a brute-force table of worlds, and what must hold of swaps whatever is swapped."""

from itertools import product

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from spindle.diagnosis.belief.intermittence import Steadiness
from spindle.diagnosis.belief.items import P_BAD_IN_BAD_LOT, P_BAD_LOT
from spindle.diagnosis.belief.trials import P_WORSE, cure_curve, trials_log_likelihood
from spindle.diagnosis.given.case import Change, Trial, TrialResult
from spindle.diagnosis.given.compiled import compile_model
from spindle.words.health import P_BAD_ITEM, Health

from .conftest import PAIRED, RETRIES, Bench, p_of

MODEL = compile_model(PAIRED)


def steady(share):
    return Steadiness(share * (1 - MODEL.sound), MODEL.sound)


CHANGES = st.builds(
    Change,
    st.sampled_from(["replace_pickup", "clean_lens", "reflow_driver", "replace_driver", "replace_fuse"]),
    st.sampled_from(["A", "B", "C"]),
    st.just(Health.NEW),
)
TRIALS = st.lists(
    st.builds(Trial, st.lists(CHANGES, min_size=1, max_size=2, unique_by=lambda c: c.repair).map(tuple), st.sampled_from(list(TrialResult)), st.integers(1, 4)),
    max_size=4,
)


FUNCTION = {part.id: part.function for part in MODEL.parts}
DOES = {"replace_pickup": {"reads"}, "replace_driver": {"spins"}, "replace_fuse": {"powers"}}


def worlds(trials, clean):
    """P(all trials | fault), each item good or bad and each fault in turn, written out."""
    total = np.zeros(len(MODEL.faults))
    for good in product((True, False), repeat=3):
        is_good = dict(zip("ABC", good, strict=True))
        chance = np.prod([(1 - P_BAD_ITEM[Health.NEW]) if g else P_BAD_ITEM[Health.NEW] for g in good])
        for f, fault in enumerate(MODEL.faults):
            works = {item: g or FUNCTION[fault.part] not in can_be_bad(item, trials) for item, g in is_good.items()}
            total[f] += chance * np.prod([one_trial(t, f, fault.id, works, clean) for t in trials])
    return total


def can_be_bad(item, trials):
    """A pickup cannot be bad in loading: what fitting it reseats by the way, a bad one reseats as well."""
    return {g for t in trials for c in t.changes if c.item == item and c.repair in DOES for g in DOES[c.repair]}


def one_trial(trial, f, fault, is_good, clean):
    uncured, worse = 1.0, P_WORSE
    for c in trial.changes:
        repair = MODEL.repairs[MODEL.repair_index[c.repair]]
        works = is_good[c.item] if repair.uses_item else True
        uncured *= 1 - MODEL.success[MODEL.repair_index[c.repair], f] * works
        worse = max(worse, repair.worsens.get(fault, 0.0))
    if trial.result is TrialResult.CLEAN:
        return 1 - uncured * (1 - clean(trial.clean_passes)[f])
    shown = 0.03 if fault == "nothing_wrong" else 1.0
    if trial.result is TrialResult.CHANGED:
        return uncured * shown
    return uncured * shown * (worse if trial.result is TrialResult.WORSE else 1 - worse)


@settings(max_examples=80, deadline=None)
@given(trials=TRIALS, share=st.floats(0.0, 1.0))
def test_trials_equal_the_table_of_worlds(trials, share):
    got = np.exp(trials_log_likelihood(trials, MODEL, steadiness=steady(share)))
    assert got == pytest.approx(np.maximum(worlds(trials, steady(share).p_clean), 1e-12), rel=1e-9)


@pytest.mark.parametrize("repair", ["replace_pickup", "replace_driver", "replace_rollers", "replace_spindle_motor", "replace_load_motor"])
@pytest.mark.parametrize("health", list(Health))
def test_more_donors_failing_never_raises_the_swapped_part(repair, health):
    part = next(r.part for r in MODEL.repairs if r.id == repair)
    own = [p_of(f"{RETRIES} " + " ".join(f"{repair}:P{n}:{health}!no_change" for n in range(k)), f"part:{part}") for k in range(4)]
    assert own == sorted(own, reverse=True)


def test_a_known_good_swap_clears_at_least_as_much_as_any_other():
    cleared = [p_of(f"{RETRIES} replace_pickup:P:{h}!no_change", "pickup_405") for h in (Health.PROVEN, Health.NEW, Health.UNKNOWN)]
    assert cleared == sorted(cleared)


def test_a_donor_proven_later_makes_its_earlier_swap_count_more():
    doubtful = p_of(f"{RETRIES} replace_pickup:P:unknown!no_change", "pickup_405")
    proven = p_of(f"{RETRIES} replace_pickup:P:unknown!no_change replace_pickup:P:proven!no_change", "pickup_405")
    assert proven < 0.5 * doubtful


def test_the_whole_drive_does_not_clear_what_sits_on_the_owners_board():
    before, after = (Bench(f"{RETRIES} press_board=reads {x}") for x in ("", "replace_drive:D:proven!no_change"))
    assert after.p("part:driver") > before.p("part:driver")
    assert after.p("part:pickup") < 0.4 * before.p("part:pickup")


def cured(passes, share):
    trials = [Trial((Change("clean_lens"),), TrialResult.CLEAN, passes)]
    p = MODEL.prior * np.exp(trials_log_likelihood(trials, MODEL, steadiness=steady(share)))
    return cure_curve(trials, p / p.sum(), MODEL, steady(share))


@given(passes=st.integers(1, 12), share=st.floats(0, 1), more=st.integers(1, 20))
def test_the_cure_curve_rises_and_does_not_move_while_passes_are_counted(passes, share, more):
    now, later = cured(passes, share), cured(passes + more, share)
    assert now(more) == pytest.approx(later(more))
    assert now(passes) <= now(passes + more) + 1e-12


def test_one_pass_of_a_fault_that_comes_and_goes_is_worth_less_than_one_of_a_steady_fault():
    assert cured(1, 1.0)(1) < 0.5 * cured(1, 0.0)(1)


@pytest.mark.parametrize("trials", [[], [Trial((Change("clean_lens"),), TrialResult.NO_CHANGE)]])
def test_no_trial_or_a_failed_one_is_no_cure(trials):
    assert cure_curve(trials, MODEL.prior, MODEL, steady(0.2))(5) == 0


def test_two_donors_of_one_lot_clear_less_than_two_of_two_lots():
    def left(lots):
        trials = [Trial((Change("replace_pickup", f"P{n}", lot=lot),), TrialResult.NO_CHANGE) for n, lot in enumerate(lots)]
        return np.exp(trials_log_likelihood(trials, MODEL, steadiness=steady(0)))[MODEL.fault_index["pickup_405"]]

    def uncured(bad):
        return bad + (1 - bad) * 0.06

    q = P_BAD_ITEM[Health.NEW]
    good_lot = (q - P_BAD_LOT * P_BAD_IN_BAD_LOT) / (1 - P_BAD_LOT)
    assert left("AA") > 3 * left("AB")
    assert left("AA") == pytest.approx((0.97**2) * (P_BAD_LOT * uncured(P_BAD_IN_BAD_LOT) ** 2 + (1 - P_BAD_LOT) * uncured(good_lot) ** 2))


def test_any_number_of_parts_is_told_apart_and_trials_that_share_none_multiply():
    alone = [Trial((Change("replace_pickup", f"P{n}"), Change("replace_fuse", f"F{n}")), TrialResult.CLEAN, 1) for n in range(30)]
    one = trials_log_likelihood(alone[:1], MODEL, steadiness=steady(0.2))
    assert trials_log_likelihood(alone, MODEL, steadiness=steady(0.2)) == pytest.approx(np.maximum(30 * one, np.log(1e-12)))


def test_the_last_word_on_a_part_counts_also_against_it():
    def left(*told):
        trials = [Trial((Change("replace_pickup", "P", Health.UNKNOWN, **known),), TrialResult.NO_CHANGE) for known in told]
        return np.exp(trials_log_likelihood(trials, MODEL, steadiness=steady(0)))[MODEL.fault_index["pickup_405"]]

    good, bad = {"works": frozenset({"reads"})}, {"fails": frozenset({"reads"})}
    assert left(good, bad) == pytest.approx(left(bad, bad))
    assert left(bad, good) == pytest.approx(left(good, good))
    assert left(bad, bad) > 5 * left(good, good)
