"""The posterior against an independent program, and what must hold whatever the findings are."""

from dataclasses import replace
from itertools import product

import numpy as np
import pyagrum as gum
import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from spindle.diagnosis.belief.likelihood import is_tampered, unreliability
from spindle.diagnosis.belief.posterior import believe
from spindle.diagnosis.belief.striking import weights_of_evidence
from spindle.diagnosis.explaining.diagnose import diagnose
from spindle.diagnosis.given.case import Answer, Case, Finding
from spindle.diagnosis.given.compiled import compile_model
from spindle.drives.sheet import Pairing
from spindle.faults.model import QuestionKind
from spindle.words.bench import Reach
from spindle.words.health import Health
from spindle.words.witness import Witness

from .conftest import FAMILIES, FREE, LID, PAIRED, RETRIES, TRAY, Bench

MODEL = compile_model(PAIRED)
MODELS = {name: compile_model(sheet) for name, sheet in FAMILIES.items()}


def answers(model=MODEL):
    one = st.sampled_from(list(model.questions.values())).flatmap(
        lambda q: st.builds(Answer, st.just(q.id), st.sampled_from([o.id for o in q.outcomes]), st.sampled_from(list(Witness)))
    )
    return st.lists(one, max_size=25, unique_by=lambda a: a.question)


def tape(given_answers):
    return tuple(Finding(f"f{n}", a) for n, a in enumerate(given_answers))


@pytest.fixture(scope="module", params=list(MODELS))
def family(request):
    return MODELS[request.param], network_of(MODELS[request.param])


def network_of(model):
    """The whole model as a Bayesian network: the fault, whether the disc gets home, and one node per question, source and whether somebody had been inside."""
    net = gum.BayesNet()
    net.add(gum.LabelizedVariable("fault", "", [f.id for f in model.faults]))
    net.cpt("fault").fillWith(list(model.prior))
    net.add(gum.LabelizedVariable("home", "", ["no", "yes"]))
    net.addArc("fault", "home")
    net.cpt("home")[:] = np.array([1 - model.p_home, model.p_home]).T.copy()
    for q in model.questions.values():
        for source, tampered in product(Witness, (False, True)):
            eps = unreliability(source, q, is_tampered=tampered)
            name = f"{q.id}_{source.value}_{tampered}"
            net.add(gum.LabelizedVariable(name, "", [o.id for o in q.outcomes]))
            rows = (1 - eps) * model.likelihood[q.id] + eps / len(q.outcomes)
            if source is Witness.BENCH and q.kind in (QuestionKind.BASELINE, QuestionKind.DISC_CLASS) and q.id != "repeats":
                failing = [i for i, o in enumerate(q.outcomes) if o.id in q.fails]
                rows[failing, model.fault_index["nothing_wrong"]] = 0.0  # a failure seen at the bench was tried again
                rows[:, model.fault_index["nothing_wrong"]] *= (1 - 0.004 * len(failing)) / rows[:, model.fault_index["nothing_wrong"]].sum()
                rows[failing, model.fault_index["nothing_wrong"]] = 0.004
            net.addArc("fault", name)
            if q.stage < Reach.DISC:
                net.cpt(name)[:] = rows.T.copy()
                continue
            net.addArc("home", name)
            silence = [0.97 if o.id == q.bad[-1] else 0.03 / (len(q.outcomes) - 1) for o in q.outcomes]
            away = np.tile((1 - eps) * np.array(silence)[:, None] + eps / len(q.outcomes), len(model.faults))
            for outcome, o in enumerate(q.outcomes):
                for f, fault in enumerate(model.faults):
                    net.cpt(name)[{"fault": fault.id, "home": "no", name: o.id}] = away[outcome, f]
                    net.cpt(name)[{"fault": fault.id, "home": "yes", name: o.id}] = rows[outcome, f]
    return net


@settings(max_examples=200, deadline=None, suppress_health_check=[HealthCheck.data_too_large])
@given(data=st.data())
def test_posterior_agrees_with_pyagrum_to_1e9_on_every_whole_model(family, data):
    model, network = family
    inference = gum.VariableElimination(network)
    belief = believe(tape(data.draw(answers(model))), model)
    tampered = is_tampered(belief.evidence)
    seen = {f"{q}_{o.source.value}_{tampered}": o.outcome for q, o in belief.evidence.said.items()}
    is_home = belief.evidence.far.is_home
    inference.setEvidence(seen | ({"home": "yes"} if is_home else {}))
    inference.addTarget("fault")
    p = inference.posterior("fault").toarray() / (model.p_home if is_home else 1)  # what proves that it is home is no evidence twice
    assert np.abs(p / p.sum() - belief.p).max() < 1e-9


