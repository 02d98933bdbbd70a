"""The mechanism at rest: every part is looked at, and the gear is lifted rather than thin wires bent."""

from itertools import product

import pytest
from spindle.bench.reset import LIFT_GEAR, MOTOR_OFF, TRAINS, Stands, judge_train
from spindle.bench.tools.catalogue import TOOLS
from spindle.errors import InputsError, InvalidError
from spindle.faults.library import MODELS

RIGHT = {family: dict.fromkeys(train, Stands.RIGHT) for family, train in TRAINS.items()}


@pytest.mark.parametrize("family", TRAINS)
def test_whatever_stands_wrong_is_named_and_only_then_something_is_done(family):
    for states in product(Stands, repeat=len(TRAINS[family])):
        stands = dict(zip(TRAINS[family], states, strict=True))
        found = judge_train(family, stands, has_disc=True, can_lift=True)
        assert found.is_home == all(s is Stands.RIGHT for s in states)
        assert len(found.off) + len(found.broken) == sum(s is not Stands.RIGHT for s in states)
        assert bool(found.ways) == bool(found.off)
        assert bool(found.first) == (not found.is_home)


@pytest.mark.parametrize(("can_lift", "first"), [(True, LIFT_GEAR), (False, MOTOR_OFF)])
def test_both_ways_stand_there_and_the_gear_goes_first_where_it_can_be_lifted(can_lift, first):
    found = judge_train("slot", RIGHT["slot"] | {"arms": Stands.OFF}, has_disc=False, can_lift=can_lift)
    assert (found.ways[0], len(found.ways), found.first) == (first, 2, ())


@pytest.mark.parametrize(("family", "stands"), [("lid", {}), ("slot", {"gears": Stands.RIGHT})])
def test_no_train_and_a_part_that_nobody_looked_at_are_said(family, stands):
    with pytest.raises(InvalidError):
        judge_train(family, stands, has_disc=False, can_lift=True)


def answer(family, **more):
    return TOOLS["reset"].answer({"family": family, "disc": False, "can_lift": True, **dict.fromkeys(TRAINS[family], "right"), **more})


SEEN = [
    ("slot", {}, "at_rest"),
    ("slot", {"flap": "off"}, "out_of_step"),
    ("slot", {"arms": "broken", "flap": "off"}, "broken"),
    ("tray", {"lift": "off"}, "half"),
]


@pytest.mark.parametrize(("family", "more", "outcome"), SEEN)
def test_it_answers_the_drives_own_question(family, more, outcome):
    (speaks,) = answer(family, **more).speaks
    assert max(speaks.weights, key=speaks.weights.get) == outcome
    question = next(q for q in MODELS[family].questions if q.id == speaks.question)
    assert set(speaks.weights) == {o.id for o in question.outcomes}


def test_a_part_left_out_is_asked_for():
    with pytest.raises(InputsError, match="Look at flap as well"):
        answer("slot", flap=None)
