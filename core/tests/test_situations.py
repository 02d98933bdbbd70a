"""Situations at a bench: what a good technician would do among the first four, and what nobody may propose."""

import tomllib
from dataclasses import replace
from pathlib import Path

import pytest
from spindle.diagnosis.explaining.diagnose import diagnose
from spindle.diagnosis.explaining.moves import MoveKind
from spindle.diagnosis.given.case import Answer, Change, Finding, Setting, Trial, TrialResult, Weight
from spindle.diagnosis.given.case import Bench as State
from spindle.diagnosis.given.compiled import compile_model
from spindle.faults.model import CANT_TELL
from spindle.words.bench import Instrument, Power, Reach

from .conftest import FAMILIES, FREE, Bench

TOLD = tomllib.loads((Path(__file__).parent / "situations.toml").read_text(encoding="utf-8"))
SITUATIONS, WHOLE = TOLD["case"], TOLD["whole"]
SHEETS = {**FAMILIES, "free": FREE}
FIRST = 4


def bench_in(case):
    bench = Bench(case["found"], SHEETS[case["family"]])
    state = State(Power(case.get("power", "out")), case.get("no_power"), frozenset(Instrument(i) for i in case.get("lacks", ())))
    bench.case = replace(bench.case, depth=case.get("depth", 0), bench=state)
    return bench


def never_in(case, model):
    """What nobody may propose: "@live" is every question with the mains in, "@dead" every one that a dark drive cannot answer."""
    every = model.questions.values()
    groups = {"@live": {q.id for q in every if q.mains == "live"}, "@dead": {q.id for q in every if q.stage >= Reach.POWER}}
    return set().union(*(groups.get(word, {word}) for word in case["never"].split()))


@pytest.mark.parametrize("case", SITUATIONS, ids=lambda c: f"{c['family']}: {c['what']}")
def test_in_this_situation(case):
    bench = bench_in(case)
    advice = bench.found.advice
    moves = [m.id for m in advice.moves]
    assert set(moves[:FIRST]) & set(case["first"].split()), moves[:FIRST]
    assert not never_in(case, bench.model) & set(moves)
    assert not set(moves) & {b.id for b in advice.barred}


def test_there_are_enough_of_each_family():
    assert len(SITUATIONS) >= 60
    assert all(sum(c["family"] == f for c in SITUATIONS) >= 15 for f in FAMILIES)


def shown(move, model, fault):
    """What the bench sees of a move on a drive with that fault, as most of them show it."""
    if move.kind is MoveKind.ASK:
        seen = model.likelihood[move.id][:, fault].argmax()
        return Answer(move.id, model.questions[move.id].outcomes[int(seen)].id)
    is_cured = model.success[model.repair_index[move.repair], fault] > 0.5
    return Trial((Change(move.repair),), TrialResult.CLEAN if is_cured else TrialResult.NO_CHANGE, 3 if is_cured else 0)


def played(told):
    """The moves of a whole job by the first of each advice, and whether each was a repair that cured."""
    bench = Bench(told.get("said", ""), FAMILIES[told["family"]])
    model, moves = bench.model, []
    fault = [f.id for f in model.faults].index(told["fault"])
    while len(moves) < 30 and not (moves and moves[-1][1]):
        move = diagnose(bench.case, model).advice.moves[0]
        what = shown(move, model, fault)
        moves.append((move, isinstance(what, Trial) and what.result is TrialResult.CLEAN))
        power = {"live": Power.LIVE, "out": Power.OUT}.get(move.mains, bench.case.bench.power)
        finding = Finding(f"w{len(moves)}", what)
        depth, state = max(bench.case.depth, move.depth), replace(bench.case.bench, power=power)
        bench.case = replace(bench.case, findings=(*bench.case.findings, finding), depth=depth, bench=state)
    return moves


@pytest.mark.parametrize("told", WHOLE, ids=lambda t: f"{t['family']}: {t['fault']}")
def test_a_whole_job_comes_to_its_end_and_buys_nothing_in_vain(told):
    *before, (last, is_cured) = played(told)
    assert (last.repair, is_cured) == (told["ends"], True)
    assert len(before) < told["steps"]
    assert not [m.id for m, _ in before if m.part_eur]


def measured(finding):
    """The same answer as a meter would give it that is quite sure; a count stays what it is."""
    plain = isinstance(finding.what, Answer) and not finding.what.failed and finding.what.outcome != CANT_TELL
    return replace(finding, what=replace(finding.what, weights=(Weight(finding.what.outcome, 1.0),))) if plain else finding


def suspects(case):
    return {s.id: s.p for s in diagnose(case, compile_model(case.sheet)).suspects}


FITTED = Setting(fitted=(Change("replace_pickup", "Q-1"),))


@pytest.mark.parametrize("fitted", [False, True])
@pytest.mark.parametrize("found", ["takes_disc=takes spins=cycles", "lens_look=hazy game_bd=fails", "spins=never fuse_test=closed"])
def test_a_weight_of_one_is_the_plain_answer_also_with_anothers_part_in_it(found, fitted):
    case = Bench(found).case
    if fitted:
        case = replace(case, findings=tuple(replace(f, what=replace(f.what, setting=FITTED)) for f in case.findings))
    assert suspects(replace(case, findings=tuple(map(measured, case.findings)))) == pytest.approx(suspects(case), abs=1e-9)


@pytest.mark.parametrize("case", SITUATIONS[::6], ids=lambda c: c["what"])
def test_a_meter_that_is_quite_sure_says_what_the_eye_says(case):
    bench = bench_in(case)
    assert suspects(replace(bench.case, findings=tuple(map(measured, bench.case.findings)))) == pytest.approx(suspects(bench.case), abs=1e-9)
