"""The planner on small random problems against plain recursions that were written from the definitions, not from its code."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from spindle.diagnosis.planning.cost import expected_cost, fixed_order_cost
from spindle.diagnosis.planning.lookahead import Choice, Pick, Position, in_pairs, information, one_step, pick, two_step
from spindle.diagnosis.planning.problem import Problem

D, A, F = 3, 3, 4
OUTCOMES = (2, 3)


def problem_of(seed, **more):
    """A problem of three depths, three repairs, two questions and four faults."""
    rng = np.random.default_rng(seed)
    open_, close = np.cumsum(rng.uniform(0, 5, D)), np.cumsum(rng.uniform(0, 5, D))
    close = close if seed % 3 else 10.0 * close[::-1]  # the mains in or out can make closing cheaper further on
    depth = rng.integers(0, D, A)
    ends = np.maximum(np.arange(D)[:, None], depth[None])
    rows = np.vstack([rng.dirichlet(np.ones(n), F).T for n in OUTCOMES])
    made = {
        "success": rng.uniform(0, 1, (A, F)) * rng.integers(0, 2, (A, F)),
        "cost": open_[ends] - open_[:, None] + rng.uniform(1, 30, A),
        "ends": ends,
        "close_after": close[ends],
        "close": close,
        "give_up_eur": 20.0 if seed % 2 else 150.0,  # dear enough to go on, or so cheap that going on barely pays
        "likelihood": rows,
        "at_home": np.vstack([rng.dirichlet(np.ones(n), F).T for n in OUTCOMES]),
        "away": rows,
        "p_home": np.zeros(F),
        "brings_home": rng.integers(0, 2, sum(OUTCOMES)) > 0,
        "first_row": np.cumsum([0, *OUTCOMES]),
        "ask": rng.uniform(0, 4, (D, len(OUTCOMES))),
        "asked_in": rng.integers(0, D, (D, len(OUTCOMES))),
        "shuts": rng.integers(0, 3, (sum(OUTCOMES), len(OUTCOMES))) < 1,
        "is_dear": rng.integers(0, 2, A) > 0,
        "buys": rng.integers(0, 2, A) > 0,
        "targets": rng.integers(0, 2, (A, F)) > 0,
        "fades_eur": rng.uniform(0, 200, (A, F)) * rng.integers(0, 2, (A, F)),
        "real": np.arange(F) < F - 1,
        "sound": (np.arange(F) == 1) * float(rng.integers(0, 2)),
    }
    return Problem(**{**made, **more})


@st.composite
def worlds(draw):
    rng = np.random.default_rng(draw(st.integers(0, 10**6)))
    w = rng.dirichlet(np.ones(F)) * draw(st.sampled_from([1.0, 0.3]))
    at = Position(w, int(rng.integers(0, D)), rng.integers(0, 2, A) > 0, rng.integers(0, 4, len(OUTCOMES)) > 0, draw(st.booleans()))
    return at, problem_of(draw(st.integers(0, 10**6)))


def giving_up(w, d, p):
    """Nothing is lost on a sound unit but the closing."""
    return sum(w[f] * (p.close[d] + (0.0 if p.sound[f] else p.give_up_eur)) for f in range(F))


def aimed(w, a, p):
    return sum(w[f] * p.success[a, f] for f in range(F) if not p.sound[f])


def cured(w, a, d, p):
    """What follows a cure: closing, and the goodwill of what comes back."""
    return sum(w[f] * p.success[a, f] * (p.close_after[d, a] + p.fades_eur[a, f]) for f in range(F))


def sequence(w, d, free, p):
    """The adaptive sequence by chance per euro, and the best place to stop: cost and first repair."""
    spent, best, first, begun, free = 0.0, giving_up(w, d, p), -1, None, list(free)
    while True:
        dear = [w.sum() * p.cost[d, a] + sum(w[f] * p.success[a, f] * p.fades_eur[a, f] for f in range(F)) for a in range(A)]
        ratios = [aimed(w, a, p) / dear[a] if free[a] else 0.0 for a in range(A)]
        a = int(np.argmax(ratios))
        if not free[a] or aimed(w, a, p) <= 1e-15:
            return best, first
        begun = a if begun is None else begun
        spent += w.sum() * p.cost[d, a] + cured(w, a, d, p)
        w, d, free[a] = w * (1 - p.success[a]), p.ends[d, a], False
        total = spent + giving_up(w, d, p)
        if total < best:
            best, first = total, begun


def branches(at, q, p):
    start = p.first_row[q]
    still = at.open_ & (np.arange(len(OUTCOMES)) != q)
    rows = p.at_home if at.is_home else p.likelihood
    after = lambda r: (p.asked_in[at.state, q], at.free, still & ~p.shuts[r], at.is_home or p.brings_home[r])  # noqa: E731
    return [Position(at.w * rows[start + o], *after(start + o)) for o in range(OUTCOMES[q])]


def asking(at, q, p):
    return at.w.sum() * p.ask[at.state, q]


def tried(at, a, p):
    spent = at.w.sum() * p.cost[at.state, a] + cured(at.w, a, at.state, p)
    return spent, Position(at.w * (1 - p.success[a]), p.ends[at.state, a], at.free & (np.arange(A) != a), at.open_, at.is_home)


def value(at, p):
    return sequence(at.w, at.state, at.free, p)[0]


def once(at, p, then=value):
    """Every move's cost with one step, the rest valued by ``then``."""
    ask = [asking(at, q, p) + sum(then(b, p) for b in branches(at, q, p)) if at.open_[q] else np.inf for q in range(len(OUTCOMES))]
    repair = [np.inf] * A
    for a in range(A):
        if at.free[a] and aimed(at.w, a, p) > 0:
            spent, left = tried(at, a, p)
            repair[a] = spent + then(left, p)
    return ask, repair


