"""The next move: prices, bounds, and that every number adds up."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from spindle.diagnosis.explaining.advice import mind_holders, schools_beside
from spindle.diagnosis.explaining.moves import MoveKind
from spindle.diagnosis.given.case import Case
from spindle.diagnosis.given.compiled import compile_model
from spindle.diagnosis.given.economy import Economy
from spindle.diagnosis.planning.cost import expected_cost, fixed_order_cost
from spindle.diagnosis.planning.plan import plan_for
from spindle.diagnosis.planning.problem import state_of
from spindle.drives.sheet import PartPrice
from spindle.faults.model import NOTHING
from spindle.words.bench import Depth

from .conftest import PAIRED, RETRIES, Bench

MODEL = compile_model(PAIRED)
PLAN = plan_for(MODEL, Economy())
TABLES = PLAN.problem


def walked(w, d, free, tables):
    """The policy of the closed form, walked step by step with plain numbers: its cost truncated at the best place."""
    best, spent, w = tables.giving_up(w, d), 0.0, w.copy()
    for _ in range(16):
        cure = w @ (tables.success * (MODEL.sound == 0)).T
        ratio = np.where(free, cure / (w.sum() * tables.cost[d] + w @ (tables.success * tables.fades_eur).T), 0)
        a = int(ratio.argmax())
        if not free[a] or cure[a] <= 1e-15:
            break
        spent += w.sum() * tables.cost[d, a] + w @ (tables.success[a] * (tables.close_after[d, a] + tables.fades_eur[a]))
        w, d = w * (1 - tables.success[a]), int(tables.ends[d, a])
        free = free & (np.arange(len(free)) != a)
        best = min(best, spent + tables.giving_up(w, d))
    return best


@settings(max_examples=60, deadline=None)
@given(seed=st.integers(0, 10**6), depth=st.integers(0, 3))
def test_closed_form_equals_the_walked_policy(seed, depth):
    rng = np.random.default_rng(seed)
    w, free = rng.dirichlet(np.full(len(MODEL.faults), 0.3)), rng.random(len(MODEL.repairs)) < 0.7
    value, _ = expected_cost(w[None], np.array([depth]), free[None], TABLES)
    assert value[0] == pytest.approx(walked(w, depth, free, TABLES), abs=1e-9)


def test_many_states_at_once_are_each_worth_what_they_are_alone():
    rng = np.random.default_rng(4)
    w, d = rng.dirichlet(np.ones(len(MODEL.faults)), 30), rng.integers(0, 4, 30)
    free = rng.random((30, len(MODEL.repairs))) < 0.5
    together, _ = expected_cost(w, d, free, TABLES)
    alone = [expected_cost(w[i : i + 1], d[i : i + 1], free[i : i + 1], TABLES)[0][0] for i in range(30)]
    assert together == pytest.approx(alone, abs=1e-9)


@pytest.mark.parametrize("words", ["", RETRIES, "takes_disc=ignores wakes=no", f"{RETRIES} clean_lens!no_change replace_pickup:P!no_change"])
@pytest.mark.parametrize("depth", [Depth.CLOSED, Depth.DRIVE_OPEN])
def test_advice_is_never_dearer_than_stopping_or_a_school(words, depth):
    bench = Bench(words, depth=depth)
    advice, schools = bench.found.advice, schools_beside(bench.found.outlook, bench.found.belief, bench.model)
    costs = {m.kind: m.expected_eur for m in reversed(advice.moves)}
    assert advice.held_back or advice.moves[0].expected_eur <= 1.01 * min(m.expected_eur for m in advice.moves)
    assert advice.moves[0].expected_eur <= min(costs[MoveKind.STOP], *(s.expected_eur for s in schools)) + 1e-9
    assert {s.id for s in schools} == {"clean_first", "pickup_first", "drive_first", "cheapest_first", "flow_chart"}


def test_chances_of_the_answers_sum_to_one_and_a_tried_repair_is_not_offered_again():
    moves = Bench(f"{RETRIES} clean_lens!no_change").found.advice.moves
    assert all(sum(a.chance for a in m.answers) == pytest.approx(1) for m in moves if m.kind is MoveKind.ASK)
    assert "clean_lens" not in {m.id for m in moves}
    assert "takes_disc" not in {m.id for m in moves}


def test_depth_already_open_makes_the_deep_step_cheaper():
    closed, open_ = (next(m for m in Bench(RETRIES, depth=d).found.advice.moves if m.id == "clean_lens") for d in (Depth.CLOSED, Depth.DRIVE_OPEN))
    assert (closed.opening_min, open_.opening_min) == (16, 0)
    assert closed.step_eur - open_.step_eur == pytest.approx(16 * 0.6)


def test_a_low_loss_makes_handing_back_the_first_move():
    bench = Bench(RETRIES)
    bench.case = Case(PAIRED, bench.case.findings, economy=Economy(give_up_eur=10))
    assert bench.found.advice.moves[0].kind is MoveKind.STOP


def test_the_sheets_price_replaces_the_familys():
    dear = compile_model(type(PAIRED)("X", "slot", PAIRED.pairing, PAIRED.classes, prices={"replace_pickup": PartPrice(90, 20)}))
    own = plan_for(dear, Economy()).problem.cost[0, dear.repair_index["replace_pickup"]]
    assert own - TABLES.cost[0, MODEL.repair_index["replace_pickup"]] == pytest.approx(90 - 24 + 14 * 1.2)


def test_mind_changes_name_answers_that_flip_the_best_repair():
    advice = Bench(f"{RETRIES} game_bd=fails film_dvd=reads", depth=Depth.DRIVE_OPEN).found.advice
    assert advice.best_repair == "clean_lens"  # a haze stops the short light long before the red one
    assert ("lens_look", "clear", "replace_pickup") in {(c.question, c.outcome, c.next_repair) for c in advice.mind_changes}


def test_mind_holders_name_the_finding_without_which_another_repair_would_be_best():
    bench = Bench(f"{RETRIES} game_bd=fails film_dvd=reads lens_look=clear", depth=Depth.DRIVE_OPEN)
    found = bench.found
    holders = {h.finding: h.repair for h in mind_holders(found.without, found.outlook, bench.model, found.advice.best_repair)}
    assert bench.found.advice.best_repair == "replace_pickup"
    assert holders["f6"] == "clean_lens"


def test_much_weight_off_the_list_says_stop_and_think():
    tried = ("replace_drive", "replace_pickup", "replace_driver", "replace_fuse", "reseat_flex_board", "reflow_connector", "redo_last_step")
    swaps = " ".join(f"{r}:{r}!no_change" for r in tried)
    assert Bench(f"{RETRIES} {swaps} board_match=own supply_reading=in_band joint_look=sound lens_look=clear").found.advice.should_think


def test_a_fixed_order_costs_at_least_its_first_step():
    w = MODEL.prior
    assert fixed_order_cost(w, 0, [], TABLES) == pytest.approx(150 * (1 - w[MODEL.fault_index[NOTHING]]))
    assert fixed_order_cost(w, 0, [0], TABLES) > TABLES.cost[0, 0]


@settings(max_examples=40, deadline=None)
@given(seed=st.integers(0, 10**6), depth=st.integers(0, 3), give_up=st.floats(20, 400))
def test_least_cost_of_a_move_is_at_most_the_sequence_and_that_at_most_giving_up(seed, depth, give_up):
    rng = np.random.default_rng(seed)
    asked = rng.choice(list(MODEL.questions), 6, replace=False)
    words = " ".join(f"{q}={rng.choice([o.id for o in MODEL.questions[q].outcomes])}" for q in asked)
    bench = Bench(words, depth=Depth(depth))
    economy = Economy(give_up_eur=give_up)
    bench.case = Case(PAIRED, bench.case.findings, Depth(depth), economy)
    at, tables = bench.found.outlook.position, bench.found.outlook.plan.problem
    sequence, _ = expected_cost(at.w[None], np.array([at.state]), at.free[None], tables)
    least = min(m.expected_eur for m in bench.found.advice.moves)
    assert least <= sequence[0] + 1e-9 <= tables.giving_up(at.w, at.state) + 2e-9


@pytest.mark.parametrize("words", ["", RETRIES, "takes_disc=ignores wakes=no ejects=no spins=never fuse_test=open"])
def test_a_move_saves_what_the_best_of_another_kind_would_cost_more(words):
    moves = Bench(words).found.advice.moves
    for move in moves:
        others = [m.expected_eur for m in moves if m is not move and (move.kind is not MoveKind.ASK or m.kind is not MoveKind.ASK)]
        assert move.saves_eur == max(0.0, min(others) - move.expected_eur)


@pytest.mark.parametrize(
    ("question", "depth", "eur"),
    [("spins", 0, 0.6 * 3), ("spins", 2, 0.6 * (3 + 6)), ("fuse_test", 0, 0.6 * 12), ("lens_look", 1, 0.6 * 7), ("lens_seek", 2, 0.6 * (3 + 6 + 2))],
)
def test_a_question_costs_its_minutes_and_the_way_to_where_it_can_be_asked(question, depth, eur):
    """From the mains out: two minutes to put them in, six to make an open drive ready to run; closing far enough to take a disc."""
    assert TABLES.asking(state_of(depth, is_live=False), [a.id for a in PLAN.asks].index(question)) == pytest.approx(eur)


def test_every_move_says_why_and_what_it_costs():
    for move in Bench(RETRIES).found.advice.moves:
        assert move.why.endswith(".")
        assert move.expected_eur >= move.step_eur or move.kind is MoveKind.STOP
        assert move.saves_eur >= 0


def test_between_equal_steps_doing_comes_before_asking():
    moves = Bench("takes_disc=ignores wakes=no ejects=no spins=never fuse_test=open flex_board_look=seated", depth=Depth.COVER_OFF).found.advice.moves
    assert (moves[0].id, moves[0].kind) == ("replace_fuse", MoveKind.REPAIR)


@pytest.mark.parametrize("words", ["takes_disc=takes spins=never sled_sound=seeks", f"{RETRIES} game_bd=fails film_dvd=fails", "takes_disc=ignores wakes=no"])
def test_what_is_done_in_the_same_go_lies_there_and_pays_by_itself(words):
    found = Bench(words).found
    first, by_id = found.advice.moves[0], {m.id: m for m in found.advice.moves}
    doing = min(m.expected_eur for m in by_id.values() if m.kind is not MoveKind.ASK)
    looks = [by_id[x.id] for x in found.advice.same_go]
    assert looks
    assert not any(set(x.title) & set(":?") for x in found.advice.same_go)
    assert all((m.depth, m.mains) == (first.depth, first.mains) and m.expected_eur < doing for m in looks)


def test_where_nothing_is_opened_no_look_is_nearer_than_another():
    assert Bench(f"{RETRIES} game_bd=fails film_dvd=fails", depth=Depth.DRIVE_OPEN).found.advice.same_go == ()
