"""What closed jobs teach: shares, repairs, parts, minutes and what lasts; how a layer lies over a model; and whether it is better."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from spindle.diagnosis.given.compiled import compile_model
from spindle.faults.model import CANT_TELL, QuestionKind
from spindle.job.past import past_of
from spindle.job.stages import Stage
from spindle.job.state import state_of
from spindle.learning.causes import learn_causes, listed
from spindle.learning.hands import learn_hands
from spindle.learning.judging import BLOCK, judge
from spindle.learning.lasting import Away, learn_lasting
from spindle.learning.layer import Layer, Part, learn
from spindle.learning.past import PROBABLE, Past, Took, TriedAlone, read_past, write_past
from spindle.learning.repairs import learn_repairs
from spindle.learning.telling import Told, told
from spindle.study.learning import close_jobs, gain_on, open_shop
from spindle.words.health import P_BAD_ITEM, Health

from .conftest import FAMILIES
from .house import ECONOMY, on_the_way

MODEL = compile_model(FAMILIES["slot"])
V = MODEL.sheet.variant
MODELS = {V: MODEL}
PRIOR = {f.id: float(p) for f, p in zip(MODEL.faults, MODEL.prior, strict=True)}
LISTED = [f.id for f, own in zip(MODEL.faults, listed(MODEL), strict=True) if own]


def job(fault, *tried, took=(), weight=1.0, seen=None):
    """A closed job whose cause was confirmed."""
    return Past(V, "slot", weight, True, seen or PRIOR, {fault: 1.0}, tried, took)


def spread(*tried):
    """A closed job of which nothing was confirmed: what is believed at its end is what was believed before."""
    return Past(V, "slot", 0.9, False, PRIOR, PRIOR, tried)


def test_no_jobs_teach_nothing():
    lessons = learn([], MODELS)
    assert lessons.causes["slot"].share[V] == pytest.approx({f: PRIOR[f] / sum(PRIOR[x] for x in LISTED) for f in LISTED})
    assert np.allclose(lessons.layer().over(MODEL).prior, MODEL.prior)
    assert told(lessons, MODELS) == ()


@given(st.lists(st.sampled_from(LISTED), max_size=30))
def test_shares_sum_to_one_and_what_is_not_of_the_list_keeps_its_own(faults):
    layer = learn([job(f) for f in faults], MODELS).layer()
    over = layer.over(MODEL)
    assert over.prior.sum() == pytest.approx(1.0)
    assert over.prior[listed(MODEL) == 0.0] == pytest.approx(MODEL.prior[listed(MODEL) == 0.0])


@given(st.sampled_from(LISTED), st.integers(0, 30))
def test_one_more_job_of_a_fault_never_makes_it_rarer(fault, n):
    some = [job("lens_dirty")] * 10 + [job(fault)] * n
    less, more = (learn_causes(own, MODELS).share[V][fault] for own in (some, [*some, job(fault)]))
    assert more >= less - 1e-9


def test_a_model_with_a_weakness_is_its_own_and_its_sisters_stay_with_the_family():
    sister = replace(FAMILIES["slot"], variant="sister")
    models = {V: MODEL, "sister": compile_model(sister)}
    rest = [replace(job(f), variant="sister") for f in LISTED for _ in range(6)]
    share = learn_causes([*rest, *[job("rollers_glazed")] * 20, *[job("lens_dirty")] * 20], models).share
    assert share[V]["rollers_glazed"] > 3 * share["sister"]["rollers_glazed"]
    assert share["sister"]["rollers_glazed"] < 2 * PRIOR["rollers_glazed"]


def test_jobs_of_which_nothing_is_known_leave_the_shares_where_they_are():
    assert learn_causes([spread()] * 200, MODELS).share[V] == pytest.approx(learn_causes([], MODELS).share[V], rel=0.02)


def test_a_given_up_job_weighs_what_it_says_and_one_with_another_end_nothing():
    lost = [job("rollers_glazed", weight=0.0)] * 50
    assert learn_causes(lost, MODELS).share == learn_causes([], MODELS).share


LASER = "pickup_405"


def fitted(n, n_clean, health=Health.NEW, item="P-1", fault=LASER):
    return [job(fault, TriedAlone("replace_pickup", k < n_clean, item, health)) for k in range(n)]


def test_bad_donors_are_told_from_a_bad_repair():
    found = learn_repairs([*fitted(60, 30, Health.UNKNOWN), *fitted(60, 57)], MODELS, {})
    assert found.health[Health.UNKNOWN].mean == pytest.approx(0.46, abs=0.05)
    assert found.success["slot", "replace_pickup"][LASER] > 0.85


def test_a_part_in_a_unit_with_another_fault_says_nothing_of_it():
    found = learn_repairs(fitted(40, 0, Health.UNKNOWN, fault="rollers_glazed"), MODELS, {})
    parts = found.health[Health.UNKNOWN]
    assert parts.mean == pytest.approx(P_BAD_ITEM[Health.UNKNOWN], abs=0.01)
    assert parts.high - parts.low > 0.4


def test_a_bad_lot_does_not_make_its_repair_look_bad():
    lots = {"P-1": "good lot", "P-2": "bad lot"}
    found = learn_repairs([*fitted(40, 38), *fitted(20, 6, item="P-2")], MODELS, lots)
    assert found.sources["bad lot"].low > found.sources["good lot"].high
    assert found.success["slot", "replace_pickup"][LASER] > 0.85


def test_what_a_trial_showed_is_not_counted_twice():
    """The end of a job already knows its trial: a job of which nothing else is known leaves the repair near what was shipped."""
    a = MODEL.repair_index["clean_lens"]
    vain = MODEL.prior * (1.0 - MODEL.success[a])
    p = {f.id: float(x) for f, x in zip(MODEL.faults, vain / vain.sum(), strict=True)}
    clean = MODEL.prior * MODEL.success[a]
    q = {f.id: float(x) for f, x in zip(MODEL.faults, clean / clean.sum(), strict=True)}
    share = round(200 * float(clean.sum()))
    told_ = ((p, False, 200 - share), (q, True, share))
    jobs = [Past(V, "slot", 0.9, False, PRIOR, end, (TriedAlone("clean_lens", is_clean),)) for end, is_clean, n in told_ for _ in range(n)]
    found = learn_repairs(jobs, MODELS, {}).success["slot", "clean_lens"]
    assert found["lens_dirty"] == pytest.approx(float(MODEL.success[a, MODEL.fault_index["lens_dirty"]]), abs=0.03)


def took(who, minutes, *, repair="clean_lens", planned=20.0, is_iron=False):
    return Took(repair, who, minutes, planned, is_iron)


def test_pauses_and_what_was_written_afterwards_are_not_minutes():
    honest = [took("Bram", 20.0)] * 12
    assert learn_hands([*honest, took("Bram", 300.0), took("Bram", 1.0)]).repairs == learn_hands(honest).repairs


def test_a_slow_hand_is_found_where_it_is_slow():
    bram = [took("Bram", 20.0, is_iron=n % 2 == 0, repair="iron" if n % 2 == 0 else "clean_lens") for n in range(40)]
    ida = [took("Ida", 36.0 if n % 2 == 0 else 20.0, is_iron=n % 2 == 0, repair="iron" if n % 2 == 0 else "clean_lens") for n in range(40)]
    hands = learn_hands([*bram, *ida]).people
    assert hands["Ida", True].low < 1.8 < hands["Ida", True].high * 1.1
    assert hands["Ida", True].low > 1.3
    assert hands["Ida", False].low < 1.0 < hands["Ida", False].high


@pytest.mark.parametrize(
    ("away", "least", "most"),
    [
        ([Away(V, "r", 20.0, False)] * 40, 24.0, 100.0),
        ([Away(V, "r", 3.0, True)] * 10, 2.5, 8.0),
        ([Away(V, "r", 0.1, False)] * 40, 18.0, 30.0),
        ([Away(V, "r", 40.0, True)], 24.0, 40.0),
    ],
    ids=["none came back in a long time", "all came back soon", "all went out yesterday", "beyond the watch is no return"],
)
def test_what_comes_back_says_how_long_a_repair_lasts(away, least, most):
    assert least < learn_lasting(away, {"r": 24.0})["r"].months < most


def test_an_empty_layer_changes_nothing():
    over = Layer().over(MODEL)
    for name in ("prior", "success", "lasts_months"):
        assert np.array_equal(getattr(over, name), getattr(MODEL, name))
    assert over.shipped is MODEL


def test_a_layer_is_the_same_after_it_was_written_and_read():
    layer = learn([*fitted(20, 15), job(LASER, took=(took("Bram", 30.0),))], MODELS).layer()
    assert Layer.read(layer.written()) == layer
    assert layer.over(MODEL).pace["clean_lens"] > 1.0


def test_what_an_answer_says_of_cures_is_said_of_the_layer_that_stands_and_of_no_other():
    told_of = next(a for r in MODEL.repairs for a in r.after)
    said = dict([told_of.split("=")])
    plain = MODEL.given(said)
    over = learn([job("rollers_glazed")] * 40, MODELS).layer().over(MODEL)
    assert np.array_equal(over.given(said).prior, over.prior)
    assert np.array_equal(MODEL.given(said).prior, plain.prior)


def test_parts_of_a_layer_are_taken_one_by_one():
    layer = learn(fitted(20, 5), MODELS).layer()
    only = Layer().with_parts(layer, [Part.REPAIRS])
    assert (only.share, only.success, only.bad_item) == ({}, layer.success, layer.bad_item)


def test_what_never_cured_is_never_learnt_to_cure():
    layer = Layer(success={"slot": {"clean_lens": {"rollers_glazed": 0.9}, "no_such": {"lens_dirty": 0.9}}})
    assert np.array_equal(layer.over(MODEL).success, MODEL.success)


def test_a_job_at_its_end_is_kept_and_read_back():
    closed = on_the_way("slot")[-1]
    assert closed.stage is Stage.CLOSED
    past = past_of(state_of(closed, ECONOMY))
    assert read_past(write_past(past)) == past
    assert [t.is_clean for t in past.tried] == [True]
    assert (past.weight, past.is_confirmed) == (PROBABLE, False)


def test_a_confirmed_cause_is_told_while_the_repair_stands():
    closed = on_the_way("slot")[-1]
    said = replace(closed, confirmed=replace(closed.lines[-1], body={"by": "seen", "fault": "lens_dirty"}))
    assert state_of(said, ECONOMY).cause.sureness == "confirmed"
    told = past_of(state_of(said, ECONOMY))
    assert told.closing == {"lens_dirty": 1.0}
    asked = [f.what for f in said.findings[: said.trial_at] if said.model.questions[f.what.question].kind is not QuestionKind.INTAKE]
    assert [d.what for d in told.way] == [a.question for a in asked if a.outcome != CANT_TELL] + [told.tried[-1].repair]
    assert (told.way[-1].came, read_past(write_past(told))) == ("clean", told)
    twice = replace(said, findings=(*said.findings, said.findings[said.trial_at]), trial_at=len(said.findings))
    assert past_of(state_of(twice, ECONOMY)).way == ()
    assert state_of(replace(said, trial_at=-1), ECONOMY).cause.sureness != "confirmed"


def test_what_is_judged_against_itself_is_not_better():
    pasts = [job("rollers_glazed")] * (3 * BLOCK)
    layer = learn(pasts, MODELS).layer()
    judged = judge(pasts, MODELS, lambda _: layer, in_use=layer)
    assert {(j.gain, j.is_better) for j in judged.values()} == {(0.0, False)}


@pytest.mark.parametrize(("knows", "held", "n"), [(0, True, 60), (45, True, 35), (80, True, 0), (45, False, 60)])
def test_a_part_in_use_is_judged_by_the_jobs_that_it_has_not_seen(knows, held, n):
    pasts = [job("rollers_glazed")] * (4 * BLOCK)
    layer = learn(pasts, MODELS).layer()
    in_use = layer if held else layer.with_parts(Layer(), {Part.CAUSES})
    learnt = []
    judged = judge(pasts, MODELS, lambda jobs: learnt.append(len(jobs)) or layer, in_use, knows)
    assert judged[Part.CAUSES].n == n
    assert held or judged[Part.CAUSES].gain > 0.0
    assert max(learnt, default=0) < len(pasts)


def test_a_layer_that_knows_the_world_is_better_and_its_mirror_is_not():
    pasts = [job("rollers_glazed")] * (3 * BLOCK)
    share = dict.fromkeys(LISTED, 0.001) | {"rollers_glazed": 1.0 - 0.001 * (len(LISTED) - 1)}
    wrong = dict.fromkeys(LISTED, 0.001) | {"lens_dirty": 1.0 - 0.001 * (len(LISTED) - 1)}
    noise = [job("rollers_glazed", seen=PRIOR | {"lens_dirty": 0.1 + n / 100}) for n in range(len(pasts))]
    better, worse = (judge(noise, MODELS, lambda _, own=own: Layer(share={V: own}))[Part.CAUSES] for own in (share, wrong))
    assert better.is_better
    assert worse.gain < 0.0
    assert not worse.is_better


def test_a_shop_that_differs_learns_and_one_of_few_jobs_does_not_spoil():
    rng = np.random.default_rng(4)
    shop = open_shop("lid", rng, differs=True)
    pasts, _, sources = close_jobs(shop, 240, rng)
    new, faults, _ = close_jobs(shop, 200, rng)
    late, early = (gain_on(new, faults, learn(pasts[:n], shop.models, source_of=sources).layer(), shop).mean() for n in (240, 10))
    assert late > 0.02
    assert early > -0.02


def test_what_was_learnt_is_told_with_its_counts():
    rows = told(learn([*[job("rollers_glazed")] * 30, *fitted(12, 8, item="P-2")], MODELS, source_of={"P-2": "Lot 7"}), MODELS)
    glazed = next(r for r in rows if r.about is Told.CAUSE and r.name == "Rollers glazed")
    assert (glazed.confirmed, glazed.of_confirmed, glazed.n) == (30, 42, 30.0)
    assert glazed.now > glazed.was
    assert {r.about for r in rows} == {Told.CAUSE, Told.REPAIR, Told.HEALTH, Told.SOURCE}


def test_what_lasts_is_told_once_something_came_back_and_used_only_beyond_doubt():
    away = [Away(V, "clean_lens", 1.0, True)] * 12 + [Away(V, "replace_pickup", 20.0, False)] * 3
    lessons = learn([], MODELS, away=away)
    assert [(r.name, r.n) for r in told(lessons, MODELS)] == [("Clean the lens", 12)]
    layer = lessons.layer()
    assert set(layer.lasts["slot"]) == {"clean_lens"}
    a = MODEL.repair_index["clean_lens"]
    assert (layer.over(MODEL).lasts_months[a] < MODEL.lasts_months[a]).all()
