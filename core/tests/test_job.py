"""Folding a tape, and the words of its lines: pure, as tables."""

from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from types import SimpleNamespace

import pytest
from spindle.diagnosis.given.case import Change, Trial, TrialResult
from spindle.diagnosis.given.compiled import compile_model
from spindle.errors import CaseError, ModelError, NotNowError
from spindle.formats.drive_facts import read_drive
from spindle.job.asking import NOTHING_CHANGES, OPEN, AskKind, Decision, LineKind, Needs, Speech, one
from spindle.job.effects import ShelfPiece
from spindle.job.hazards import HAZARDS
from spindle.job.kinds.custody import TakeOutOwn
from spindle.job.ledger import ASKS, KINDS, after, decide, fold, register, says
from spindle.job.line import Draft, Line
from spindle.job.state import steps_of
from spindle.job.taking_in import opening
from spindle.job.value import Notes, SheetRef, Start, level_of
from spindle.repairs.procedures import PROCEDURES
from spindle.words.bench import Depth
from spindle.words.health import Health

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


NOW = SimpleNamespace(now=AT)
START = Start("K-0001", SheetRef(1, "VM-S41", 1, MODEL))


def record(*told, sheet=None):
    start = START if sheet is None else replace(START, sheet=sheet)
    return fold(start, (Line(n, n, kind, body, AT, "bram") for n, (kind, body) in enumerate(told, start=1)))


CAPPED = replace(START.sheet, model=compile_model(read_drive({**DRIVE, "has_electrolytics": True}, "/drive")))


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
    (("proposal", {"repair": "", "name": "", "total_cents": 0}), "Proposed: Hand it back: as it is"),
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


OPENED = [("step", {"step": i, "text": i, "is_done": True, "fuse": ""}) for i in ("plug", "cover_off", "drive_out", "wipe")]
DEEP = ("depth", {"depth": 2})


@pytest.mark.parametrize(("depth", "left"), [(2, {"plug", "cover_off", "drive_out", "wipe"}), (1, {"plug", "cover_off", "wipe"}), (0, {"plug", "wipe"})])
def test_what_is_shut_again_has_to_be_opened_again(depth, left):
    found = record(PROPOSAL, ("stage", {"from": "agree", "to": "repair", "depth": 2}), DEEP, *OPENED, ("depth", {"depth": depth}))
    assert (set(found.steps), found.depth, found.repair_depth) == (left, depth, depth)
    assert record(PROPOSAL, *OPENED, DEEP).steps.keys() == {"plug", "cover_off", "drive_out", "wipe"}


def test_a_repair_that_begins_again_has_its_way_in_before_it_again_and_what_was_done_still_done():
    again = record(PROPOSAL, *OPENED, ("stage", {"from": "repair", "to": "agree", "depth": 0}), ("stage", {"from": "agree", "to": "repair", "depth": 0}))
    assert set(again.steps) == {"plug", "wipe"}  # the plug is out
    assert set(record(PROPOSAL, *OPENED, ("stage", {"from": "repair", "to": "isolate", "depth": 0})).steps) >= {"plug", "wipe"}


def wetting():
    return next(("step", {"step": s.id, "text": s.text, "is_done": True, "fuse": ""}) for s in steps_of(record(PROPOSAL)) if "solvent" in s.cautions)


@pytest.mark.parametrize(
    ("then", "wet"), [([], {"lens"}), ([("mains", {"state": "live"})], set()), ([("mains", {"state": "standby"})], {"lens"}), ([STEP], {"lens"})]
)
def test_what_was_wetted_is_wet_until_somebody_makes_the_mains_live(then, wet):
    found = record(PROPOSAL, wetting(), *then)
    assert found.wet == {MODEL.repairs[MODEL.repair_index["clean_lens"]].part for _ in wet}
    assert record(PROPOSAL, STEP).wet == frozenset()


def done(step, is_done=True):
    return ("step", {"step": step, "text": step, "is_done": is_done, "fuse": ""})


