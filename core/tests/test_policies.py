"""Schools and simulated futures on small random problems, against following them by hand."""

from dataclasses import replace
from types import SimpleNamespace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from spindle.diagnosis.planning.cost import fixed_order_cost
from spindle.diagnosis.planning.futures import by_choice, outturn, play, throw_units
from spindle.diagnosis.planning.lookahead import Pick, Position, one_step, pick_in_pairs
from spindle.diagnosis.planning.schools import Chart, cheapest_first, schools_from
from spindle.faults.model import ChartNode

from .test_small_problems import OUTCOMES, A, D, F, asking, branches, problem_of, tried, worlds

NODES = {
    "start": ChartNode(ask="q0", then={"o0": "fix", "*": "look"}),
    "look": ChartNode(ask="q1", then={"o1": "both"}),
    "fix": ChartNode(do=("r0",), after="look"),
    "both": ChartNode(do=("r1", "r9", "r2"), after=""),
}


def chart_of(p, said=None, gone=()):
    questions = {f"q{q}": SimpleNamespace(outcomes=[SimpleNamespace(id=f"o{o}") for o in range(n)]) for q, n in enumerate(OUTCOMES)}
    repairs = [SimpleNamespace(id=f"r{a}") for a in range(A)]
    model = SimpleNamespace(
        questions=questions, repair_index={f"r{a}": a for a in range(A)}, model=SimpleNamespace(chart=NODES, schools={"s": ("A school", ("r2", "r9", "r0"))})
    )
    plan = SimpleNamespace(problem=p, place_of={f"q{q}": q for q in range(len(OUTCOMES)) if q not in gone}, repairs=repairs)
    return Chart(NODES, plan, model, said or {}), plan, model


def followed(at, name, p, said, gone):
    """The chart followed box by box."""
    if not name:
        return p.giving_up(at.w, at.state)
    node, total = NODES[name], 0.0
    if node.ask:
        q = int(node.ask[1])
        if q in gone or not at.open_[q]:
            return followed(at, node.then.get(said.get(node.ask, ""), node.then.get("*", "")), p, said, gone)
        return asking(at, q, p) + sum(followed(b, node.then.get(f"o{o}", node.then.get("*", "")), p, said, gone) for o, b in enumerate(branches(at, q, p)))
    for a in [int(r[1]) for r in node.do if r != "r9" and at.free[int(r[1])]]:
        spent, at = tried(at, a, p)
        total += spent
    return total + followed(at, node.after, p, said, gone)


@given(worlds(), st.sampled_from([({}, ()), ({"q0": "o0"}, (0,)), ({"q0": "o1"}, (0,)), ({}, (1,)), ({"q1": "o1"}, (0, 1))]))
def test_a_flow_chart_costs_what_following_it_box_by_box_does(world, known):
    (at, p), (said, gone) = world, known
    chart, plan, model = chart_of(p, said, gone)
    assert chart.cost(at) == pytest.approx(followed(at, "start", p, said, gone), rel=0.04)
    schools = {s.id: s for s in schools_from(at, plan, model, said)}
    in_order = [a for a in (2, 0) if at.free[a]]
    assert (schools["s"].name, schools["s"].first) == ("A school", f"r{in_order[0]}" if in_order else "")
    assert schools["s"].expected_eur == pytest.approx(fixed_order_cost(at.w, at.state, in_order, p))
    assert (schools["cheapest_first"].name, schools["flow_chart"].name) == ("Cheapest first", "Flow chart with looks and meter")
    assert [s.expected_eur for s in schools_from(at, plan, model, said)] == sorted(s.expected_eur for s in schools.values())


@pytest.mark.parametrize(
    ("said", "gone", "first"), [({"q0": "o0"}, (0,), "r0"), ({"q0": "o1", "q1": "o1"}, (0, 1), "r1"), ({"q0": "o1", "q1": "o2"}, (0, 1), ""), ({}, (0, 1), "")]
)
def test_the_first_repair_of_a_chart_is_on_the_way_that_the_answers_lead(said, gone, first):
    at = Position(np.full(F, 0.25), 0, np.ones(A, dtype=bool), np.ones(2, dtype=bool))
    assert chart_of(problem_of(3), said, gone)[0].first_repair(at) == first


def test_the_first_repair_of_a_chart_follows_the_likeliest_answers():
    rows = np.array([[0.2] * F, [0.8] * F, [0.1] * F, [0.7] * F, [0.2] * F])
    chart = chart_of(problem_of(3, likelihood=rows, at_home=rows, shuts=np.zeros((5, 2), dtype=bool)))[0]
    at = Position(np.full(F, 0.25), 0, np.array([True, False, True]), np.ones(2, dtype=bool))
    assert chart.first_repair(at) == "r2"


