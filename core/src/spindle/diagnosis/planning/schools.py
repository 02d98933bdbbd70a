"""The schools of thought beside the next move: fixed orders of repair and a flow chart, each with its expected cost from here."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from typing import Final

from spindle.diagnosis.given.compiled import CompiledModel
from spindle.diagnosis.planning.cost import fixed_order_cost
from spindle.diagnosis.planning.lookahead import Position
from spindle.diagnosis.planning.problem import Plan
from spindle.faults.model import ChartNode

START: Final = "start"
_UNLIKELY: Final = 8e-3
"""Below this chance a branch of the chart follows its likeliest answer alone: the cost moves by about two percent."""
WORTH_TRYING: Final = 0.02
"""The cheapest-first school leaves out what helps less than one time in fifty."""


@dataclass(frozen=True)
class School:
    """A rule of thumb, and what following it from here would cost on average."""

    id: str
    name: str
    expected_eur: float
    first: str


@dataclass(frozen=True)
class Chart:
    """A loader family's flow chart on one plan, with the answers that are known already."""

    nodes: Mapping[str, ChartNode]
    plan: Plan
    model: CompiledModel
    said: Mapping[str, str]

    def question(self, node: ChartNode) -> int:
        """Return the index of the node's question, or -1 if this drive does not have it."""
        return self.plan.place_of.get(node.ask, -1)

    def next_of(self, node: ChartNode, outcome: str) -> str:
        """Return the node after an answer."""
        return node.then.get(outcome, node.then.get("*", ""))

    def outcomes(self, node: ChartNode) -> tuple[str, ...]:
        """Return the ids of the node's answers."""
        return tuple(o.id for o in self.model.questions[node.ask].outcomes)

    def skip(self, node: ChartNode) -> str:
        """Return where the chart goes on without asking: by the known answer, or as if nothing had been found."""
        return self.next_of(node, self.said.get(node.ask, ""))

    def repairs(self, node: ChartNode, at: Position) -> Iterator[int]:
        """Yield the repairs of a node that can still be tried."""
        for name in node.do:
            a = self.model.repair_index.get(name, -1)
            if a >= 0 and at.free[a]:
                yield a

    def first_repair(self, at: Position, name: str = START) -> str:
        """Return the first repair on the likeliest way from here, "" if there is none."""
        while name:
            node = self.nodes[name]
            if node.ask:
                q = self.question(node)
                if q < 0 or not at.open_[q]:
                    name = self.skip(node)
                    continue
                chances = [float(at.after_answer(q, o, self.plan.problem).w.sum()) for o in range(len(self.outcomes(node)))]
                o = chances.index(max(chances))
                name, at = self.next_of(node, self.outcomes(node)[o]), at.after_answer(q, o, self.plan.problem)
                continue
            for a in self.repairs(node, at):
                return self.plan.repairs[a].id
            name = node.after
        return ""

    def cost(self, at: Position, name: str = START) -> float:
        """Return the expected cost of following the chart from a node to its end, in euro times the position's weight.

        Every answer of every box is a branch; unlikely ones go on without branching (:data:`_UNLIKELY`).
        """
        weight = float(at.w.sum())
        problem = self.plan.problem
        if not name:
            return problem.giving_up(at.w, at.state)
        node = self.nodes[name]
        if node.ask:
            q = self.question(node)
            if q < 0 or not at.open_[q]:
                return self.cost(at, self.skip(node))
            branches = [(self.next_of(node, o), at.after_answer(q, n, problem)) for n, o in enumerate(self.outcomes(node))]
            if weight < _UNLIKELY:
                follow, likeliest = max(branches, key=lambda b: float(b[1].w.sum()))
                scaled = replace(likeliest, w=likeliest.w * (weight / max(float(likeliest.w.sum()), 1e-300)))
                branches = [(follow, scaled)]
            return weight * problem.asking(at.state, q) + sum(self.cost(branch, follow) for follow, branch in branches)
        spent = 0.0
        for a in self.repairs(node, at):
            spent += float(at.w.sum()) * problem.cost[at.state, a] + problem.curing(at.w, at.state, a)
            at = at.after_repair(a, problem)
        return spent + self.cost(at, node.after)


def schools_from(at: Position, plan: Plan, model: CompiledModel, said: Mapping[str, str]) -> tuple[School, ...]:
    """Return every school with its expected cost from here, cheapest first."""
    problem = plan.problem
    orders = {**model.model.schools, "cheapest_first": ("Cheapest first", cheapest_first(at, plan))}
    found = []
    for id_, (name, order) in orders.items():
        left = [model.repair_index[r] for r in order if r in model.repair_index and at.free[model.repair_index[r]]]
        first = plan.repairs[left[0]].id if left else ""
        found.append(School(id_, name, fixed_order_cost(at.w, at.state, left, problem), first))
    chart = Chart(model.model.chart, plan, model, said)
    found.append(School("flow_chart", "Flow chart with looks and meter", chart.cost(at), chart.first_repair(at)))
    return tuple(sorted(found, key=lambda s: s.expected_eur))


def cheapest_first(at: Position, plan: Plan) -> tuple[str, ...]:
    """Return the repairs that can help, by what their step costs from here."""
    problem = plan.problem
    chance = problem.aims @ at.w / at.w.sum()
    order = problem.cost[at.state].argsort()
    return tuple(plan.repairs[a].id for a in order if at.free[a] and chance[a] >= WORTH_TRYING)