def least(at, p):
    """The best that one more step can do: any move, stopping, or the sequence as it is."""
    ask, repair = once(at, p)
    return min(*ask, *repair, giving_up(at.w, at.state, p), value(at, p))


@given(worlds())
def test_the_closed_form_is_the_sequence_with_its_best_end(world):
    at, p = world
    cost, first = expected_cost(at.w[None], np.array([at.state]), at.free[None], p)
    assert (cost[0], first[0]) == (pytest.approx(sequence(at.w, at.state, at.free, p)[0]), sequence(at.w, at.state, at.free, p)[1])


@given(worlds())
def test_one_step_prices_every_move_and_says_what_each_answer_leads_to(world):
    at, p = world
    choice, (ask, repair) = one_step(at, p), once(at, p)
    assert choice.ask == pytest.approx(ask)
    assert choice.repair == pytest.approx(repair)
    assert choice.stop == pytest.approx(giving_up(at.w, at.state, p))
    for q in np.flatnonzero(at.open_):
        rows = slice(p.first_row[q], p.first_row[q + 1])
        led = [sequence(b.w, b.state, b.free, p) for b in branches(at, q, p)]
        assert (list(choice.branch[rows]), list(choice.first[rows])) == (pytest.approx([c for c, _ in led]), [f for _, f in led])


@given(worlds())
def test_two_steps_value_each_move_by_the_best_next_one_and_are_never_dearer(world):
    at, p = world
    first = one_step(at, p)
    deep, (ask, repair) = two_step(at, p, first), once(at, p, least)
    assert deep.ask == pytest.approx(ask)
    assert deep.repair == pytest.approx([min(r, f) for r, f in zip(repair, first.repair, strict=True)])
    assert two_step(at, p, first, lambda: False).ask == pytest.approx(first.ask)
    assert deep.stop == first.stop


@given(worlds())
def test_one_step_says_what_is_best_in_each_state_of_the_bench(world):
    at, p = world
    assert list(one_step(at, p).here) == [sequence(at.w, d, at.free, p)[1] for d in range(D)]


@given(worlds())
def test_in_pairs_a_question_is_worth_the_best_of_asking_one_more_or_none(world):
    at, p = world
    deep = in_pairs(at, p, one_step(at, p)).ask
    asked_too = lambda b, q: asking(b, q, p) + sum(value(c, p) for c in branches(b, q, p))  # noqa: E731
    assert deep == pytest.approx(once(at, p, lambda b, _: min(value(b, p), *(asked_too(b, q) for q in np.flatnonzero(b.open_)), np.inf))[0])


@given(worlds())
def test_information_is_what_an_answer_tells_on_average_in_nat(world):
    at, p = world
    prior = at.w / at.w.sum()
    entropy = lambda x: -sum(v * np.log(v) for v in x if v > 0)  # noqa: E731
    told = [entropy(prior) - sum(b.w.sum() / at.w.sum() * entropy(b.w / b.w.sum()) for b in branches(at, q, p)) for q in range(len(OUTCOMES))]
    assert information(at, p) == pytest.approx(told, abs=1e-9)


