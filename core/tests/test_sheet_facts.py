"""What a sheet's facts change in what is believed and proposed: each row is one fact of a drive, on and off."""

import json
from dataclasses import replace
from pathlib import Path

import pytest
from spindle.diagnosis.belief.posterior import believe
from spindle.diagnosis.evidence.gather import LeftOut, gather, read
from spindle.diagnosis.given.case import Answer, Finding, Setting
from spindle.diagnosis.given.compiled import compile_model
from spindle.drives.full_sheet import gaps
from spindle.drives.sheet import CLASS_WAVELENGTH_NM, LevelPoint, Pairing
from spindle.errors import ModelError
from spindle.faults.classes import classes_of
from spindle.formats.sheet_file import read_sheet
from spindle.repairs.procedures import procedure_on
from spindle.words.bench import Depth, Instrument

from .conftest import FAMILIES, FREE, LID, PAIRED, TRAY, Bench

ROOT = Path(__file__).parents[2]
CD_TOO = replace(PAIRED, classes=frozenset({"game_bd", "film_dvd", "music_cd"}))


def p_with(words, fault, sheet=PAIRED, **facts):
    found = {s.id: s.p for s in Bench(words, replace(sheet, **facts)).found.suspects}
    return found.get(fault, 0.0)


@pytest.mark.parametrize(
    ("words", "fault", "fact"),
    [
        ("power=no", "fuse_open", {"fuse_feeds_console": True}),
        ("takes_disc=takes spins=holds game_bd=fails film_dvd=reads", "lens_dirty", {"two_lenses": True}),
        ("takes_disc=takes spins=holds game_bd=reads film_dvd=fails", "lens_long_dirty", {"two_lenses": True}),
        ("takes_disc=takes spins=cycles level_reading=high", "pickup_405", {"level_point": LevelPoint.CURRENT}),
        ("takes_disc=takes spins=cycles level_reading=low", "pickup_405", {"level_point": LevelPoint.AMPLITUDE}),
        ("takes_disc=takes spins=holds game_bd=fails film_dvd=reads", "wrong_board", {"foreign_reads_films": True}),
    ],
)
def test_a_fact_of_the_sheet_makes_a_fault_likelier(words, fault, fact):
    assert p_with(words, fault, **fact) > 1.2 * p_with(words, fault)


def test_a_lens_that_reads_its_own_light_is_not_the_dirty_one():
    words = "takes_disc=takes spins=holds game_bd=reads film_dvd=fails lens_look=hazy"
    assert p_with(words, "lens_dirty", two_lenses=True) < 0.3 * p_with(words, "lens_dirty")


def test_a_leaning_pickup_loses_the_middle_light_first():
    rows = {q: compile_model(CD_TOO).likelihood[q][0] for q in ("game_bd", "film_dvd", "music_cd")}
    tilt = compile_model(CD_TOO).fault_index["pickup_tilt"]
    assert rows["film_dvd"][tilt] < 0.6 * min(rows["game_bd"][tilt], rows["music_cd"][tilt])


@pytest.mark.parametrize("weaker", ["layered_dvd", "burnt_dvd"])
def test_discs_that_send_back_less_are_lost_first(weaker):
    model = compile_model(replace(TRAY, classes=frozenset({"film_dvd", weaker})))
    worn = model.fault_index["pickup_650"]
    assert model.likelihood[weaker][2, worn] > model.likelihood["film_dvd"][2, worn]


def test_the_own_disc_is_the_shortest_light_of_the_game_classes():
    assert replace(PAIRED, classes=frozenset({"film_bd", "game_dvd", "game_cd"})).game_nm == 650
    assert replace(PAIRED, classes=frozenset({"film_dvd", "music_cd"})).game_nm == 650


@pytest.mark.parametrize(
    ("sheet", "fact", "gone"),
    [
        (TRAY, {"switches_without_contacts": True}, {"clean_switch_open", "clean_switch_shut", "clean_switch_sled"}),
        (PAIRED, {"pairing": Pairing.BOARD}, {"move_chip"}),
        (PAIRED, {"pairing": Pairing.UNKNOWN}, {"move_chip"}),
        (PAIRED, {}, {"spin_helped"}),
        (LID, {}, {"lens_look"}),
    ],
)
def test_what_is_no_move_on_a_drive_is_read_all_the_same(sheet, fact, gone):
    model = compile_model(replace(sheet, **fact))
    assert gone <= model.unmovable
    assert gone <= {*model.questions, *model.repair_index}