@given(worlds())
def test_cheapest_first_takes_what_can_help_by_the_price_of_its_step(world):
    at, p = world
    plan = chart_of(p)[1]
    chance = (p.success * (p.sound == 0)) @ at.w / at.w.sum()
    assert cheapest_first(at, plan) == tuple(f"r{a}" for a in sorted(range(A), key=lambda a: p.cost[at.state, a]) if at.free[a] and chance[a] >= 0.02)


@pytest.mark.parametrize("seed", range(4))
def test_units_are_thrown_as_often_as_the_world_says(seed):
    p, n = problem_of(seed), 3_000
    w = np.array([4.0, 3.0, 2.0, 1.0])
    units = throw_units(n, w, p.likelihood, p.success, p.first_row, np.random.default_rng(seed))
    near = lambda share, chance, of: abs(share - chance) < 4.5 * np.sqrt(chance * (1 - chance) / of) + 1e-9  # noqa: E731
    for f in range(F):
        mine = [u for u in units if u.fault == f]
        assert near(len(mine) / n, w[f] / 10, n)
        assert all(near(np.mean([u.cures[a] for u in mine]), p.success[a, f], len(mine)) for a in range(A))
        assert all(near(np.mean([u.shows[q] == o for u in mine]), p.likelihood[p.first_row[q] + o, f], len(mine)) for q in range(2) for o in range(OUTCOMES[q]))


def walked(unit, at, p):
    """One unit played by the advice's own policy, move by move: what it costs, and whether it is repaired."""
    paid = 0.0
    for _ in range(80):
        move = pick_in_pairs(at, one_step(at, p), p)
        if move.kind == "stop":
            is_sound = p.sound[unit.fault] > 0
            return paid + p.close[at.state] + (0.0 if is_sound else p.give_up_eur), is_sound, at
        if move.kind == "ask":
            paid += p.asking(at.state, move.index)
            at = branches(at, move.index, p)[unit.shows[move.index]]
        else:
            paid += p.cost[at.state, move.index]
            if unit.cures[move.index]:
                return paid + p.close_after[at.state, move.index] + p.fades_eur[move.index, unit.fault], True, at
            at = tried(at, move.index, p)[1]
        at = replace(at, w=at.w / at.w.sum())
    return paid, False, at


@pytest.mark.parametrize("seed", range(12))
def test_futures_cost_what_walking_each_of_them_does(seed):
    p = problem_of(seed)
    start = Position(np.array([0.8, 0.6, 0.4, 0.2]), seed % D, np.ones(A, dtype=bool), np.ones(2, dtype=bool))
    units = throw_units(30, start.w, p.likelihood, p.success, p.first_row, np.random.default_rng(seed))
    plain = Position(start.w / start.w.sum(), start.state, start.free, start.open_)
    paid, mended, _ = zip(*(walked(u, plain, p) for u in units), strict=True)
    games = play(units, start, p, by_choice(pick_in_pairs))
    assert [g.cost_eur for g in games] == pytest.approx(list(paid))
    assert [g.is_repaired for g in games] == list(mended)
    assert all(g.is_over and len(g.beliefs) >= len(g.repairs) and g.beliefs[0] == (0, pytest.approx(0.4)) for g in games)
    found = outturn(start, p, np.random.default_rng(seed), n=30)
    assert (found.mean_eur, found.p_repaired) == (pytest.approx(np.mean(paid)), pytest.approx(np.mean(mended)))
    assert (found.low_eur, found.median_eur, found.high_eur) == pytest.approx(tuple(np.quantile(paid, [0.1, 0.5, 0.9])))


def test_futures_stop_when_told_and_remember_what_was_done():
    p = problem_of(1)
    start = Position(np.full(F, 0.25), 0, np.ones(A, dtype=bool), np.ones(2, dtype=bool))
    units = throw_units(3, start.w, p.likelihood, p.success, p.first_row, np.random.default_rng(0))
    ask = lambda games, _: [Pick("ask", 0)] * len(games)  # noqa: E731
    games = play(units, start, p, ask, known=(("repair", 2, 0),), stop_after=1)
    assert [g.history for g in games] == [(("ask", 0, int(u.shows[0])), ("repair", 2, 0)) for u in units]
    assert not any(g.is_over for g in games)
    assert all(g.cost_eur == 0.0 for g in play(units, start, p, ask, keep_going=lambda: False))