@settings(deadline=None)
@given(given_answers=answers(), seed=st.randoms())
def test_order_of_findings_does_not_matter(given_answers, seed):
    mixed = seed.sample(given_answers, len(given_answers))
    assert np.abs(believe(tape(given_answers), MODEL).p - believe(tape(mixed), MODEL).p).max() < 1e-12


@settings(deadline=None, max_examples=40)
@given(given_answers=answers(), extra=answers())
def test_striking_a_finding_gives_back_the_former_numbers(given_answers, extra):
    before = tape(given_answers)
    struck = tuple(Finding(f"x{n}", a, is_struck=True) for n, a in enumerate(extra))
    assert np.abs(believe(before + struck, MODEL).p - believe(before, MODEL).p).max() < 1e-12


@settings(deadline=None, max_examples=30)
@given(given_answers=answers(), repeat=st.booleans())
def test_a_weight_is_what_striking_the_finding_gives_back(given_answers, repeat):
    findings = tape([*given_answers, *(given_answers[:1] if repeat else ())])
    case = Case(PAIRED, findings)
    for finding, moved in weights_of_evidence(case, MODEL, believe(findings, MODEL)).items():
        assert np.abs(moved.p_without - believe(tuple(f for f in findings if f.id != finding), MODEL).p).max() < 1e-9


TAPES = (
    "spins=cycles spins=cycles~owner clean_lens!clean*2 film_dvd=reads",
    "film_dvd=fails spins=cycles game_bd=fails spins=never replace_pickup!no_change spins=cycles",
    "spins=cycles music_cd=fails spins=holds film_dvd=reads film_dvd=fails",
    "game_bd=fails@4/6 repeats=always film_dvd=fails",
    "spins=cycles clean_lens!clean*3 warm_up=better_warm",
    "spins=cycles takes_disc=ignores~owner clean_lens!clean*3 game_bd=fails~owner",
    "spins=never mains_lost=yes replace_drive!changed takes_disc=ignores",
    "spins=cycles game_bd=reads clean_lens!no_change game_bd=fails",
    "spins=cycles game_bd=fails repeats=comes_and_goes clean_lens!clean*3",
    "spins=cycles game_bd=fails warm_up=better_warm clean_lens!changed spins=never film_dvd=fails clean_lens!clean*2",
    f"{RETRIES} replace_pickup:P1:unknown!no_change spins=cycles@4/6",
    f"{RETRIES} repeats=comes_and_goes@3/6 clean_lens!no_change replace_pickup:P1!no_change",
    f"{RETRIES} repeats=comes_and_goes@3/6 opened_before=opened clean_lens!clean*3",
    "spins=cycles opened_before=opened game_bd=fails clean_lens!changed spins=never power=yes",
    f"{RETRIES} replace_pickup:P1:unknown!worse replace_pickup:P1:new!no_change game_bd=fails~other",
    "spins=cycles@4/6 spins=cycles@1/6 clean_lens+replace_driver!no_change",
    "opened_before=opened flex_board_look=seated spins=never clean_lens!worse takes_disc=ignores",
    "spins=cycles ejects=yes clean_lens!no_change ejects=slow ejects=yes",
    "hub_look=off hub_look=off switch_home_test=works game_bd=fails clamp_look=slips game_bd=slow",
    "opened_before=opened clamp_look=slips disc_pulled=yes spin_sound=wobbles clamp_look=grips power=drops clean_lens!worse spindle_current=high",
    "trimmer_mark=no_mark tilt_look=level trimmer_mark=turned clean_lens!worse replace_pickup!changed trimmer_mark=in_line tilt_look=tilted",
)


@pytest.mark.parametrize("words", TAPES)
def test_with_trials_too_a_weight_is_what_striking_the_finding_gives_back(words):
    case = Bench(words).case
    for finding, moved in weights_of_evidence(case, MODEL, believe(case.findings, MODEL)).items():
        struck = tuple(replace(f, is_struck=f.id == finding) for f in case.findings)
        assert moved.p_without == pytest.approx(believe(struck, MODEL).p, abs=1e-9)


