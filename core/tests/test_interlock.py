"""A bridged lid switch: nobody advises it, wherever the fault is."""

from dataclasses import replace

import pytest
from spindle.diagnosis.belief.posterior import believe
from spindle.diagnosis.given.case import Answer, Case, Finding
from spindle.diagnosis.given.compiled import compile_model
from spindle.diagnosis.given.economy import Economy
from spindle.diagnosis.planning.outlook import look_ahead, unseen
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
