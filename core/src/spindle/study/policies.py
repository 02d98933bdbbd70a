"""The planner and its rivals: schools, flow chart, cheap-and-quick rules."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from types import MappingProxyType
from typing import Final

import numpy as np

from spindle.diagnosis.planning.cost import expected_cost
from spindle.diagnosis.planning.futures import Game, Policy, by_choice
from spindle.diagnosis.planning.lookahead import Pick, Position, in_pairs, information, one_step, pick, pick_in_pairs, two_step
from spindle.diagnosis.planning.problem import Problem
from spindle.diagnosis.planning.schools import START, Chart, cheapest_first
from spindle.faults.model import QuestionKind
from spindle.study.worlds import Setup


def start_of(ready: Setup) -> Position:
    """Return a unit as it comes in: closed, nothing known, everything still to try."""
    return Position(ready.model.prior, 0, ready.can_do.copy(), ready.can_ask.copy())


def planner(_ready: Setup) -> Policy:
    """One step of look-ahead with questions in pairs, as the screen advises."""
    return by_choice(pick_in_pairs)


def one_step_alone(_ready: Setup) -> Policy:
    """One step of look-ahead, each question seen alone."""
    return by_choice(pick)


def two_steps(_ready: Setup) -> Policy:
    """Two steps of look-ahead."""
    known: dict[object, Pick] = {}

    def think(at: Position, problem: Problem) -> Pick:
        return pick(at, two_step(at, problem, in_pairs(at, problem, one_step(at, problem))), problem)

    def policy(games: list[Game], problem: Problem) -> Sequence[Pick]:
        for game in games:
            key = (game.history, game.at.state)
            if key not in known:
                known[key] = think(game.at, problem)
        return [known[(g.history, g.at.state)] for g in games]

    return policy


def as_at_the_bench(ready: Setup, policy: Policy) -> Policy:
    """Return a policy that goes on where "Fault seen" ends: the stages and classes that no job is isolated without are asked first."""
    place = {a.id: n for n, a in enumerate(ready.plan.asks)}
    classes = [q.id for q in ready.model.questions.values() if q.kind is QuestionKind.DISC_CLASS]
    first = [place[q] for q in (*ready.model.model.seen_at_least, *classes) if q in place]

    def seen_first(games: list[Game], problem: Problem) -> Sequence[Pick]:
        asked = [next((q for q in first if g.at.open_[q]), -1) for g in games]
        free = [g for g, q in zip(games, asked, strict=True) if q < 0]
        picks = iter(policy(free, problem) if free else ())
        return [Pick("ask", q) if q >= 0 else next(picks) for q in asked]

    return seen_first


def depth_blind(ready: Setup) -> Policy:
    """One step of look-ahead that reckons as if the unit were closed before and after every move."""
    p = ready.problem
    alike = np.tile(p.cost[0] + p.close[p.ends[0]], (len(p.close), 1))
    asked = np.tile(p.ask[0] + p.close[p.asked_in[0]], (len(p.close), 1))
    blind = replace(p, cost=alike, close_after=np.zeros_like(p.close_after), close=np.zeros_like(p.close), ask=asked)
    inner = by_choice(pick)
    return lambda games, _problem: inner(games, blind)


def no_tests(_ready: Setup) -> Policy:
    """Repairs alone, by chance per euro, stopping where the closed form says so."""

    def policy(games: list[Game], problem: Problem) -> Sequence[Pick]:
        w, depth, free = np.array([g.at.w for g in games]), np.array([g.at.state for g in games]), np.array([g.at.free for g in games])
        _, first = expected_cost(w, depth, free, problem)
        return [Pick("stop") if a < 0 else Pick("repair", int(a)) for a in first]

    return policy


def information_first(_ready: Setup) -> Policy:
    """Most information per euro until one suspect passes one half, then repairs by chance per euro."""
    repair = no_tests(_ready)

    def policy(games: list[Game], problem: Problem) -> Sequence[Pick]:
        doing = repair(games, problem)
        picks = []
        for game, then in zip(games, doing, strict=True):
            at = game.at
            worth = np.where(at.open_, information(at, problem) / np.maximum(problem.ask[at.state], 0.3), 0.0)
            q = int(worth.argmax())
            picks.append(Pick("ask", q) if at.w.max() < 0.5 and not game.repairs and worth[q] > 1e-4 else then)
        return picks

    return policy


def school(order: Callable[[Setup, Game], Sequence[str]]) -> Callable[[Setup], Policy]:
    """Return a policy that tries repairs in a fixed order to its end, then gives the unit back."""

    def make(ready: Setup) -> Policy:
        def one(game: Game) -> Pick:
            left = [ready.model.repair_index[r] for r in order(ready, game) if r in ready.model.repair_index]
            left = [a for a in left if game.at.free[a]]
            return Pick("repair", left[0]) if left else Pick("stop")

        return lambda games, _problem: [one(g) for g in games]

    return make


def _named(name: str) -> Callable[[Setup, Game], Sequence[str]]:
    return lambda ready, _game: ready.model.model.schools[name][1]


def flow_chart(ready: Setup) -> Policy:
    """The family's flow chart, walked box by box; a unit's place in it follows from its history."""
    questions = [a.id for a in ready.plan.asks]

    def one(game: Game) -> Pick:
        said = {questions[i]: seen for kind, i, seen in game.history if kind == "ask"}
        chart = Chart(ready.model.model.chart, ready.plan, ready.model, {})
        name = START
        while name:
            node = chart.nodes[name]
            if node.ask:
                q = chart.question(node)
                q = q if q >= 0 and ready.can_ask[q] else -1
                if q >= 0 and node.ask not in said:
                    return Pick("ask", q)
                name = chart.next_of(node, chart.outcomes(node)[said[node.ask]] if q >= 0 else "")
                continue
            a = next(chart.repairs(node, game.at), -1)
            if a >= 0:
                return Pick("repair", a)
            name = node.after
        return Pick("stop")

    return lambda games, _problem: [one(g) for g in games]


POLICIES: Final[MappingProxyType[str, Callable[[Setup], Policy]]] = MappingProxyType(
    {
        "planner": planner,
        "one_step": one_step_alone,
        "two_step": two_steps,
        "flow_chart": flow_chart,
        "clean_first": school(_named("clean_first")),
        "pickup_first": school(_named("pickup_first")),
        "drive_first": school(_named("drive_first")),
        "cheapest_first": school(lambda ready, game: cheapest_first(game.at, ready.plan)),
        "no_tests": no_tests,
        "information_first": information_first,
        "depth_blind": depth_blind,
    }
)
