"""The trimmer by its law, the creep, and several that pull at each other."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import example, given
from hypothesis import strategies as st
from spindle.bench.trimming.alignment import TurnMade, next_round
from spindle.bench.trimming.creeping import creep_step, months_left, reserve, worn
from spindle.bench.trimming.stops import Stop, Trimmer, learn
from spindle.bench.trimming.turning import MOST_DEG, Next, next_step
from spindle.errors import InvalidError

OHMS = Trimmer(690.0, 840.0, more_drive=-1, clockwise=-1, strong=630.0, u=2.0)
VOLTS = Trimmer(1.0, 1.4, "voltage", more_drive=1, clockwise=1, strong=1.5, is_powered=True, u=0.004)


def at(trimmer, *stops):
    """Stops as (turned, z) or (turned, z, after a tap)."""
    return [Stop(d, (trimmer.reading(z),) * 3, (trimmer.reading(z),) * 3 if tap else ()) for d, z, *tap in stops]


def test_half_bands_go_up_with_drive():
    assert (OHMS.z(765), OHMS.z(690), OHMS.z(840), OHMS.z_limit) == (0, 1, -1, pytest.approx(1.8))
    assert OHMS.reading(OHMS.z(700.0)) == pytest.approx(700.0)
    assert Trimmer(1.0, 2.0).z_limit == 1.0


@pytest.mark.parametrize("wrong", [{"low": 900.0}, {"strong": 900.0}])
def test_a_band_that_is_none_and_a_limit_on_the_wrong_side_are_refused(wrong):
    with pytest.raises(InvalidError):
        replace(OHMS, **wrong)


STEPS = [
    # the way so far, and what comes next: what, degrees, alarms
    (OHMS, [], Next.LOOK, 0, ()),
    (OHMS, [(0, -3)], Next.TURN, 5, ()),
    (OHMS, [(0, 3)], Next.TURN, -5, ("over_limit",)),
    (replace(OHMS, clockwise=1), [(0, -3)], Next.TURN, -5, ()),
    (replace(OHMS, clockwise=0), [(0, -3)], Next.TURN, 5, ()),
    (OHMS, [(0, -3), (5, -3)], Next.TURN, 10, ()),  # nothing moved: doubled
    (OHMS, [(0, -3), (5, -3), (10, -3)], Next.TURN, 12, ()),
    (OHMS, [(0, -3), (5, -3), (10, -3), (12, -3), (12, -3)], Next.TURN, -12, ()),  # 30 degrees of nothing: the other way
    (OHMS, [(0, -3), (30, -3), (-30, -3)], Next.STOP, 0, ("nothing_moves",)),
    (OHMS, [(0, -3), (5, -2.5)], Next.TURN, 10, ()),  # 0.1 a degree, 25 wanted, at 0.7 17.5, at most twice the last
    (OHMS, [(0, -3), (10, -1.5)], Next.TURN, 5, ()),  # within two half bands: half of it
    (OHMS, [(0, -3), (5, -3.5)], Next.TURN, 5, ("wrong_way",)),
    (OHMS, [(0, -3), (5, -3.5), (5, -4.0)], Next.TURN, -10, ("turns_over",)),
    (OHMS, [(0, 0.5)], Next.TAP, 0, ()),
    (OHMS, [(0, 0.5, True)], Next.DONE, 0, ()),
    (OHMS, [(0, -0.81, True)], Next.TURN, 5, ()),
    (VOLTS, [(0, -3)], Next.TURN, 5, ()),
    (VOLTS, [(0, 1.3)], Next.STOP, 0, ("no_room",)),  # it may go up by mistake: read it in ohms first
    (VOLTS, [(0, 1.6)], Next.STOP, 0, ("no_room",)),
    (OHMS, [(0, -3)] + [(5, -3 + 0.01 * n) for n in range(26)], Next.STOP, 0, ("not_settled",)),
]


@pytest.mark.parametrize(("trimmer", "way", "what", "deg", "alarms"), STEPS)
def test_the_next_step_of_a_trimmer(trimmer, way, what, deg, alarms):
    step = next_step(trimmer, at(trimmer, *way))
    assert (step.what, step.alarms) == (what, alarms)
    assert step.turn_deg == pytest.approx(deg, abs=0.01)


def test_back_to_as_found_is_one_step_by_the_slope():
    stops = at(OHMS, (0, -3), (5, -2.5), (10, -1.5))
    assert next_step(OHMS, stops).back_deg == pytest.approx(-15)
    assert next_step(OHMS, at(OHMS, (0, -3), (5, -3))).back_deg == -5


@pytest.mark.parametrize(("z", "may"), [(1.3, True), (1.49, False), (1.6, False), (-3.0, True)])
def test_no_power_where_the_drive_may_be_over_its_limit(z, may):
    assert next_step(VOLTS, at(VOLTS, (0, z))).may_power is may


def test_where_the_drives_direction_is_not_known_both_ends_of_the_band_are_limits():
    blind = replace(VOLTS, more_drive=0, strong=None)
    assert [next_step(blind, at(blind, (0, z))).may_power for z in (-1.1, 0.0, 1.1)] == [False, True, False]


def test_a_wiper_that_will_not_stand_still_is_looked_at_again_and_at_two_stops_it_is_dirty():
    wild = (700.0, 760.0, 800.0)
    assert next_step(OHMS, [Stop(0, wild)]).alarms == ("wiper_unsteady",)
    assert next_step(OHMS, [Stop(0, (*wild, *wild)), Stop(5, (*wild, *wild))]).alarms == ("wiper_dirty",)


def test_play_at_a_turn_back_halves_the_slope_and_no_more():
    slope = learn(OHMS, at(OHMS, (0, -3), (10, -2))).slope
    assert learn(OHMS, at(OHMS, (0, -3), (10, -2), (-10, -2.15))).slope == pytest.approx(slope / 2)
    assert learn(OHMS, at(OHMS, (0, -3), (10, -2), (10, -0.5))).slope == pytest.approx(0.4 * 0.1 + 0.6 * 0.15)


@given(zs=st.lists(st.floats(-4.0, 1.4), min_size=1, max_size=6), degs=st.lists(st.floats(-20, 20), min_size=6, max_size=6), powered=st.booleans())
@example(zs=[0.0, 1.0, 0.0, 1.0, -2.0, -1.5], degs=[0.0, -0.125, 2.0, 5.0, 1.0, 0.0], powered=True)  # a slope steeper than the last three moves
def test_no_turn_predicts_a_value_past_the_limit(zs, degs, powered):
    trimmer = replace(VOLTS, is_powered=powered)
    stops = at(trimmer, *zip([0.0, *degs], zs, strict=False))
    step = next_step(trimmer, stops)
    assert abs(step.turn_deg) <= MOST_DEG
    if powered and step.predicted is not None and step.predicted > trimmer.z(stops[-1].value):
        assert step.predicted <= trimmer.z_limit - 2 * trimmer.u_z + 1e-9


@given(z=st.floats(-4.0, 4.0), slope=st.floats(0.03, 0.3), sign=st.sampled_from([-1, 1]), turns=st.integers(1, 6))
def test_as_found_is_never_lost_one_step_leads_back_from_any_stop(z, slope, sign, turns):
    stops = at(OHMS, (0, z))
    for _ in range(turns):
        step = next_step(OHMS, stops)
        if step.what is not Next.TURN:
            break
        stops += at(OHMS, (step.turn_deg, OHMS.z(stops[-1].value) + sign * slope * step.turn_deg))
    back = next_step(OHMS, stops).back_deg
    assert OHMS.z(stops[-1].value) + sign * slope * back == pytest.approx(z, abs=1e-6)


def tried(stop, passes, tries):
    return replace(stop, passes=passes, tries=tries)


CREEPS = [
    ([(0, -2, 0, 0)], "try", 3),
    ([(0, -2, 2, 2)], "try", 1),
    ([(0, -2, 3, 3)], "try", 5),
    ([(0, -2, 7, 8)], "reads", 0),
    ([(0, -2, 6, 8)], "turn", 0),
    ([(0, -2, 0, 3)], "turn", 0),
    ([(0, 1.1, 0, 3)], "refused", 0),
    ([(0, 0.9, 0, 3)], "back", 0),  # the next stop would lie past the limit, and it stands as found
]


@pytest.mark.parametrize(("way", "what", "tries"), CREEPS)
def test_the_creep_tries_and_turns_and_gives_up(way, what, tries):
    stops = [tried(Stop(d, (VOLTS.reading(z),) * 3, (VOLTS.reading(z),) * 3), passes, n) for d, z, passes, n in way]
    step = creep_step(VOLTS, stops)
    assert (step.what, step.tries) == (what, tries)


@pytest.mark.parametrize(("z", "what"), [(1.01, "refused"), (-0.5, "turn")])
def test_t12_a_high_level_with_a_failing_drive_is_no_reason_for_more(z, what):
    assert creep_step(VOLTS, [tried(at(VOLTS, (0, z))[0], 0, 3)]).what == what


def test_t28_nothing_is_assumed_of_the_direction_and_the_first_look_is_kept():
    blind = replace(OHMS, clockwise=0, more_drive=0, strong=None)
    assert next_step(blind, at(blind, (0, -3))).turn_deg == 5
    assert learn(blind, at(blind, (0, -3), (5, -3.4))).sign == -1  # learnt, against the guess
    assert next_step(blind, at(blind, (0, -3), (5, -3.4))).turn_deg < 0


def test_t29_the_first_repeatable_read_ends_it_and_no_turn_goes_past_the_limit():
    low = [tried(at(VOLTS, (0, -0.9))[0], 8, 8)]
    assert creep_step(VOLTS, low).what == "reads"
    near = [tried(at(VOLTS, (0, 0.95, True))[0], 0, 3)]
    assert creep_step(VOLTS, near).what == "back"


def test_the_creep_aims_half_a_half_band_further_and_never_below_the_band():
    far = [tried(at(VOLTS, (0, -3))[0], 0, 3)]
    assert creep_step(VOLTS, [*far, *at(VOLTS, (5, -1.2))]).what == "try"
    near = [tried(at(VOLTS, (0, -0.6))[0], 0, 3)]
    assert creep_step(VOLTS, [*near, *at(VOLTS, (3, -0.1))]).what == "try"
    assert creep_step(VOLTS, [*near, *at(VOLTS, (3, -0.5))]).what == "turn"


@pytest.mark.parametrize(("z", "word"), [(-1.0, "ample"), (-0.4, "fair"), (0.5, "little"), (1.4, "none"), (9.0, "none")])
def test_what_is_left_to_the_limit_says_how_worn_it_is(z, word):
    assert worn(reserve(VOLTS, z)) == word


def test_no_rate_no_date():
    assert months_left(0.5, 1.5, None) is None
    assert months_left(0.5, 1.5, 0.1) == pytest.approx(10)


ROOM = [(-8.0, 8.0)] * 2


@pytest.mark.parametrize(
    ("errors", "what"),
    [
        ([[0.7, -0.8]], "done"),
        ([[3, 0]], "again"),
        ([[3, 0], [2.9, 2]], "again"),
        ([[3, 0], [2.9, 2], [2, 0]], "again"),
        ([[3, 0], [2.9, 2], [2.8, 2]], "stop"),
    ],
)
def test_another_round_only_where_it_pays(errors, what):
    assert next_round([np.array(e, float) for e in errors], [], ROOM).what == what


def test_trims_that_pull_at_each_other_are_turned_together_by_what_their_turns_have_taught():
    matrix = np.array([[0.1, 0.09], [0.08, 0.1]])
    turns = [TurnMade(k, 10.0, tuple(10.0 * matrix[:, k])) for k in (0, 1)]
    step = next_round([np.array([3.0, 0.0]), np.array([2.9, 2.0]), np.array([1.0, 1.2])], turns, ROOM)
    assert step.what == "together"
    assert np.array([1.0, 1.2]) + matrix @ np.array(step.turns_deg) == pytest.approx(np.zeros(2), abs=1e-9)
    tight = next_round([np.array([3.0, 0.0]), np.array([2.9, 2.0]), np.array([1.0, 1.2])], turns, [(-0.01, 1.3)] * 2)
    assert tight.what == "together"
    assert np.abs(tight.turns_deg).max() < np.abs(step.turns_deg).max()
