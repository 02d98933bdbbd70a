"""What a sheet says at the step: every row that a step or question speaks of, in words, and that it lacks one."""

import json
from pathlib import Path

import pytest
from spindle.diagnosis.given.compiled import compile_model
from spindle.drives.at_hand import QUESTIONS, STEPS, at_question, at_step
from spindle.drives.full_sheet import FullSheet
from spindle.drives.sheet import DriveSheet
from spindle.drives.tables import TABLES
from spindle.faults.library import MODELS
from spindle.formats.sheet_file import read_sheet
from spindle.repairs.procedure import steps_from
from spindle.repairs.procedures import procedure_for
from spindle.words.bench import Depth

DEMO = sorted((Path(__file__).parents[2] / "demo" / "sheets").glob("*.json"))
SHEETS = {f.stem: read_sheet(json.loads(f.read_text(encoding="utf-8"))) for f in DEMO}
STEPS_OF_ALL = {s.id for fam, m in MODELS.items() for r in m.repairs for s in steps_from(procedure_for(fam, r.id), Depth.CLOSED)}


def test_what_is_spoken_of_exists():
    assert set(STEPS) <= STEPS_OF_ALL
    assert set(QUESTIONS) <= {q.id for m in MODELS.values() for q in m.questions}
    for want in (w for wants in [*STEPS.values(), *QUESTIONS.values()] for w in wants):
        assert set(want.where) <= {c.id for c in TABLES[want.table].columns}


@pytest.mark.parametrize("variant", SHEETS)
def test_every_demo_sheet_has_what_its_procedures_and_tests_name(variant):
    full = SHEETS[variant]
    model = compile_model(full.drive)
    steps = {s.id for r in model.repairs for s in steps_from(procedure_for(full.drive.family, r.id), Depth.CLOSED)}
    assert [s for s in steps if at_step(s, full).lacks] == []
    assert [q for q in model.questions if at_question(q, full).lacks] == []


@pytest.mark.parametrize(
    ("at", "what", "text"),
    [
        (at_step, "plug", "4 min after the plug is pulled"),
        (at_step, "drive_out", "4 × cross 1, 2.5 × 6 mm: four corners"),
        (at_step, "move_follower_spring", "Follower with spring and screw: the same way round"),
        (at_step, "photo_ends_lift", "Pickup flex (lift bar): bar up with a nail, flex out straight"),
        (at_question, "trimmer_reading", "DVD trimmer (650 nm): 690 to 840 Ω, mains out; more light by less resistance, on the pickup's edge"),
        (at_question, "board_supply", "TP7 to TP1: 11.6 to 12.3 V (running, disc in)"),
        (at_question, "gears_look", "Rest position: slider hard left, both arms folded"),
    ],
)
def test_a_row_reads_as_a_technician_says_it(at, what, text):
    said = at(what, SHEETS["VM-S41"]).said
    assert text in [s.text for s in said]
    assert all(s.is_confirmed for s in said if s.text == text)


def test_a_bare_sheet_lacks_what_is_asked_and_nothing_else():
    bare = FullSheet("M", "C", "1", DriveSheet("X", "slot", classes=frozenset({"film_dvd"})))
    assert at_step("plug", bare).lacks
    assert at_step("trial", bare).lacks
    assert not at_step("cover_off", bare).lacks
