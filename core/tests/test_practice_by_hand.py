"""Opening, shutting and the mains by hand on a practice unit; and lessons on the drive of a sheet."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from spindle.diagnosis.given.compiled import compile_model
from spindle.diagnosis.planning.problem import depth_in, is_live_in
from spindle.drives.sheet import Pairing, PartPrice
from spindle.errors import InvalidError, NotNowError
from spindle.practice.advice import careful
from spindle.practice.debrief import scored
from spindle.practice.hands import FORGOTTEN, LOOK_MIN, OVERDRIVEN
from spindle.practice.hidden import suits
from spindle.practice.learners import played
from spindle.practice.lessons import LESSONS
from spindle.practice.session import after, begin, replay
from spindle.practice.state import Care, Do, Move, repair_cost
from spindle.study.worlds import SHEETS
from spindle.words.bench import Mains

OPEN, SHUT, LIVE, OUT = Move(Do.OPEN, "drive_open"), Move(Do.OPEN, "closed"), Move(Do.MAINS, mains=Mains.LIVE), Move(Do.MAINS, mains=Mains.OUT)
LOOKED = replace(SHUT, care=frozenset({Care.LOOK_OVER}))
DEPTHS = {"closed": 0, "cover_off": 1, "drive_open": 2, "deck_out": 3}
HANDS = [OPEN, SHUT, LOOKED, LIVE, OUT, Move(Do.OPEN, "cover_off"), Move(Do.OPEN, "deck_out")]


def made(session, *moves):
    for move in moves:
        session = after(session, move)
    return session


def test_who_opens_first_pays_the_same_in_two_steps():
    found = begin("retries", 1)
    look = Move(Do.LOOK, "lens_look")
    at_once, by_hand = made(found, look), made(found, OPEN, look)
    assert by_hand.cost_eur == pytest.approx(at_once.cost_eur)
    assert by_hand.at.state == at_once.at.state
    assert by_hand.done[-1].minutes < by_hand.done[0].minutes


def refusal(session, move):
    """Why a hand's move may not be now, as it is and as it should be by the unit's state."""
    depth, is_live = depth_in(session.at.state), is_live_in(session.at.state)
    is_so = depth == DEPTHS.get(move.what) if move.do is Do.OPEN else is_live == (move.mains is Mains.LIVE)
    wanted = "as_it_is" if is_so else "live" if move.do is Do.OPEN and is_live else ""
    try:
        after(session, move)
    except NotNowError as error:
        return error.params["reason"], wanted
    return "", wanted


@given(st.lists(st.sampled_from(HANDS), max_size=8), st.integers(0, 500))
@settings(max_examples=60, deadline=None)
def test_hands_do_what_they_say_and_nothing_is_opened_under_power(moves, seed):
    found = begin("any_slot", seed)
    for move in moves:
        reason, wanted = refusal(found, move)
        assert reason == wanted
        was, found = found, found if reason else after(found, move)
        assert (found.hidden.units == was.hidden.units) == (found is was or found.done[-1].mishap == "")
        assert found is was or found.done[-1].eur > 0
    assert replay("any_slot", seed, [d.move for d in found.done]).done == found.done


def test_a_flex_is_forgotten_now_and_then_by_who_shuts_without_looking_and_never_by_who_looks():
    hasty, looked = ([made(begin("any_slot", n), OPEN, shut).done[-1] for n in range(80)] for shut in (SHUT, LOOKED))
    forgot = [d for d in hasty if d.mishap]
    assert {(d.mishap, d.beside.traps) for d in forgot} == {(FORGOTTEN, ("T17",))}
    assert 2 <= len(forgot) <= 16
    assert not any(d.mishap for d in looked)
    assert looked[0].minutes == pytest.approx(hasty[0].minutes + LOOK_MIN)


def test_only_what_was_open_can_be_forgotten():
    assert not any(made(begin("any_slot", n), Move(Do.OPEN, "cover_off"), SHUT).done[-1].mishap for n in range(80))


def test_mains_with_something_loose_inside_is_a_trap():
    found = begin("something_loose", 1)
    told = after(replace(found, answers={**found.answers, "rattle": "rattles"}), LIVE).done[-1]
    assert told.beside.traps == ("T35",)


@pytest.mark.parametrize(("move", "place"), [(Move(Do.OPEN, "sideways"), "what"), (Move(Do.MAINS), "mains")])
def test_what_no_hand_can_do_is_refused(move, place):
    with pytest.raises(InvalidError) as refused:
        after(begin("first_unit", 1), move)
    assert refused.value.params["place"] == place


def test_opening_for_nothing_is_laid_beside_the_planner_and_opening_for_its_own_look_costs_nothing():
    found = begin("retries", 1, is_judged=True)
    far = after(found, Move(Do.OPEN, "deck_out")).done[-1]
    assert 0 < far.beside.regret_eur <= far.eur
    assert far.beside.best.do is not Do.OPEN


def lit(outcome):
    """A unit of the alignment lesson whose light reads so."""
    look = Move(Do.LOOK, "level_reading")
    return next((s, told) for s in (begin("alignment", n, is_judged=True) for n in range(60)) if (told := after(s, look)).done[-1].outcome == outcome)


def test_more_light_past_the_limit_ends_the_diode_and_is_dearer_once_the_level_was_read():
    found, measured = lit("high")
    blind, knowing = (after(s, Move(Do.REPAIR, "raise_drive", frozenset(Care))) for s in (found, measured))
    assert {s.done[-1].mishap for s in (blind, knowing)} == {OVERDRIVEN}
    assert "pickup_dead" in {blind.ready.model.faults[u.fault].id for u in blind.hidden.units}
    assert "T29" in blind.done[-1].beside.traps
    assert {"T12", "T29"} <= set(knowing.done[-1].beside.traps)
    assert (blind.done[-1].has_cured, measured.at.free[found.ready.model.repair_index["raise_drive"]]) == (False, False)


def test_careful_hands_measure_the_level_before_more_light():
    found = begin("alignment", 1)
    model = found.ready.model
    w, only = (np.array([float(x.id == name) for x in of]) for of, name in ((model.faults, "pickup_780"), (model.repairs, "raise_drive")))
    found = replace(found, at=replace(found.at, w=w, free=only > 0, open_=np.zeros_like(found.at.open_)))
    assert careful(found).what == "level_reading"
    assert careful(replace(found, answers={**found.answers, "level_reading": "low"})).what == "raise_drive"


def test_what_went_wrong_after_a_clean_trial_has_to_be_proved_anew():
    proved = replace(begin("any_slot", 1), is_clean=True, is_proved=True)
    ends = [made(replace(proved, seed=n), OPEN, SHUT) for n in range(60)]
    assert {(bool(s.done[-1].mishap), s.is_clean, s.is_proved) for s in ends} == {(True, False, False), (False, True, True)}


def test_tips_follow_the_mains_and_come_off_when_it_is_opened():
    found = after(begin("any_slot", 3), Move(Do.LOOK, "board_supply", mains=Mains.LIVE))
    out = after(found, OUT)
    assert (found.tips.value() > 4, out.tips.value(), after(out, OPEN).tips) == (True, 0.0, None)


def test_light_that_reads_low_bears_more():
    found, measured = lit("low")
    assert after(measured, Move(Do.REPAIR, "raise_drive", frozenset(Care))).done[-1].mishap == ""
    assert found.at.free[found.ready.model.repair_index["raise_drive"]]


def test_who_was_led_has_mastered_nothing():
    over = played("first_unit", 11, "planner")
    assert (scored(over).is_mastered, scored(over, is_led=True).is_mastered) == (True, False)


OWN = {family: compile_model(replace(sheet, variant=f"own {family}", prices={"replace_pickup": PartPrice(70, 3)})) for family, sheet in SHEETS.items()}


@pytest.mark.parametrize("name", ["first_unit", "own_board", "alignment"])
def test_a_lesson_on_an_own_drive_reckons_with_its_sheet_and_masters_the_same(name):
    drive = OWN[LESSONS[name].family]
    found = begin(name, 3, drive=drive)
    a = found.ready.model.repair_index["replace_pickup"]
    usual = begin(name, 3)
    assert repair_cost(found, a)[1] == pytest.approx(repair_cost(usual, a)[1])
    assert repair_cost(found, a)[0] != repair_cost(usual, a)[0]
    score = scored(played(name, 3, "planner", drive=drive))
    assert (score.traps, score.cost_eur) == ((), score.planner_eur)


def test_a_drive_that_cannot_have_what_a_lesson_hides_is_not_taken_for_it():
    unpaired = compile_model(replace(SHEETS["slot"], pairing=Pairing.NONE))
    assert not suits(LESSONS["own_board"], unpaired.sheet)
    assert not suits(LESSONS["first_unit"], SHEETS["slot"])
    assert not suits(LESSONS["first_unit"], replace(SHEETS["tray"], has_belt=False))
    assert all(suits(x, SHEETS[x.family]) for x in LESSONS.values())
    with pytest.raises(InvalidError, match="cannot have"):
        begin("own_board", 1, drive=unpaired)
