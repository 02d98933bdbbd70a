"""Practice: the world keeps to what it hides, careful hands walk into no trap, and what is heard is what is shown."""

from dataclasses import replace
from itertools import product

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from spindle.errors import InvalidError, NotFoundError, NotNowError
from spindle.practice.debrief import scored
from spindle.practice.hidden import bench, draw_hidden
from spindle.practice.learners import LEARNERS, played, random_hand
from spindle.practice.lessons import LESSONS, Hides
from spindle.practice.session import HINT_EUR, KEYLESS_EUR, after, begin, replay
from spindle.practice.sounds import recorded, scene_of, shown
from spindle.practice.state import Care, Do, Move
from spindle.practice.traps import NAMES, traps_of
from spindle.sound.answers import PERFECT, answers_of
from spindle.sound.library.playing import play
from spindle.sound.library.voices import draw_voice

CAREFUL = frozenset(Care)


def with_answers(name, **answers):
    found = begin(name, 1)
    return replace(found, answers={**found.answers, **answers})


@pytest.mark.parametrize("name", LESSONS)
def test_every_lesson_can_be_finished_and_the_planner_walks_into_no_trap(name):
    score = scored(played(name, 11, "planner"))
    assert score.traps == ()
    assert score.is_mastered
    assert score.cost_eur == score.planner_eur


@pytest.mark.parametrize("name", LESSONS)
def test_a_lesson_hides_what_it_says(name):
    lesson = LESSONS[name]
    model = bench(lesson.family).model
    for seed in range(6):
        faults = [model.faults[u.fault] for u in draw_hidden(lesson, seed, bench(lesson.family)).units]
        assert len(faults) == {Hides.TWO: 2, Hides.NONE: 0}.get(lesson.kind, 1)
        assert all(not lesson.faults or f.id in lesson.faults for f in faults)
    assert set(lesson.faults) <= {f.id for f in model.faults}
    assert lesson.trap in {"", *NAMES}


@given(st.sampled_from(sorted(LESSONS)), st.integers(0, 10_000))
@settings(max_examples=40, deadline=None)
def test_the_world_never_contradicts_what_it_hides(name, seed):
    found, rng = begin(name, seed), np.random.default_rng(seed)
    while not found.is_over and len(found.done) < 25:
        before = found
        found = after(found, random_hand(found, rng))
        done = found.done[-1]
        if done.move.do is Do.LOOK and not done.mishap and not found.hidden.comes_and_goes:
            again = after(found, done.move).done[-1]
            assert again.mishap or again.outcome == done.outcome  # asked again it is the same, if asking breaks nothing
        if done.move.do is Do.REPAIR and done.outcome == "clean" and not found.hidden.comes_and_goes:
            assert found.hidden.units == ()
        if not done.mishap:
            assert {u.fault for u in found.hidden.units} <= {u.fault for u in before.hidden.units}  # nothing breaks by itself
    assert not found.is_over or found.is_repaired == (found.hidden.units == ())
    assert replay(name, seed, [d.move for d in found.done]).done == found.done


def test_learners_come_in_their_order():
    cost = {who: np.mean([played(name, 3, who).cost_eur for name in LESSONS]) for who in LEARNERS}
    assert cost["planner"] < cost["flow_chart"] < cost["random"]


@pytest.mark.parametrize(
    ("name", "seen", "repair", "trap"),
    [
        ("retries", {"nudges_out": "yes", "takes_disc": "takes"}, "replace_rollers", "T2"),
        ("not_the_motor", {"spins": "never"}, "replace_spindle_motor", "T3"),
        ("dead_three_ways", {"takes_disc": "ignores", "ejects": "no"}, "replace_load_motor", "T6"),
        ("one_light_dead", {"game_bd": "fails", "film_dvd": "reads"}, "clean_lens", "T7"),
        ("stutters_late", {"later_data": "stutters"}, "raise_drive", "T8"),
        ("alignment", {"level_reading": "high"}, "raise_drive", "T12"),
        ("own_board", {}, "replace_drive", "T30"),
        ("dry_before_power", {}, "clean_rollers", "T35"),
        ("something_loose", {"rattle": "rattles"}, "replace_gears", "T35"),
    ],
)
def test_a_trap_has_its_name_and_is_none_for_who_looked_first(name, seen, repair, trap):
    found = with_answers(name, **seen)
    assert trap in traps_of(found, Move(Do.REPAIR, repair), 5.0)
    careful = with_answers(
        name,
        **{
            **seen,
            "spindle_turn": "bad",
            "fuse_test": "closed",
            "takes_disc": "hesitates",
            "rattle": "silent",
            "level_reading": "low",
            "later_data": "fine",
            "film_dvd": "fails",
            "ejects": "yes",
        },
    )
    assert trap not in traps_of(careful, Move(Do.REPAIR, repair, CAREFUL), 5.0)


