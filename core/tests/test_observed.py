"""What counts as evidence where the same thing was tried several times, power was lost, or somebody changed a part by the way."""

from dataclasses import replace

import numpy as np
import pytest
from spindle.bench.classes import matrix_summary
from spindle.diagnosis.belief.likelihood import answer_log_likelihood
from spindle.diagnosis.belief.posterior import believe
from spindle.diagnosis.evidence.gather import LeftOut, gather, read
from spindle.diagnosis.evidence.observation import observed
from spindle.diagnosis.explaining.diagnose import diagnose
from spindle.diagnosis.given.case import Answer, Case, Finding, Stock
from spindle.diagnosis.given.compiled import compile_model
from spindle.diagnosis.given.economy import Economy
from spindle.diagnosis.given.rows import faults_named
from spindle.errors import ModelError
from spindle.faults import reading
from spindle.faults.library import MODELS
from spindle.faults.model import CANT_TELL
from spindle.faults.reading import read_family
from spindle.shipped import read_toml
from spindle.words.health import Health

from .conftest import FAMILIES, LID, PAIRED, RETRIES, Bench, p_of

MODEL = compile_model(PAIRED)
SEEN = [  # the tape, what counts for "spins", and whether that is a failure
    ("spins=never", ("never",), True),
    ("spins=never spins=holds@1/2", ("never",), True),
    ("spins=never spins=holds", ("holds",), False),
    ("spins=cycles spins=never@2/2 spins=holds@2/3", ("never",), True),
    ("spins=holds@0/4", ("holds",), False),
    ("spins=holds spins=never@1/2", ("never",), True),
]


@pytest.mark.parametrize(("words", "shows", "fails"), SEEN)
def test_a_stage_that_failed_at_any_try_has_failed_as_it_was_seen_to(words, shows, fails):
    seen = Bench(words).case.findings
    found = gather(read(seen, MODEL), MODEL).said["spins"]
    assert (found.shows, found.is_failure, found.finding) == (shows, fails, seen[-1].id)


def test_a_drive_that_never_spun_does_not_spin_because_it_did_once():
    once, again = (p_of(f"takes_disc=takes {words}", "spindle_motor") for words in ("spins=never", "spins=never spins=holds@1/2"))
    held = p_of("takes_disc=takes spins=holds", "spindle_motor")
    assert min(once, again) > 3 * held


def test_a_count_without_its_failure_may_be_any_failure():
    question = MODEL.questions["spins"]
    seen = observed("f", Answer("spins", "holds", tries=6, failed=2), question, 0)
    assert seen.shows == question.fails
    rows = MODEL.likelihood["spins"][[[o.id for o in question.outcomes].index(f) for f in question.fails]]
    guess = 0.03 * len(question.fails) / len(question.outcomes)
    told = np.exp(answer_log_likelihood(seen, MODEL, is_home=True))
    assert told[MODEL.sound == 0] == pytest.approx((0.97 * rows.sum(axis=0) + guess)[MODEL.sound == 0])


def test_a_class_that_failed_once_in_two_is_not_said_to_read():
    said = gather(read(Bench("film_bd=fails film_bd=reads@1/2 film_dvd=reads").case.findings, MODEL), MODEL).said
    text = matrix_summary({q: o.outcome for q, o in said.items()}, PAIRED)
    assert text.startswith("405 nm fails, 650 nm reads")


def test_power_lost_by_our_own_step_takes_along_only_what_came_after():
    bench = Bench("power=yes takes_disc=takes spins=cycles clean_lens!no_change power=no nudges_out=yes")
    evidence = gather(read(bench.case.findings, MODEL), MODEL)
    assert evidence.left_out["f5"] is LeftOut.UNPOWERED
    assert set(evidence.news) == {"power"}
    assert {"takes_disc", "spins"} <= set(evidence.answers)
    p = believe(bench.case.findings, MODEL).p
    assert sum(p[i] for i, f in enumerate(MODEL.faults) if f.opened_by) > 0.2


def test_a_failed_trial_is_a_failed_try():
    counted = Bench("spins=cycles@2/4 clean_lens!no_change clean_lens!worse").case.findings
    steady = believe(counted, MODEL).steadiness
    assert (steady.failed, steady.tries) == (4, 6)


@pytest.mark.parametrize(
    ("sheet", "question", "repair"),
    [(PAIRED, "driver_heat=cold", "replace_fuse"), (PAIRED, "flex_pickup_look=loose", "replace_pickup")],
    ids=["its rows name a group", "opening reseats it"],
)
def test_an_answer_ages_by_all_that_a_change_touched(sheet, question, repair):
    bench = Bench(f"takes_disc=takes spins=cycles {question} {repair}!changed", sheet)
    assert gather(read(bench.case.findings, bench.model), bench.model).left_out.get("f2") is LeftOut.OLDER_THAN_CHANGE


@pytest.mark.parametrize("word", ["diode:gmae", "@nowhere", "no_such_fault", "diode:not"])
def test_a_word_that_names_no_fault_is_refused(word):
    with pytest.raises(ModelError):
        list(faults_named(word, MODELS["slot"], PAIRED))


def test_priors_of_unknown_faults_are_refused(monkeypatch):
    monkeypatch.setattr(
        reading, "read_toml", lambda package, name: {**(real := read_toml(package, name)), "priors": {"gremlin": 0.1, **real.get("priors", {})}}
    )
    with pytest.raises(ModelError, match="gremlin"):
        read_family("slot")


@pytest.mark.parametrize("sheet", FAMILIES.values(), ids=list(FAMILIES))
def test_a_case_with_nothing_left_to_ask_and_a_bench_that_costs_nothing_are_answered(sheet):
    model = compile_model(sheet)
    findings = tuple(Finding(q, Answer(q, CANT_TELL)) for q in model.questions)
    found = diagnose(Case(sheet, findings, economy=Economy(rate_eur_per_min=0.0)), model)
    assert found.advice.moves
    assert all(m.expected_eur < float("inf") for m in found.advice.moves)


def test_moves_have_ids_of_their_own_also_from_one_donor():
    sheet = replace(LID)
    model = compile_model(sheet)
    stock = tuple(Stock(r, "D-1 switch", Health.UNKNOWN, is_donor=True) for r in ("replace_switch_lid_a", "replace_switch_lid_b"))
    ids = [m.id for m in diagnose(Case(sheet, stock=stock), model).advice.moves]
    assert sum(i.startswith("swap:") for i in ids) == 2
    assert len(set(ids)) == len(ids)


@pytest.mark.parametrize("words", ["spins=cycles@2/4", "spins=cycles clean_lens!clean"])
def test_how_often_is_not_asked_once_it_was_counted_or_works(words):
    asked = {m.id for m in Bench(f"takes_disc=takes {words}").found.advice.moves}
    assert "repeats" not in asked
    assert "repeats" in {m.id for m in Bench(f"{RETRIES}").found.advice.moves}


def test_pressing_the_lid_that_helps_speaks_for_the_lid_not_against_it():
    question = compile_model(LID).questions["lid_hold"]
    assert question.bad == ("starts",)