@pytest.mark.parametrize("pairing", [Pairing.BOARD, Pairing.CHIP, Pairing.UNKNOWN])
def test_an_unknown_pairing_is_treated_as_a_paired_board(pairing):
    assert {"wrong_board"} <= set(compile_model(replace(PAIRED, pairing=pairing)).fault_index)


def test_a_whole_drive_takes_its_board_along_where_nothing_is_paired():
    free, paired = (compile_model(s) for s in (FREE, PAIRED))
    row = {m: m.success[m.repair_index["replace_drive"], m.fault_index["driver_chip"]] for m in (free, paired)}
    assert row[free] > 0.9
    assert row[paired] < 0.1
    assert "own board" not in free.repairs[free.repair_index["replace_drive"]].name


@pytest.mark.parametrize(("fact", "question", "depth"), [({"board_under_deck": True}, "press_board", Depth.DECK_OUT), ({}, "press_board", Depth.COVER_OFF)])
def test_how_deep_something_lies_is_on_the_sheet(fact, question, depth):
    model = compile_model(replace(PAIRED, **fact))
    assert model.questions[question].depth is model.family_questions[question].depth is depth


def test_a_lid_drive_shows_its_lens_and_hub_with_the_lid_open():
    model = compile_model(LID)
    assert {model.questions[q].depth for q in ("lens_look", "hub_look")} == {Depth.CLOSED}


def test_an_amplitude_in_megahertz_takes_an_oscilloscope():
    wanted = {p: compile_model(replace(PAIRED, level_point=p)).questions["level_reading"].instrument for p in LevelPoint}
    assert [p for p, what in wanted.items() if what == Instrument.SCOPE] == [LevelPoint.AMPLITUDE]


@pytest.mark.parametrize(("reads_films", "reason"), [(True, None), (False, LeftOut.UNPAIRED_BOARD)])
def test_whether_a_foreign_board_says_something_of_films_is_on_the_sheet(reads_films, reason):
    model = compile_model(replace(PAIRED, foreign_reads_films=reads_films))
    findings = [Finding(q, Answer(q, "fails", setting=Setting(board="other"))) for q in ("film_dvd", "game_bd")]
    left_out = gather(read(findings, model), model).left_out
    assert (left_out.get("film_dvd"), left_out["game_bd"]) == (reason, LeftOut.UNPAIRED_BOARD)


@pytest.mark.parametrize(("shown", "chance"), [("fails", 0.8), ("stuck", 0.3), ("dead", 0.02), ("works", 0.45)])
def test_what_a_switch_does_says_whether_cleaning_mends_it(shown, chance):
    told = Bench(f"takes_disc=ignores wakes=no switch_insert_test={shown}")
    plan = told.found.outlook.plan
    a = [r.id for r in plan.repairs].index("clean_switch_insert")
    assert plan.problem.success[a, told.model.fault_index["switch_insert"]] == pytest.approx(chance)


def test_how_a_switch_fails_also_says_what_a_cleaning_in_vain_proves():
    dirty, dead = (Bench(f"takes_disc=ignores wakes=no switch_insert_test={how} clean_switch_insert!no_change").p("switch_insert") for how in ("fails", "dead"))
    assert dirty < dead - 0.1


def test_an_answer_that_is_put_right_takes_back_what_it_said_of_cures():
    model = compile_model(PAIRED)
    dead = model.given({"switch_insert_test": "dead"})
    assert dead is not model
    assert dead.given({"switch_insert_test": "works"}) is model
    assert model.given({"switch_insert_test": "dead"}) is dead


