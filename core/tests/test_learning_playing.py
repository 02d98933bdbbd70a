"""Time to play, learnt from proven units: beside what the sheet says, never from a start that was slow, and judged on the next units."""

from dataclasses import replace
from math import log

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from spindle.bench.proof import proof_profile
from spindle.diagnosis.belief.ending import judge_ending
from spindle.diagnosis.given.compiled import compile_model
from spindle.drives.sheet import ReferenceTime
from spindle.job.past import past_of
from spindle.job.state import state_of
from spindle.learning.judging import BLOCK, judge
from spindle.learning.layer import Layer, Part, learn
from spindle.learning.past import Past
from spindle.learning.playing import LEAST_UNITS, MOST, learn_playing, logs_of
from spindle.learning.telling import Told, told

from .conftest import FAMILIES
from .house import ECONOMY, on_the_way

DISC = "film_dvd"
SILENT = compile_model(replace(FAMILIES["slot"], reference_times={}))
V = SILENT.sheet.variant
SAYS = ReferenceTime(20.0, 2.0, 12)
TOLD = compile_model(replace(FAMILIES["slot"], reference_times={DISC: SAYS}))


def units(*seconds):
    """Closed jobs whose unit was proven and took so long."""
    return [Past(V, "slot", 0.9, False, {}, {}, seconds={DISC: s}) for s in seconds]


def learnt(pasts, model=SILENT):
    return learn_playing(pasts, {V: model}).get((V, DISC))


def test_a_few_units_make_no_time_where_no_sheet_says_one():
    assert learnt(units(*[14.0] * (LEAST_UNITS - 1))) is None
    found = learnt(units(*[14.0] * LEAST_UNITS))
    assert (found.n, found.now.n, found.was) == (LEAST_UNITS, LEAST_UNITS, None)
    assert found.low < 14.0 < found.high
    assert found.now.mean_s == pytest.approx(14.0, rel=0.01)


@given(st.lists(st.floats(10.0, 13.0), min_size=1, max_size=40))
def test_a_sheets_own_time_is_drawn_towards_the_units_and_never_past_them(seconds):
    found, mean = learnt(units(*seconds), TOLD), float(np.mean(np.log(seconds)))
    towards, _ = logs_of(SAYS)
    weight = len(seconds) / (MOST + len(seconds))
    assert 0.5 * log(found.low * found.high) == pytest.approx(towards + weight * (mean - towards))
    assert (found.was, found.now.n) == (SAYS, round(MOST) + len(seconds))


def test_a_start_with_a_retry_says_nothing_of_what_is_usual():
    usual = units(*[14.0, 14.5, 13.6, 14.2, 13.9, 14.1])
    assert learnt([*usual, *units(27.0, 31.0)]) == learnt(usual)


def test_units_that_lie_apart_make_a_wide_time():
    near, far = (learnt(units(*[14.0 * k for k in own] * 6)) for own in ((0.99, 1.01), (0.8, 1.25)))
    assert near.now.sd_s < far.now.sd_s
    assert near.high / near.low < far.high / far.low


@pytest.mark.parametrize("other", [{"variant": "another"}, {"seconds": None}, {"seconds": {"game_bd": 14.0}}])
def test_other_drives_and_other_discs_say_nothing_of_it(other):
    assert learnt([replace(p, **other) for p in units(*[14.0] * 9)]) is None


def test_a_layer_carries_the_times_to_the_bench_and_is_taken_away_again():
    layer = learn(units(*[14.0] * 9), {V: SILENT}).layer()
    over = Layer.read(layer.written()).over(SILENT)
    assert over.sheet.reference_times[DISC].mean_s == pytest.approx(14.0, rel=0.01)
    assert over.shipped.sheet.reference_times == {}
    assert {c.question: c.reference for c in proof_profile(over.sheet, over.model, ())}[DISC] == over.sheet.reference_times[DISC]
    assert Layer(playing={V: {"no_such_disc": {"mean_s": 1.0, "sd_s": 1.0, "n": 5}}}).over(SILENT).sheet == SILENT.sheet


@pytest.mark.parametrize(("model", "mean", "is_better"), [(SILENT, 14.0, True), (TOLD, 14.0, True), (TOLD, 19.9, False)])
def test_times_are_used_where_they_foretell_the_next_units_better(model, mean, is_better):
    pasts = units(*(mean * np.exp(np.random.default_rng(3).normal(0.0, 0.1, 4 * BLOCK))))
    judged = judge(pasts, {V: model}, lambda jobs: learn(jobs, {V: model}).layer())[Part.PLAYING]
    assert (judged.n, judged.is_better) == (3 * BLOCK, is_better)


def test_units_that_nobody_timed_are_not_judged():
    pasts = [replace(p, seconds=None) for p in units(*[14.0] * 3 * BLOCK)]
    assert judge(pasts, {V: SILENT}, lambda jobs: learn(jobs, {V: SILENT}).layer())[Part.PLAYING].n == 0


@pytest.mark.parametrize(("model", "was"), [(SILENT, None), (TOLD, 20.0)])
def test_what_was_learnt_is_told_beside_what_was_said_before(model, was):
    (row,) = told(learn(units(*[14.0] * 9), {V: model}), {V: model})
    assert (row.about, row.of, row.was, row.n) == (Told.PLAYING, V, was, 9)
    assert row.low < row.now < row.high


@pytest.mark.parametrize(
    ("tries", "kept"),
    [
        ([], None),
        ([(True, 14.5)], 14.5),
        ([(True, None)], None),
        ([(False, 60.0), (True, None)], None),
        ([(False, 60.0), (True, 15.0)], 15.0),
        ([(True, 15.0), (True, 16.0)], 16.0),
    ],
)
def test_a_proven_unit_keeps_its_time_of_a_good_start_alone(monkeypatch, tries, kept):
    closed = on_the_way("slot")[-1]
    disc = next(c for c in closed.model.sheet.classes)
    more = [
        replace(closed.lines[-1], number=900 + n, kind="check", body={"is_passed": good, "seconds": s, "question": disc}) for n, (good, s) in enumerate(tries)
    ]
    job = replace(closed, lines=(*closed.lines, *more), proofs=frozenset(x.number for x in more))
    monkeypatch.setattr("spindle.job.past.judge_ending", lambda *told: replace(judge_ending(*told), verdict="proven"))
    assert past_of(state_of(job, ECONOMY)).seconds == (None if kept is None else {disc: kept})


def test_every_check_with_a_disc_of_a_class_is_timed_and_no_other():
    checks = proof_profile(SILENT.sheet, SILENT.model, (DISC, "takes_disc"))
    assert {c.question for c in checks if c.is_timed} == set(SILENT.sheet.classes)