CAPS, FUSE = (("proposal", {"repair": r, "name": r, "total_cents": 0, "p_success": 0.4}) for r in ("replace_caps", "replace_fuse"))
LIFTED = ("hold", {"event": "lifted", "code": "wet", "by_name": "Bram", "why": "thumb test"})
TESTED = ("hold", {"event": "cleared", "code": "soldered", "says": "no short"})
RATTLES, SILENT = (("answer", {"question": "rattle", "outcome": o, "source": "bench"}) for o in ("rattles", "silent"))
HELD = [
    ([], 0, []),
    ([RATTLES], 9_999, ["rattle"]),
    ([RATTLES, SILENT], 0, []),
    ([RATTLES, strike(1)], 0, []),
    ([RATTLES, SILENT, strike(2)], 0, ["rattle"]),
    ([SILENT, RATTLES], 0, ["rattle"]),
    ([PROPOSAL, done("blow_dust_away")], 0, ["wet"]),
    ([PROPOSAL, done("blow_dust_away")], 4, ["wet"]),
    ([PROPOSAL, done("blow_dust_away")], 5, []),
    ([PROPOSAL, done("blow_dust_away"), done("let_dry_five")], 0, []),
    ([PROPOSAL, done("blow_dust_away"), done("let_dry_five"), done("let_dry_five", False)], 0, ["wet"]),
    ([PROPOSAL, done("blow_dust_away"), done("blow_dust_away", False)], 0, ["wet"]),
    ([PROPOSAL, done("blow_dust_away"), LIFTED], 0, []),
    ([PROPOSAL, done("blow_dust_away"), LIFTED, done("blow_dust_away")], 0, ["wet"]),
    ([PROPOSAL, done("blow_dust_away"), PROPOSAL], 0, ["wet"]),
    ([FUSE, done("mains_measure_fed"), done("new_fuse_sheet")], 9_999, ["soldered"]),
    ([FUSE, done("new_fuse_sheet"), done("mains_measure_fed")], 0, []),
    ([FUSE, done("new_fuse_sheet"), TESTED], 0, []),
    ([CAPS, done("value_group_time")], 9_999, ["soldered", "polarity"]),
    ([CAPS, done("value_group_time"), done("polarity_seen_twice")], 0, ["soldered"]),
    ([CAPS, done("value_group_time"), done("polarity_seen_twice"), done("mains_measure_fed")], 0, []),
]


@pytest.mark.parametrize(("told", "minutes", "held"), HELD)
def test_what_keeps_the_power_off_and_until_when(told, minutes, held):
    assert [h.code for h in record(*told, sheet=CAPPED).hazards(AT + timedelta(minutes=minutes))] == held


@pytest.mark.parametrize("family", PROCEDURES)
def test_whoever_solders_the_board_tests_for_a_short_and_what_is_wetted_is_let_dry(family):
    for procedure in PROCEDURES[family].values():
        opened = [code for s in procedure.steps for code in s.opens]
        assert {*opened, *(c for s in procedure.steps for c in s.clears)} <= set(HAZARDS)
        assert all("solvent" in s.cautions for s in procedure.steps if "wet" in s.opens)
        assert "wet" not in opened or any("wet" in s.clears for s in procedure.steps) or "Flux off" in str(procedure.steps)
        assert all(s.opens for s in procedure.steps if "solder" in s.cautions and any("short" in x.cautions for x in procedure.steps))


@pytest.mark.parametrize(("step", "text", "shown"), [(0, None, "plug"), (3, "A step of a former list", "place_3")])
def test_a_step_of_an_older_line_is_known_by_its_text(step, text, shown):
    text = text or next(s.text for s in steps_of(record(PROPOSAL)) if s.id == "plug")
    assert set(record(PROPOSAL, ("step", {"step": step, "text": text, "is_done": True, "fuse": ""})).steps) == {shown}


