"""The moves in words: what each costs, what every answer would do, and why."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Final

import numpy as np

from spindle.diagnosis.belief.posterior import Belief
from spindle.diagnosis.explaining.moves import AnswerPreview, MindChange, Move, MoveKind, SameGo
from spindle.diagnosis.explaining.why import why_ask, why_repair, why_stop
from spindle.diagnosis.given.case import Stock
from spindle.diagnosis.given.compiled import CompiledModel, Floats
from spindle.diagnosis.planning.lookahead import Choice, Position
from spindle.diagnosis.planning.plan import ask_minutes, bench_minutes, part_terms
from spindle.diagnosis.planning.problem import Asked, Plan, depth_in, state_of
from spindle.faults.model import Outcome

_SWAP_ANSWERS: Final = (Outcome("no_change", "No change", "No change with the donor's part"), Outcome("clean", "Works", "Works with the donor's part"))

SAME_GO: Final = 3
"""Looks named beside the first move: as many as a hand remembers."""


@dataclass(frozen=True, slots=True)
class Ranked:
    """One move before it is told: "ask", "repair" or "stop", its place among its kind, and its expected cost to the end in euro."""

    kind: str
    index: int
    expected_eur: float
    is_idle: bool = False
    """A question that changes nothing: whatever its answer, the best repair stays. Such a look stands behind all others."""
    p_cures: float = 0.0
    """P(cured), of a repair."""


@dataclass(frozen=True)
class Telling:
    """The moves from one position, ready to be ranked and told."""

    plan: Plan
    at: Position
    choice: Choice
    belief: Belief
    model: CompiledModel

    @property
    def best_repair(self) -> str:
        """The repair that is best now; "" where giving up is."""
        return self._name(int(self.choice.here[self.at.state]))

    @cached_property
    def _joint(self) -> Floats:
        return np.asarray(self.at.w * self.plan.problem.rows(is_home=self.at.is_home))

    @cached_property
    def _tops(self) -> tuple[list[float], list[int], list[float]]:
        """Chance of every answer, the likeliest fault after it, and how likely that is then."""
        chance, top = self._joint.sum(axis=1), self._joint.argmax(axis=1)
        return chance.tolist(), top.tolist(), (self._joint[np.arange(len(top)), top] / np.maximum(chance, 1e-300)).tolist()

    def ranked(self) -> Iterator[Ranked]:
        """Yield every move that is open, in no order."""
        problem, at, choice = self.plan.problem, self.at, self.choice
        here = self.choice.here[problem.asked_in[at.state]]
        stays = np.logical_and.reduceat(choice.first == here[problem.question_of], problem.first_row[:-1]) if len(here) else here
        for n in np.flatnonzero(np.isfinite(choice.ask)):
            yield Ranked("ask", int(n), float(choice.ask[n]), bool(stays[n]))
        cures = problem.aims @ at.w
        for a in np.flatnonzero(np.isfinite(choice.repair)):
            yield Ranked("repair", int(a), float(choice.repair[a]), p_cures=float(cures[a]))
        yield Ranked("stop", -1, problem.giving_up(at.w, at.state))

    def move(self, one: Ranked, saves_eur: float) -> Move:
        """Return a move with everything that is said of it."""
        if one.kind == "repair":
            return self._repair(one, saves_eur)
        if one.kind == "ask":
            return self._ask(one, saves_eur)
        title = "Hand it back: nothing wrong found" if self.model.sound[int(self.belief.p.argmax())] else "Hand it back unrepaired"
        return Move(MoveKind.STOP, "hand_back", title, one.expected_eur, saves_eur, why=why_stop(self.belief, self.model))

    def same_go(self, ranked: Sequence[Ranked]) -> tuple[SameGo, ...]:
        """Return the looks that lie where the first of the moves opens the unit, and pay by themselves: cheapest to the end first.

        Nothing where it opens nothing and leaves the mains as they are: then every look is as near as any other.
        """
        first = ranked[0]
        there, doing = self._place_of(first), min((r.expected_eur for r in ranked if r.kind != "ask"), default=np.inf)
        if there is None or there == self.at.state:
            return ()
        lies = self.plan.problem.asked_in[self.at.state] == there
        pays = (r for r in ranked[1:] if r.kind == "ask" and lies[r.index] and not r.is_idle and r.expected_eur < doing)
        looks = [self.plan.asks[r.index] for r in sorted(pays, key=lambda r: r.expected_eur)]
        return tuple(SameGo(a.id, a.title.partition(":")[0].rstrip("?"), ask_minutes(a, self.model)) for a in looks if a.question is not None)[:SAME_GO]

    def _place_of(self, one: Ranked) -> int | None:
        """Return the state of the bench in which a move's own work is done; None if it is none on the unit."""
        if one.kind == "ask":
            return int(self.plan.problem.asked_in[self.at.state, one.index])
        if one.kind == "repair":
            return state_of(max(depth_in(self.at.state), int(self.model.repairs[one.index].depth)), is_live=False)
        return None

    def mind_changes(self, ranked: Iterable[Ranked]) -> tuple[MindChange, ...]:
        """Return the open answers that would change the best repair, likeliest per euro first. None is a result: stop asking."""
        found = []
        for one in ranked:
            if one.kind != "ask" or one.is_idle:
                continue
            asked, step, rows = self.plan.asks[one.index], self.plan.problem.asking(self.at.state, one.index), self.plan.problem.rows_of(one.index)
            now = self.choice.here[self.plan.problem.asked_in[self.at.state, one.index]]
            for o, chance, then in zip(_outcomes(asked), self._tops[0][rows], self.choice.first[rows], strict=True):
                if then != now:
                    found.append(MindChange(asked.id, o.id, chance, step, self._name(int(then)), asked.title, o.label))
        return tuple(sorted(found, key=lambda c: c.chance / max(c.step_eur, 0.5), reverse=True))

    def _repair(self, one: Ranked, saves_eur: float) -> Move:
        repair, source, success = self.model.repairs[one.index], self.plan.sources[one.index], self.plan.problem.aims[one.index]
        price, wait = part_terms(repair, self.model) if source is None else (source.price_eur, source.wait_days)
        return Move(
            MoveKind.REPAIR,
            repair.id,
            repair.name,
            one.expected_eur,
            saves_eur,
            step_eur=float(self.plan.problem.cost[self.at.state, one.index]),
            bench_min=bench_minutes(repair, self.model),
            opening_min=self._opening_min(repair.depth),
            part_eur=price,
            wait_days=wait,
            depth=repair.depth,
            p_cures=one.p_cures,
            p_lasts_year=float(self.at.w @ (success * self.plan.p_year[one.index])),
            mains="out",
            why=why_repair(repair, self.at.w, success, self.model),
            repair=repair.id,
            item="" if source is None else source.item,
            source=_source_word(source),
        )

    def _ask(self, one: Ranked, saves_eur: float) -> Move:
        asked = self.plan.asks[one.index]
        answers = self._answers(one.index, _outcomes(asked))
        step = self.plan.problem.asking(self.at.state, one.index)
        if asked.question is None:
            return self._swap(asked, one, saves_eur, step, answers)
        question = asked.question
        return Move(
            MoveKind.ASK,
            question.id,
            question.ask,
            one.expected_eur,
            saves_eur,
            step,
            bench_min=ask_minutes(asked, self.model),
            opening_min=self._opening_min(question.depth),
            depth=question.depth,
            mains=question.mains,
            cautions=question.cautions,
            answers=answers,
            why=why_ask(answers, self.at.w, self.model, self._best_after(one.index)),
        )

    def _swap(self, asked: Asked, one: Ranked, saves_eur: float, step_eur: float, answers: tuple[AnswerPreview, ...]) -> Move:
        if asked.swap is None or asked.repair is None:
            raise TypeError("a move that asks is a question or a swap")
        return Move(
            MoveKind.SWAP,
            asked.id,
            asked.title,
            one.expected_eur,
            saves_eur,
            step_eur,
            bench_min=ask_minutes(asked, self.model),
            opening_min=self._opening_min(asked.repair.depth),
            depth=asked.repair.depth,
            mains="out",
            answers=answers,
            why=why_ask(answers, self.at.w, self.model, self._best_after(one.index)),
            repair=asked.repair.id,
            item=asked.swap.item,
            source="donor",
        )

    def _answers(self, n: int, outcomes: tuple[Outcome, ...]) -> tuple[AnswerPreview, ...]:
        chances, tops, top_p = self._tops
        first = int(self.plan.problem.first_row[n])
        return tuple(
            AnswerPreview(o.id, o.label, chances[row], self.model.faults[tops[row]].id, top_p[row], self._name(int(self.choice.first[row])))
            for row, o in enumerate(outcomes, first)
        )

    def _best_after(self, ask: int) -> str:
        """Return the repair that is best where a question has led, whatever is answered there."""
        return self._name(int(self.choice.here[self.plan.problem.asked_in[self.at.state, ask]]))

    def _name(self, a: int) -> str:
        return "" if a < 0 else self.model.repairs[a].id

    def _opening_min(self, needed: int) -> float:
        table, now = self.model.model.depths.open_min, depth_in(self.at.state)
        return float(table[max(now, needed)] - table[now])


def _outcomes(asked: Asked) -> tuple[Outcome, ...]:
    return _SWAP_ANSWERS if asked.question is None else asked.question.outcomes


def _source_word(source: Stock | None) -> str:
    if source is None:
        return ""
    return "donor" if source.is_donor else "transit" if source.wait_days > 0 else "shelf"