def test_what_does_not_turn_has_no_sound_of_turning():
    asked = {m.id for words in ("takes_disc=takes spins=never", "takes_disc=takes spins=cycles") for m in Bench(words).found.advice.moves}
    assert not {"spin_sound", "spin_way"} & asked
    assert {"spin_sound", "spin_way"} & {b.id for b in Bench("takes_disc=takes spins=cycles").found.advice.barred}


def test_a_gone_original_board_is_no_move():
    bench = Bench("takes_disc=takes spins=holds game_bd=fails board_match=foreign original_board=gone")
    assert "refit_own_board" not in {m.repair for m in bench.found.advice.moves}


def test_classes_that_no_sheet_can_name_are_refused():
    told = {"of": {c: {} for c in (*CLASS_WAVELENGTH_NM, "game_tape")}}
    with pytest.raises(ModelError):
        list(classes_of(told))


def test_a_dark_console_says_nothing_of_lens_and_diode():
    for family, sheet in FAMILIES.items():
        found = {s.id: s.p for s in Bench("power=no", sheet).found.suspects}
        assert found["lens_dirty"] < 0.03, family
        assert found["supply_weak"] + found["fuse_open"] + found["not_listed"] > 0.75, family


@pytest.mark.parametrize(("family", "question", "working"), [("tray", "tray_shuts", "stays"), ("slot", "takes_disc", "takes"), ("lid", "lid_starts", "starts")])
def test_what_cannot_be_is_seen_by_mistake_alone(family, question, working):
    model = compile_model(FAMILIES[family])
    place = [o.id for o in model.questions[question].outcomes].index(working)
    assert model.likelihood[question][place, model.fault_index["fuse_open"]] <= 0.003
    assert model.likelihood["spins"][0, model.fault_index["fuse_open"]] <= 0.003


def test_a_sheet_whose_key_and_facts_count_other_lenses_says_so():
    full = read_sheet(json.loads((ROOT / "demo" / "sheets" / "BW-T20.json").read_text(encoding="utf-8")))
    one = replace(full, drive=replace(full.drive, two_lenses=False))
    assert [any("lenses" in g.text for g in gaps(s)) for s in (full, one)] == [False, True]


@pytest.mark.parametrize("struck", ["f0", "f1", "f2"])
def test_a_switch_test_that_is_struck_takes_along_what_it_said_of_the_cleaning(struck):
    bench = Bench("takes_disc=ignores switch_insert_test=dead clean_switch_insert!no_change")
    ids = {f"f{n}": f.id for n, f in enumerate(bench.case.findings)}
    again = replace(bench.case, findings=tuple(replace(f, is_struck=f.id == ids[struck]) for f in bench.case.findings))
    assert bench.found.without[ids[struck]] == pytest.approx(believe(again.findings, bench.model).p, abs=1e-12)


def test_a_console_that_is_lit_again_is_read_again():
    bench = Bench("power=no power_without_drive=still_dark replace_supply!clean power=yes takes_disc=takes spins=cycles")
    left_out = believe(bench.case.findings, bench.model).evidence.left_out
    assert LeftOut.UNPOWERED not in left_out.values()


@pytest.mark.parametrize(("words", "asked"), [("power=no", True), ("power=drops", True), ("power=yes", False), ("", False)])
def test_only_a_console_that_stays_dark_is_tried_without_its_drive(words, asked):
    assert ("power_without_drive" in {m.id for m in Bench(words).found.advice.moves}) is asked


@pytest.mark.parametrize("seen", ["spin_way=races", "spin_way=backwards", "spin_sound=scrapes"])
def test_a_disc_that_was_seen_or_heard_to_turn_got_home(seen):
    bench = Bench(seen)
    assert believe(bench.case.findings, bench.model).evidence.far.is_home
    assert bench.p("load_motor") < Bench("").p("load_motor")


def test_work_on_a_board_under_the_deck_takes_the_deck_out():
    model = compile_model(replace(PAIRED, board_under_deck=True))
    on_it = {"reflow_driver", "replace_driver", "reflow_connector", "move_chip", "replace_fuse"}
    lies = [model.repairs[model.repair_index[r]] for r in on_it]
    assert {r.depth for r in lies} == {procedure_on("slot", r).depth for r in lies} == {Depth.DECK_OUT}