@pytest.mark.parametrize(("n", "letters"), [(0, "A"), (25, "Z"), (26, "AA"), (51, "AZ"), (52, "BA"), (701, "ZZ"), (702, "AAA")])
def test_own_parts_are_lettered_without_end(n, letters):
    out = [("custody", {"event": "out", "tag": f"K-{k}", "name": "Lid", "place": "x", "level": "lid"}) for k in range(n)]
    decision = decide(record(*out), TakeOutOwn("lid", "tray"), NOW)
    assert decision.drafts[0].body == {"event": "out", "tag": f"K-0001-{letters}", "name": "Lid", "place": "tray", "level": "lid"}


@pytest.mark.parametrize(("body", "level"), [({"level": "lid", "name": "Lid"}, "lid"), ({"name": "Lid"}, "lid"), ({"name": "Wing"}, "")])
def test_the_level_of_an_own_part_is_known_from_older_lines_too(body, level):
    assert level_of(Line(1, 1, "custody", body, AT, "bram")) == level


def test_the_condition_at_the_counter_opens_the_tape_with_what_this_family_knows():
    start = replace(START, notes=Notes(condition={"rattle": "rattles", "marks": "ring"}))
    drafts = opening(fold(start, ())).drafts
    assert {(d.kind, d.body["question"], d.body["source"]) for d in drafts} >= {("answer", "rattle", "bench")}
    assert opening(record()).drafts == ()


@pytest.mark.parametrize("line", [("riddle", {}), ("depth", {}), ("depth", {"depth": 9}), ("strike", {}), ("answer", {"question": "spins"})])
def test_a_line_that_cannot_be_read_is_named(line):
    with pytest.raises(CaseError, match=r"line 2|/tape/2"):
        record(ANSWER, line)


def test_a_line_knows_who_wrote_it_and_one_ask_is_one_version():
    job = after(record(ANSWER), Decision((Draft("remark", {"text": "a"}), Draft("remark", {"text": "b"}))), at=AT, by="nia")
    assert [(x.number, x.version, x.by, x.at) for x in job.lines[1:]] == [(2, 2, "nia", AT), (3, 2, "nia", AT)]
    assert after(job, NOTHING_CHANGES, at=AT, by="nia") is job


def test_what_the_shelf_knows_of_a_part_goes_into_the_trial_and_seen_beats_remembered():
    class Shelf:
        now = AT

        def piece(self, tag, _level):
            return ShelfPiece(tag, "pickup", Health.UNKNOWN, frozenset({"spins"}), frozenset({"reads"}), is_here=True, price_cents=250)

    ask = Trial((Change("replace_pickup", "p-1", works=frozenset({"reads", "seeks"}), fails=frozenset({"spins", "loads"})),), TrialResult.NO_CHANGE)
    taken, trial = decide(record(("mains", {"state": "live"}), DEEP), ask, Shelf()).drafts
    change = trial.body["changes"][0]
    assert (change["item"], change["health"], set(change["works"]), set(change["fails"])) == ("P-1", "unknown", {"seeks", "spins"}, {"loads", "reads"})
    assert (taken.body["price_eur"], taken.body["works"], taken.body["fails"]) == (2.5, ["spins"], ["reads"])


def test_a_made_up_kind_of_line_needs_one_module_and_is_asked_folded_and_said():
    @dataclass(frozen=True)
    class Smell:
        of: str

    kind = LineKind(
        "smell", lambda body, _: f"Smell of {body['of']}", lambda job, line: replace(job, looks={**job.looks, "smell": line.body["of"]}),
        (AskKind("note_smell", Smell, lambda _job, ask, _world: one("smell", {"of": ask.of}), Needs(OPEN)),),
    )  # fmt: skip
    register(kind)
    try:
        job = after(record(), decide(record(), Smell("lens"), NOW), at=AT, by="bram")
        assert (job.looks, says(job.lines[0], Speech(job)), job.version) == ({"smell": "lens"}, "Smell of lens", 1)
        with pytest.raises(ModelError):
            register(kind)
        with pytest.raises(NotNowError):
            decide(record(("stage", {"from": "hand_back", "to": "closed", "depth": 0})), Smell("lens"), NOW)
    finally:
        KINDS.pop("smell")
        ASKS.pop(Smell)
