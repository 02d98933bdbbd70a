"""Folding a tape, and the words of its lines: pure, as tables."""

from datetime import UTC, datetime

import pytest
from spindle.diagnosis.given.compiled import compile_model
from spindle.formats.drive_facts import read_drive
from spindle.job.asking import Speech
from spindle.job.ledger import fold, says
from spindle.job.line import Line
from spindle.job.value import SheetRef, Start
from spindle.words.bench import Depth

DRIVE = {"variant": "VM-S41", "family": "slot", "pairing": "board", "classes": ["game_bd", "film_dvd"], "fuse_rating": "1.5 A fast"}
MODEL = compile_model(read_drive(DRIVE, "/drive"))
AT = datetime(2026, 3, 1, 9, 0, tzinfo=UTC)

ANSWER = ("answer", {"question": "spins", "outcome": "cycles", "source": "bench"})
CLEAN = ("trial", {"changes": [{"repair": "clean_lens", "item": "", "health": "proven"}], "result": "clean", "clean_passes": 1})
PROPOSAL = ("proposal", {"repair": "clean_lens", "name": "Clean the lens", "total_cents": 3330, "p_success": 0.4})
GOOD, BAD = ("pass", {"is_clean": True}), ("pass", {"is_clean": False})
CHECK_OK = ("check", {"check": "eject_loaded", "title": "Ejects", "is_passed": True})
CHECK_BAD = ("check", {"check": "eject_loaded", "title": "Ejects", "is_passed": False})
STEP = ("step", {"step": "dry", "text": "Dry", "is_done": True, "fuse": ""})
UNSTEP = ("step", {"step": "dry", "text": "Dry", "is_done": False, "fuse": ""})


START = Start("K-0001", SheetRef(1, "VM-S41", 1, MODEL))


def record(*told):
    return fold(START, (Line(n, n, kind, body, AT, "bram") for n, (kind, body) in enumerate(told, start=1)))


def strike(line):
    return ("strike", {"line": line, "why": ""})


def restore(line):
    return ("restore", {"line": line})


@pytest.mark.parametrize(
    ("told", "struck"),
    [
        ([ANSWER], [False]),
        ([ANSWER, strike(1)], [True]),
        ([ANSWER, strike(1), restore(1)], [False]),
        ([ANSWER, strike(1), restore(1), strike(1)], [True]),
        ([ANSWER, ANSWER, strike(1)], [True, False]),
    ],
)
def test_strikes_and_restores(told, struck):
    assert [f.is_struck for f in record(*told).findings] == struck


@pytest.mark.parametrize(
    ("told", "result", "passes", "clean_passes"),
    [
        ([PROPOSAL, CLEAN], "clean", 0, 1),
        ([PROPOSAL, CLEAN, GOOD, GOOD], "clean", 2, 3),
        ([PROPOSAL, CLEAN, GOOD, BAD], "no_change", 0, 2),
        ([PROPOSAL, CLEAN, CHECK_BAD], "no_change", 0, 1),
        ([PROPOSAL, CLEAN, CHECK_OK, GOOD], "clean", 1, 2),
        ([PROPOSAL, CLEAN, GOOD, BAD, CLEAN], "clean", 0, 1),
    ],
)
def test_the_proof_amends_the_trial_it_proves(told, result, passes, clean_passes):
    found = record(*told)
    assert (found.trial_since_proposal.result, found.passes, found.trial_since_proposal.clean_passes) == (result, passes, clean_passes)
    assert found.findings[-1].what == found.trial_since_proposal


@pytest.mark.parametrize(
    ("told", "done"), [([STEP], {"dry"}), ([STEP, UNSTEP], set()), ([STEP, UNSTEP, STEP], {"dry"}), ([STEP, PROPOSAL], set()), ([PROPOSAL, STEP], {"dry"})]
)
def test_steps_belong_to_the_proposal_they_follow(told, done):
    assert set(record(*told).steps) == done


def test_a_new_proposal_begins_the_proof_anew():
    found = record(PROPOSAL, CLEAN, CHECK_OK, GOOD, PROPOSAL)
    assert (found.checks, found.passes, found.trial_since_proposal) == ({}, 0, None)


def test_a_struck_trial_proves_nothing():
    assert record(PROPOSAL, CLEAN, strike(2)).trial_since_proposal is None


@pytest.mark.parametrize(("origin", "depth"), [("agree", Depth.DRIVE_OPEN), ("prove", Depth.CLOSED)])
def test_the_repair_starts_as_deep_as_it_was_agreed(origin, depth):
    assert record(("stage", {"from": origin, "to": "repair", "depth": 2})).repair_depth is depth


SAID = [
    (ANSWER, "Spins and stops, again and again"),
    (("answer", {"question": "spins", "outcome": "cycles", "source": "owner"}), "Owner says: Spins and stops, again and again"),
    (("answer", {"question": "spins", "outcome": "holds", "source": "remembered"}), "Remembered: Spins up once and holds"),
    (("answer", {"question": "spins", "outcome": "cant_tell", "source": "bench"}), "Disc home: does it spin, and hold? Can't tell"),
    (
        ("answer", {"question": "spins", "outcome": "cycles", "source": "bench", "tries": 6, "failed": 3}),
        "Spins and stops, again and again (3 of 6 tries failed)",
    ),
    (("answer", {"question": "music_cd", "outcome": "fails", "source": "bench"}), "Does not read a music CD"),
    (CLEAN, "Tried: clean the lens: works"),
    (
        ("trial", {"changes": [{"repair": "replace_pickup", "item": "P-1", "health": "unknown"}, {"repair": "clean_lens"}], "result": "no_change"}),
        "Tried: replace the bare pickup (doubtful part, P-1) and clean the lens: no change",
    ),
    (("remark", {"text": "hm"}), "hm"),
    (strike(4), "Struck line 4"),
    (restore(4), "Line 4 stands again"),
    (("mains", {"is_live": True}), "Mains live"),
    (("depth", {"depth": 1}), "Unit cover off"),
    (("stage", {"from": "repair", "to": "isolate", "depth": 2, "why": "no change"}), "Repair → Isolate: no change"),
    (PROPOSAL, "Proposed: Clean the lens, €33.30"),
    (("proposal", {"repair": "", "name": "", "total_cents": 0}), "Proposed: hand it back as it is"),
    (("consent", {"is_agreed": True, "amount_cents": 5000, "by_name": "Wenna", "how": "by phone"}), "Wenna agreed to €50.00, by phone"),
    (("consent", {"is_agreed": False, "amount_cents": 0, "by_name": "Wenna", "how": "by phone"}), "Wenna did not agree, by phone"),
    (STEP, "Done: Dry"),
    (UNSTEP, "Not done after all: Dry"),
    (("step", {"step": "fit", "text": "Fit it", "is_done": True, "fuse": "1.5 A fast"}), "Done: Fit it Fuse fitted: 1.5 A fast"),
    (CHECK_BAD, "Failed: Ejects"),
    (GOOD, "Clean pass"),
    (BAD, "Pass failed"),
    (("intake", {"what": ["spending limit", "supply"]}), "Noted at the counter: spending limit, supply"),
]


@pytest.mark.parametrize(("line", "text"), SAID, ids=[text[:30] for _, text in SAID])
def test_a_line_in_plain_words(line, text):
    assert says(Line(1, 1, *line, AT, "bram"), Speech(record())) == text