@given(worlds(), st.permutations(range(A)))
def test_a_fixed_order_is_tried_to_its_end(world, order):
    at, p = world
    total, now = 0.0, at
    for a in order:
        spent, now = tried(now, a, p)
        total += spent
    assert fixed_order_cost(at.w, at.state, order, p) == pytest.approx(total + giving_up(now.w, now.state, p))


# One dear repair (0) whose target is fault 0, a cheap one (1) for fault 1, and one as dear (2) for fault 2.
TARGETS = np.eye(3, F) > 0
SURE = {
    "success": np.where(TARGETS, 0.9, 0.0),
    "targets": TARGETS,
    "is_dear": np.array([True, False, True]),
    "buys": np.array([True, False, True]),
    "cost": np.tile([40.0, 8.0, 40.0], (D, 1)),
    "real": np.arange(F) < 3,
}
HELD, PLAIN = Pick("repair", 1, held_back=0), Pick("repair", 0)


@pytest.mark.parametrize(
    ("w", "more", "free", "cheap", "move"),
    [
        ([0.7, 0.1, 0.1, 0.1], {}, [1, 1, 1], 51.0, HELD),
        ([0.7, 0.08, 0.11, 0.11], {}, [1, 1, 1], 51.0, HELD),
        ([0.7, 0.1, 0.1, 0.1], {}, [1, 1, 1], 51.01, PLAIN),
        ([0.7, 0.07, 0.12, 0.11], {}, [1, 1, 1], 51.0, PLAIN),
        ([0.7, 0.1, 0.1, 0.1], {}, [1, 0, 1], 51.0, PLAIN),
        ([0.7, 0.1, 0.1, 0.1], {"is_dear": np.array([False, False, True])}, [1, 1, 1], 51.0, PLAIN),
        ([0.7, 0.1, 0.1, 0.1], {"buys": np.array([True, True, True])}, [1, 1, 1], 51.0, PLAIN),
        ([0.7, 0.1, 0.1, 0.1], {"real": np.array([True, False, True, True])}, [1, 1, 1], 51.0, PLAIN),
        ([0.7, 0.1, 0.1, 0.1], {"cost": np.tile([40.0, 20.0, 40.0], (D, 1))}, [1, 1, 1], 51.0, PLAIN),
        ([0.7, 0.1, 0.1, 0.1], {"cost": np.tile([40.0, 19.9, 40.0], (D, 1))}, [1, 1, 1], 51.0, HELD),
        ([0.7, 0.1, 0.1, 0.1], {"success": np.where(TARGETS, [[0.9], [0.44], [0.9]], 0.0)}, [1, 1, 1], 51.0, PLAIN),
        ([0.7, 0.1, 0.1, 0.1], {"success": np.where(TARGETS, [[0.9], [0.45], [0.9]], 0.0)}, [1, 1, 1], 51.0, HELD),
        ([0.7, 0.1, 0.1, 0.1], {"targets": TARGETS | (np.arange(F) == 1)}, [1, 1, 1], 51.0, PLAIN),
    ],
)
def test_a_dear_part_waits_for_a_cheap_cause_of_real_weight(w, more, free, cheap, move):
    p = problem_of(1, **{**SURE, **more})
    at = Position(np.array(w) * 2, 0, np.array(free) > 0, np.zeros(2, dtype=bool))
    choice = Choice(np.full(2, np.inf), np.array([50.0, cheap, 70.0]), 150.0, np.zeros(5), np.full(5, -1), np.full(2, -1))
    assert pick(at, choice, p) == move


@pytest.mark.parametrize(
    ("ask", "repair", "stop", "buys", "move"),
    [
        (50.0, 50.14, 90.0, False, Pick("repair", 1)),
        (50.0, 50.16, 90.0, False, Pick("ask", 1)),
        (50.0, 50.01, 90.0, True, Pick("ask", 1)),
        (50.0, 49.99, 90.0, True, Pick("repair", 1)),
        (50.0, 60.0, 50.0, False, Pick("stop")),
        (50.0, 60.0, 50.1, False, Pick("ask", 1)),
        (np.inf, np.inf, 50.0, False, Pick("stop")),
    ],
)
def test_doing_comes_before_asking_within_a_hair_unless_a_part_is_bought(ask, repair, stop, buys, move):
    choice = Choice(np.array([99.0, ask]), np.array([np.inf, repair, np.inf]), stop, np.zeros(5), np.full(5, -1), np.full(2, -1))
    p = problem_of(2, is_dear=np.zeros(A, dtype=bool), buys=np.full(A, buys))
    assert pick(Position(np.full(F, 0.25), 0, np.ones(A, dtype=bool), np.ones(2, dtype=bool)), choice, p) == move