def test_what_costs_no_more_than_the_best_is_no_mistake():
    found = with_answers("not_the_motor", spins="never")
    assert "T3" not in traps_of(found, Move(Do.REPAIR, "replace_spindle_motor", CAREFUL), 0.0)


def test_a_drive_without_the_own_board_is_fitted_twice():
    careless, careful = (after(begin("own_board", 4), Move(Do.REPAIR, "replace_drive", care)) for care in (CAREFUL - {Care.OWN_BOARD}, CAREFUL))
    assert careless.done[-1].eur == pytest.approx(careful.done[-1].eur + KEYLESS_EUR)
    assert (careless.done[-1].outcome, bool(careless.done[-1].mishap)) == ("worse", True)


def test_power_with_something_loose_blows_the_fuse_now_and_then_and_is_a_trap_always():
    told = [after(with_answers("something_loose", rattle="rattles"), Move(Do.LOOK, "power")).done[-1] for _ in range(2)]
    assert told[0] == told[1]
    blown = 0
    for seed in range(40):
        found = begin("something_loose", seed)
        if found.answers["rattle"] == "rattles":
            done = after(found, Move(Do.LOOK, "power"))
            assert "T35" in done.done[-1].beside.traps
            blown += len(done.hidden.units) - len(found.hidden.units)
    assert 5 < blown < 35


def test_one_clean_trial_of_what_comes_and_goes_is_no_cure():
    returned = 0
    for seed in range(60):
        found = begin("comes_and_goes", seed)
        found = after(found, Move(Do.REPAIR, "clean_lens", CAREFUL))  # cures none of what this lesson hides
        if found.is_clean:
            home = after(found, Move(Do.HAND_BACK))
            assert (home.is_repaired, home.done[-1].outcome, "T33" in home.done[-1].beside.traps) == (False, "returns", True)
            proved = after(found, Move(Do.PROVE))
            returned += proved.done[-1].outcome == "fails"
    assert returned > 10


def test_proved_once_is_proved_until_the_next_repair():
    found = next(s for s in (played("first_unit", n, "planner") for n in range(9)) if s.is_repaired)
    proved = replay("first_unit", found.seed, [d.move for d in found.done[:-1]])
    assert proved.is_proved
    looked = after(proved, Move(Do.LOOK, "power"))
    assert after(looked, Move(Do.HAND_BACK)).done[-1].beside.traps == ()
    again = after(looked, Move(Do.REPAIR, "clean_lens", CAREFUL))
    assert after(again, Move(Do.HAND_BACK)).done[-1].beside.traps == ("T33",)


def test_a_hint_walks_nobody_into_a_trap():
    clean = next(s for s in (after(begin("first_unit", n), Move(Do.REPAIR, "replace_belt", CAREFUL)) for n in range(30)) if s.is_clean)
    assert after(clean, Move(Do.HINT)).done[-1].says == "Three passes more"
    loose = with_answers("something_loose", rattle="rattles")
    asked = next(a for a in loose.ready.plan.asks if a.id == "object_search")
    assert after(loose, Move(Do.HINT)).done[-1].says == asked.title


def test_the_safe_step_is_never_called_dearer():
    for seed in range(40):
        found = begin("something_loose", seed, is_judged=True)
        if found.knows_loose:
            assert after(found, Move(Do.LOOK, "object_search")).done[-1].beside.regret_eur == 0.0


