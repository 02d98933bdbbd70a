"""A bridged lid switch: nobody advises it, wherever the fault is, and a unit that comes back has it still."""

from dataclasses import replace
from datetime import UTC, datetime

import pytest
from spindle.diagnosis.belief.posterior import believe
from spindle.diagnosis.given.case import Answer, Case, Finding
from spindle.diagnosis.given.compiled import compile_model
from spindle.diagnosis.given.economy import Economy
from spindle.diagnosis.planning.outlook import look_ahead, unseen
from spindle.formats.case_file import read_what, write_what
from spindle.job.interlocks import bridged, interlocks_left
from spindle.job.ledger import fold
from spindle.job.line import Line
from spindle.job.value import Start
from spindle.repairs.procedures import procedure_for

from .house import SHEETS

MODEL = SHEETS["lid"][0].model
BRIDGES = [r.id for r in MODEL.repairs if r.only_after]


def test_two_switches_can_each_be_bridged_and_one_alone_never():
    assert BRIDGES == ["bridge_switch_lid_a", "bridge_switch_lid_b"]
    one = compile_model(replace(MODEL.sheet, lid_switches=1))
    assert not [r for r in one.repairs if r.only_after]


@pytest.mark.parametrize("broken", ["a", "b"])
def test_nobody_advises_it(broken):
    other = "b" if broken == "a" else "a"
    said = (Answer("power", "yes"), Answer(f"switch_lid_{broken}_test", "fails"), Answer(f"switch_lid_{other}_test", "works"))
    case = Case(MODEL.sheet, tuple(Finding(str(n), a) for n, a in enumerate(said)), economy=Economy())
    outlook = look_ahead(case, MODEL, believe(case.findings, MODEL))
    for at in (outlook.position, unseen(MODEL, outlook.plan)):
        assert not [r for r in BRIDGES if at.free[MODEL.repair_index[r]]]


@pytest.mark.parametrize("repair", BRIDGES)
def test_it_says_what_it_costs_and_is_written_on_the_unit(repair):
    procedure = procedure_for("lid", repair)
    assert "laser" in procedure.alters_unit
    assert "one remains" in procedure.alters_unit
    assert any("Label inside the lid" in s.text for s in procedure.steps)


def job_with(trials, left=frozenset()):
    at = datetime(2026, 3, 2, tzinfo=UTC)
    bodies = [{"changes": [{"repair": r, **more}], "result": result} for r, result, more in trials]
    lines = [Line(n, n, "trial", write_what(read_what("trial", b, "")), at, "Bram") for n, b in enumerate(bodies, 1)]
    return fold(Start("K-0001", SHEETS["lid"][0], bridged=left), lines)


A, B = "bridge_switch_lid_a", "bridge_switch_lid_b"


@pytest.mark.parametrize(
    ("left", "trials", "stays"),
    [
        ({A}, [], {A}),
        ({A}, [(B, "clean", {})], {A, B}),
        ({A}, [("replace_switch_lid_a", "clean", {})], set()),
        ({A}, [("replace_switch_lid_b", "clean", {})], {A}),
        ({A}, [("replace_switch_lid_a", "no_change", {})], {A}),
        ({A}, [("clean_switch_lid_a", "clean", {})], {A}),
        ((), [(A, "no_change", {})], set()),
        ((), [(A, "no_change", {"stays": True})], {A}),
        ((), [("replace_switch_lid_a", "clean", {}), (A, "clean", {})], {A}),
        ((), [("a_repair_no_longer_known", "clean", {}), (A, "clean", {})], {A}),
        ({"bridge_of_a_model_no_longer_known"}, [("replace_switch_lid_a", "clean", {})], {"bridge_of_a_model_no_longer_known"}),
    ],
)
def test_a_bridge_stays_until_a_new_switch_takes_its_place(left, trials, stays):
    assert bridged(job_with(trials, frozenset(left))) == stays


@pytest.mark.parametrize(("left", "repair", "stays"), [((), A, 1), ({A}, A, 1), ({A}, B, 0)])
def test_what_an_earlier_job_bridged_counts(left, repair, stays):
    job = job_with([], frozenset(left))
    assert interlocks_left(job, MODEL.repairs[MODEL.repair_index[repair]]) == stays