@settings(deadline=None, max_examples=40)
@given(given_answers=answers())
def test_no_fault_is_ever_ruled_out_and_the_leak_stays(given_answers):
    p = believe(tape(given_answers), MODEL).p
    assert p.sum() == pytest.approx(1)
    assert p.min() > 0


def test_a_repeat_replaces_the_former_answer():
    twice, once = Bench("spins=holds spins=cycles"), Bench("spins=cycles")
    assert twice.p("lens_dirty") == once.p("lens_dirty")
    assert [w.left_out for w in twice.found.weights] == ["replaced", None]


def test_two_new_pickups_without_change_move_the_suspicion_elsewhere_and_the_board_press_to_the_driver():
    swapped = f"{RETRIES} replace_pickup:P1!no_change replace_pickup:P2!no_change"
    assert Bench(swapped).found.parts[0].id != "pickup"
    assert Bench(swapped).p("part:pickup") < 0.1
    pressed = Bench(f"{swapped} press_board=reads").found
    assert (pressed.suspects[0].id, pressed.parts[0].id) == ("driver_joint", "driver")


@pytest.mark.parametrize(("healthier", "doubtful"), [(Health.PROVEN, Health.NEW), (Health.NEW, Health.UNKNOWN)])
def test_a_swap_clears_only_as_far_as_the_donor_is_good(healthier, doubtful):
    good, bad = (Bench(f"{RETRIES} replace_pickup:P1:{h}!no_change").p("pickup_405") for h in (healthier, doubtful))
    assert good < bad < Bench(RETRIES).p("pickup_405")


def test_the_same_donor_twice_is_one_bit():
    same, two = (Bench(f"{RETRIES} replace_pickup:P1:unknown!no_change replace_pickup:{p}:unknown!no_change").p("pickup_405") for p in ("P1", "P2"))
    assert same > two


def test_a_clean_trial_names_what_it_cured():
    bench = Bench(f"{RETRIES} repeats=always reseat_flex_pickup!clean*6")
    assert bench.p("flex_pickup_loose") > 0.7
    assert bench.found.p_cured > 0.9


def test_two_changes_in_one_trial_share_the_credit():
    alone, both = (Bench(f"{RETRIES} {changes}!clean*4").p("flex_pickup_loose") for changes in ("reseat_flex_pickup", "reseat_flex_pickup+clean_lens"))
    assert both < alone


def test_model_is_cut_to_the_drive():
    paired, free = compile_model(PAIRED), compile_model(FREE)
    assert {"wrong_board", "fuse_open", "pickup_405"} <= paired.fault_index.keys() - free.fault_index.keys()
    assert "refit_own_board" not in free.repair_index
    assert diagnose(Case(FREE), free).suspects


@pytest.mark.parametrize("sheet", FAMILIES.values(), ids=list(FAMILIES))
def test_every_family_is_as_wide_as_promised(sheet):
    model = MODELS[sheet.family].model
    assert len(model.faults) >= 30
    assert len(model.questions) >= 60
    assert len(model.repairs) >= 40


@pytest.mark.parametrize(
    ("more", "gone"),
    [
        ({"has_belt": False}, {"belt_slack", "belt_off"}),
        ({"has_electrolytics": False}, {"caps_leak"}),
        ({"fuse_rating": ""}, {"fuse_open"}),
        ({"has_trimmer": False}, {"trimmer_off"}),
        ({"pairing": Pairing.NONE}, {"wrong_board"}),
    ],
)
def test_the_sheet_switches_faults_off(more, gone):
    assert gone <= MODELS["tray"].fault_index.keys()
    assert not gone & compile_model(replace(TRAY, **more)).fault_index.keys()


def test_one_lid_switch_leaves_out_the_second_and_what_is_done_with_it():
    one = compile_model(replace(LID, lid_switches=1))
    assert "switch_lid_b" in MODELS["lid"].fault_index
    assert not {"switch_lid_b", "replace_switch_lid_b"} & (one.fault_index.keys() | one.repair_index.keys())


def test_a_drive_that_spins_first_makes_a_blind_pickup_spin():
    first, looks = ({s.id: s.p for s in Bench("spins=never sled_sound=seeks", replace(PAIRED, spins_first=on)).found.suspects} for on in (True, False))
    assert first["pickup_dead"] < 0.5 * looks["pickup_dead"]