def test_one_careless_move_is_one_risk_and_a_part_that_cured_one_of_two_is_not_needless():
    wet = next(
        s for s in (scored(replay("dry_before_power", n, [Move(Do.REPAIR, "clean_rollers"), Move(Do.HAND_BACK)])) for n in range(9)) if s.steps[0].mishap
    )
    assert wet.risks == 1
    for seed in range(200):
        found = begin("two_at_once", seed)
        uses = [n for n, r in enumerate(found.ready.plan.repairs) if r.uses_item and r.id != "replace_drive"]
        cures = [a for a in uses if sum(bool(u.cures[a]) for u in found.hidden.units) == 1]
        if cures:
            move = Move(Do.REPAIR, found.ready.plan.repairs[cures[0]].id, CAREFUL)
            assert after(found, move).done[-1].outcome == "changed"
            assert scored(replay("two_at_once", seed, [move, Move(Do.HAND_BACK)])).needless == 0
            break
    else:
        pytest.fail("no such unit")


def test_a_first_guess_is_made_once_and_before_the_first_repair():
    guess = Move(Do.GUESS, "belt", percent=50)
    for before in (guess, Move(Do.REPAIR, "clean_lens", CAREFUL)):
        with pytest.raises(NotNowError):
            after(after(begin("first_unit", 1), before), guess)


def test_a_hint_is_the_best_move_and_has_its_price():
    found = after(begin("first_unit", 2), Move(Do.HINT))
    assert found.cost_eur == HINT_EUR
    best = after(begin("first_unit", 2), LEARNERS["planner"](begin("first_unit", 2), np.random.default_rng(0)))
    assert found.done[-1].says == next(a.title for a in best.ready.plan.asks if a.id == best.done[-1].move.what)


@pytest.mark.parametrize(
    ("move", "error"),
    [
        (Move(Do.LOOK, "wing"), InvalidError),
        (Move(Do.REPAIR, "sing"), InvalidError),
        (Move(Do.PROVE), NotNowError),
        (Move(Do.GUESS, "wing", percent=50), InvalidError),
        (Move(Do.GUESS, "belt", percent=101), InvalidError),
    ],
)
def test_what_cannot_be_done_is_refused(move, error):
    with pytest.raises(error):
        after(begin("first_unit", 1), move)


def test_what_is_over_takes_nothing_and_no_lesson_is_invented():
    with pytest.raises(NotNowError):
        after(after(begin("first_unit", 1), Move(Do.HAND_BACK)), Move(Do.LOOK, "power"))
    with pytest.raises(NotFoundError):
        begin("swimming", 1)


def test_who_gives_up_unseen_has_mastered_nothing():
    for seed in range(12):
        assert not scored(replay("nothing_wrong", seed, [Move(Do.HAND_BACK)])).is_mastered


def test_the_debriefing_says_what_each_step_cost_more_and_scores_the_guess():
    moves = [Move(Do.GUESS, "belt", percent=80), Move(Do.REPAIR, "replace_drive", CAREFUL), Move(Do.HAND_BACK)]
    score = scored(replay("first_unit", 5, moves))
    dear = score.steps[1]
    assert dear.regret_eur > 5
    assert dear.best
    assert score.guess == "Belt, 80 percent: well judged (0.04; 0 is perfect, 0.25 a coin)"
    assert not score.is_mastered


@pytest.mark.parametrize(
    "told",
    [
        dict(zip(("tray_sound", "spins", "sled_sound"), t, strict=True))
        for t in product(("smooth", "whirrs", "grinds", "hums", "nothing"), ("holds", "cycles", "twitches", "never"), ("seeks", "hammers", "silent"))
        if t[0] in ("smooth", "grinds") or t[1:] == ("never", "silent")
    ],
)
def test_a_unit_is_heard_as_it_shows_itself(told):
    rng = np.random.default_rng(3)
    clip = play(scene_of(told, "tray"), "tray", draw_voice(rng), 8_000, rng)
    said = {a.question: a.outcome for a in answers_of(clip.events, "tray", PERFECT)}
    assert {q: said.get(q) for q in told} == told


def test_a_practice_unit_sounds_the_same_until_something_in_it_changes():
    with pytest.raises(NotNowError):
        recorded(begin("sled_lost", 2))
    found = after(begin("sled_lost", 2), Move(Do.LISTEN))
    assert (found.minutes, found.may_play, after(found, Move(Do.REPAIR, "clean_lens", CAREFUL)).may_play) == (2.0, True, False)
    assert np.array_equal(recorded(found).samples, recorded(found).samples)
    assert set(shown(found)) == {"spins", "sled_sound", "load_sound", "nudges_out", "spin_sound"}
