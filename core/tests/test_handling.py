"""Our own last step as a suspect: what it opened, and the two stories that are weighed once there is news."""

import numpy as np
import pytest
from spindle.diagnosis.belief.handling import log_weights, opened_by
from spindle.diagnosis.belief.items import p_bad
from spindle.diagnosis.belief.posterior import believe
from spindle.diagnosis.given.case import Answer, Change, Finding, Trial, TrialResult
from spindle.diagnosis.given.compiled import compile_model
from spindle.words.health import Health

from .conftest import PAIRED, Bench

MODEL = compile_model(PAIRED)
KINDS = {f.id: f.opened_by for f in MODEL.faults if f.opened_by}
NO, CLEAN = TrialResult.NO_CHANGE, TrialResult.CLEAN


def trial(repair, result=NO, **more):
    return Trial((Change(repair, "P-1" if more else "", **more),), result)


OPENED = [
    ([], set()),
    ([trial("replace_supply")], {"opened"}),
    ([trial("clean_lens")], {"opened", "mechanism", "wet"}),
    ([trial("reseat_flex_board")], {"opened"}),
    ([trial("replace_pickup", health=Health.UNKNOWN)], {"opened", "mechanism"}),
    ([trial("replace_pickup", health=Health.UNKNOWN, stays=True)], {"opened", "mechanism", "item"}),
    ([trial("replace_pickup", CLEAN, health=Health.UNKNOWN)], {"opened", "mechanism", "item"}),
]


@pytest.mark.parametrize(("trials", "kinds"), OPENED, ids=[str(sorted(k)) + str(n) for n, (_, k) in enumerate(OPENED)])
def test_a_step_can_have_brought_what_its_depth_its_wetness_and_its_part_allow(trials, kinds):
    brought = opened_by(trials, MODEL)
    assert {KINDS[f] for f in brought} == kinds
    prior = {f.id: f.prior for f in MODEL.faults}
    assert all(chance == pytest.approx(prior[f]) for f, chance in brought.items() if KINDS[f] != "item")


def cured(repair):
    success = MODEL.success[MODEL.repair_index[repair]]
    return success / success.sum()


def test_a_part_that_may_be_bad_is_suspected_as_far_as_it_may_be_and_the_worst_of_several_counts():
    change = Change("replace_pickup", "P-1", Health.UNKNOWN, stays=True)
    worse = Change("replace_pickup", "P-2", Health.UNKNOWN, stays=True, fails=frozenset({"reads"}))
    fault = next(f for f in MODEL.faults if f.opened_by == "item")
    for changes in ((change,), (change, worse), (worse, change)):
        share = max(float((cured(c.repair) * p_bad(c, MODEL)).sum()) for c in changes)
        assert opened_by([Trial(changes, NO)], MODEL)[fault.id] == pytest.approx(fault.prior * share)


@pytest.mark.parametrize(
    "words", ["takes_disc=takes spins=holds clean_lens!no_change spins=never", "spins=holds replace_pickup:P1:unknown!clean sled_sound=silent spins=never"]
)
def test_two_stories_are_weighed_once_there_is_news(words):
    bench = Bench(words)
    evidence = believe(bench.case.findings, MODEL).evidence
    before = np.log(MODEL.prior)
    since = {"f9": np.linspace(-2.0, -1.0, len(MODEL.faults))}
    out = log_weights(before, evidence, since, MODEL)
    plain = log_weights(before, evidence, {"f9": np.zeros(len(MODEL.faults))}, MODEL)
    brought = opened_by(evidence.trials, MODEL)
    old = [i for i, f in enumerate(MODEL.faults) if f.id not in brought]
    assert (out - plain)[old] == pytest.approx(since["f9"][old])
    news = plain[old] - before[old] - np.log(1 - sum(brought.values()))
    assert np.isfinite(news).all()
    for fault, chance in brought.items():
        i = MODEL.fault_index[fault]
        if KINDS[fault] not in ("item", "wet"):
            assert (out - plain)[i] == pytest.approx(since["f9"][i])
            alone = log_weights(before + 1.0, evidence, since, MODEL)
            assert alone[i] - out[i] == pytest.approx(1.0)
            assert out[i] < np.log(chance) + 0.01


def test_a_bad_part_shows_what_the_faults_that_it_cures_would_show():
    change = Change("replace_pickup", "P-1", Health.UNKNOWN, stays=True)
    findings = (Finding("a", Answer("spins", "holds")), Finding("b", Trial((change,), NO)), Finding("c", Answer("spins", "never")))
    evidence = believe(findings, MODEL).evidence
    since = {"f9": np.linspace(-2.0, -1.0, len(MODEL.faults))}
    out, flat = (log_weights(np.log(MODEL.prior), evidence, s, MODEL) for s in (since, {}))
    i = MODEL.fault_index[next(f.id for f in MODEL.faults if f.opened_by == "item")]
    likely = cured("replace_pickup") * p_bad(change, MODEL) > 0
    assert since["f9"][likely].min() <= out[i] - flat[i] <= since["f9"][likely].max()
    assert out[i] - flat[i] != pytest.approx(since["f9"][i])


@pytest.mark.parametrize(("repair", "shown"), [("clean_switch_insert", "switch_insert"), ("clean_rollers", "rollers_glazed"), ("clean_lens", "lens_dirty")])
def test_what_is_still_wet_looks_like_the_part_that_was_flushed(repair, shown):
    findings = (Finding("a", Answer("takes_disc", "takes")), Finding("b", Trial((Change(repair),), NO)), Finding("c", Answer("takes_disc", "ignores")))
    evidence = believe(findings, MODEL).evidence
    wet, other, none, at = MODEL.fault_index["still_wet"], MODEL.fault_index["driver_chip"], np.zeros(len(MODEL.faults)), np.eye(len(MODEL.faults))
    flat, its, another = (
        log_weights(np.log(MODEL.prior), evidence, {"f9": row}, MODEL)[wet] for row in (none, 2 * at[MODEL.fault_index[shown]], 2 * at[other])
    )
    assert its > flat + 0.1
    assert another == pytest.approx(flat)
