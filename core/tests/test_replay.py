"""A unit whose cause was confirmed, played again by each way."""

import pytest
from spindle.diagnosis.given.compiled import compile_model
from spindle.diagnosis.given.economy import Economy
from spindle.diagnosis.planning.plan import plan_for
from spindle.learning.past import Done
from spindle.study.replay import ADVICE, HERE, WAYS, replayed
from spindle.study.worlds import SHEETS

MODEL = compile_model(SHEETS["slot"])
PROBLEM = plan_for(MODEL, Economy()).problem
PLACE = {a.id: n for n, a in enumerate(plan_for(MODEL, Economy()).asks)}
SPINS, BLUE, LOOK = Done("spins", "cycles"), Done("game_bd", "fails"), Done("lens_look", "hazy")


def cure(repair):
    return Done(repair, "clean", is_repair=True)


def in_vain(repair):
    return Done(repair, "", is_repair=True)


def of(cause, *way, seed=1):
    return replayed(MODEL, Economy(), cause, way, seed)


def by_hand(way, fault):
    """What a way costs, step by step, with plain numbers."""
    state, eur = 0, 0.0
    for done in way:
        a = MODEL.repair_index[done.what] if done.is_repair else PLACE[done.what]
        eur += (PROBLEM.cost if done.is_repair else PROBLEM.ask)[state, a]
        if done.came == "clean":
            return eur + PROBLEM.close_after[state, a] + PROBLEM.fades_eur[a, MODEL.fault_index[fault]]
        state = int((PROBLEM.ends if done.is_repair else PROBLEM.asked_in)[state, a])
    return eur + PROBLEM.close[state] + PROBLEM.give_up_eur


@pytest.mark.parametrize(
    "way", [(cure("clean_lens"),), (SPINS, BLUE, LOOK, cure("clean_lens")), (SPINS, in_vain("replace_pickup"), LOOK, cure("clean_lens")), (SPINS, LOOK)]
)
def test_as_it_was_done_costs_what_its_steps_cost(way):
    assert of("lens_dirty", *way)[HERE] == pytest.approx(by_hand(way, "lens_dirty"))


def test_what_was_seen_and_tried_is_as_it_was_whoever_plays():
    helped, in_vain_here = (of("lens_dirty", LOOK, d, cure("replace_pickup")) for d in (cure("clean_lens"), in_vain("clean_lens")))
    assert all(helped[w] < in_vain_here[w] for w in ("clean_first", "flow_chart"))
    clear, dirty = (of("lens_dirty", Done("lens_look", o), cure("clean_lens")) for o in ("clear", "hazy"))
    assert clear["clean_first"] == dirty["clean_first"]  # who does not look sees nothing of it
    assert clear[ADVICE] != dirty[ADVICE]


def test_the_same_seed_is_the_same_unit_and_another_one_another():
    way = (SPINS, cure("replace_pickup"))
    assert of("pickup_405", *way) == of("pickup_405", *way)
    assert len({tuple(of("pickup_405", *way, seed=n).values()) for n in range(6)}) > 1
    assert tuple(of("pickup_405", *way)) == tuple(WAYS)


@pytest.mark.parametrize(
    ("cause", "way"),
    [("gremlins", (SPINS,)), ("lens_dirty", (Done("wing", "sings"),)), ("lens_dirty", (cure("sing"),)), ("lens_dirty", (Done("spins", "sings"),))],
)
def test_what_this_drive_does_not_have_is_refused(cause, way):
    with pytest.raises((KeyError, ValueError)):
        of(cause, *way)
