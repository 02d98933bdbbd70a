"""The steps of a repair are one list: the part, the plug, the way in, the swap plan of a paired drive, the trial."""

import json
from dataclasses import replace
from pathlib import Path

import pytest
from spindle.diagnosis.given.compiled import compile_model
from spindle.errors import SpindleError
from spindle.faults.library import MODELS
from spindle.formats.sheet_file import read_sheet
from spindle.job.kinds.step import MarkStep
from spindle.job.ledger import decide
from spindle.job.line import Line
from spindle.job.stages import Stage
from spindle.job.state import is_done, steps_of
from spindle.job.value import Proposal, SheetRef
from spindle.repairs.procedures import procedure_for
from spindle.words.bench import Depth, Power

from .house import AT, House, World

DEMO = Path(__file__).parents[2] / "demo" / "sheets"
WAY_IN = ["part_in", "plug", "cover_off", "drive_out"]
BOARD_ACROSS = ["there_photo_1", "there_own_out_1", "there_carry_board_1", "there_other_in_1", "there_keep_1"]


def repairing(variant, *, donor=None, repair="replace_drive"):
    full = read_sheet(json.loads((DEMO / f"{variant}.json").read_text(encoding="utf-8")))
    house = House([SheetRef(n, variant, 1, compile_model(full.drive), full=full) for n in (1, 2, 3)])
    body = {"repair": repair, "item": "P-9", "taking": True, "is_donor": False, "wait_days": 0.0, "donor": donor or ""}
    parts = {} if donor is None else {1: Line(1, 1, "part", body, AT, "Bram")}
    return house, replace(house.jobs["K-1"], stage=Stage.REPAIR, proposal=Proposal(repair, repair, 1, 0.9, True, 1), parts=parts)


def ids(job):
    return [s.id for s in steps_of(job)]


@pytest.mark.parametrize(("donor", "inside"), [(None, BOARD_ACROSS), ("", BOARD_ACROSS), ("D-1", [*BOARD_ACROSS[:2], "there_other_out_1", *BOARD_ACROSS[2:]])])
def test_a_paired_drive_goes_by_its_swap_plan_and_the_plan_by_where_the_other_comes_from(donor, inside):
    assert ids(repairing("VM-S41", donor=donor)[1]) == [*WAY_IN, *inside, "trial"]


@pytest.mark.parametrize(("variant", "repair"), [("BW-T14", "replace_drive"), ("VM-S41", "replace_pickup"), ("VM-S41", "clean_lens")])
def test_where_nothing_is_paired_or_no_drive_comes_the_procedure_stands(variant, repair):
    job = repairing(variant, repair=repair)[1]
    assert not [s for s in steps_of(job) if s.plan]
    assert ("part_in" in ids(job)) == (repair != "clean_lens")


def test_a_step_of_the_plan_is_its_tick_and_needs_the_plug_out():
    house, job = repairing("VM-S41", donor="")
    ask = MarkStep("there_own_out_1", True)
    (draft,) = decide(job, ask, World(house, job)).drafts
    assert (draft.kind, draft.body["plan"], draft.body["is_done"]) == ("tick", "drive", True)
    with pytest.raises(SpindleError, match="needs the mains out"):
        decide(replace(job, power=Power.LIVE), ask, World(house, job))
    step = next(s for s in steps_of(job) if s.id == "there_own_out_1")
    assert step.details
    assert not is_done(step, job)
    ticked = lambda n: replace(job, ticks={"drive:there_own_out_1": Line(n, n, "tick", {}, AT, "Bram")})  # noqa: E731
    assert is_done(step, ticked(2))
    assert not is_done(step, ticked(1))  # of the swap before this proposal


def test_a_step_that_speaks_of_taking_a_photo_asks_for_it():
    steps = [s for f, m in MODELS.items() for r in m.repairs for s in procedure_for(f, r.id).steps]
    assert [s.id for s in steps if ("Photo" in s.text) != s.asks_photo] == []
    assert [s.id for s in steps_of(repairing("VM-S41")[1]) if s.asks_photo] == ["there_photo_1"]


def test_the_part_that_lies_ready_is_a_step_done_and_how_open_it_is_already_shortens_the_way_in():
    job = repairing("VM-S41", donor="")[1]
    assert [s.id for s in steps_of(job) if is_done(s, job)] == ["part_in"]
    assert ids(replace(job, repair_depth=Depth.DRIVE_OPEN))[:3] == ["part_in", "plug", "there_photo_1"]
