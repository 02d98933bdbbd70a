"""What is left of a job, drawn from its diagnosis: hidden faults from what is believed, moves by the advice, repairs that cure or do not, the proof.

It is the engine of the money on the screen, counted in minutes and waits.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from spindle.day.legs import Future, Leg, LegKind, Pace
from spindle.diagnosis.belief.ending import PASS_MIN
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.diagnosis.given.economy import Economy
from spindle.diagnosis.planning.futures import Game, Unit, by_choice, play, throw_units
from spindle.diagnosis.planning.lookahead import Position, pick
from spindle.diagnosis.planning.outlook import look_ahead, unseen
from spindle.diagnosis.planning.plan import Minutes, minutes_of, plan_for
from spindle.diagnosis.planning.problem import Plan, Problem
from spindle.job.stages import Stage
from spindle.job.state import JobState
from spindle.repairs.procedures import procedure_for

FUTURES: Final = 48
"""Ways that a job may go: enough that a day nine times in ten stands on five of them."""
CHECK_MIN: Final = 2.0
"""Minutes of one check of the proof."""
WARM_MIN: Final = 10.0
"""The proof waits for a unit to warm up; nobody has to be there."""
CHECKS: Final = 7
PASSES: Final = 4
"""Of a usual proof, for repairs that are not proposed yet."""
COUNTER_MIN: Final = 5.0
"""To unpack a unit that was taken in, and see what the counter wrote."""


@dataclass(frozen=True)
class Around:
    """What a job's tape does not say.

    Attributes
    ----------
    price_eur_per_min : what the owner pays for a minute
    part : the wait for the proposed repair's part that is on its way; None if nothing is on order
    """

    price_eur_per_min: float
    part: Leg | None = None


def draw_futures(state: JobState, around: Around, pace: Pace, rng: np.random.Generator, *, n: int = FUTURES) -> tuple[Future, ...]:
    """Return ``n`` equally likely ways that a job may go until it can be fetched.

    A unit that goes back as it is, and one that is proven, has but one.
    """
    stage = state.job.stage
    if stage in (Stage.HAND_BACK, Stage.CLOSED):
        return ((),)
    if state.facts.ends_unrepaired:
        return ((Leg(LegKind.BENCH, _shutting(state) + PASS_MIN * state.facts.tries_missing + CHECK_MIN),),)
    drawn = _Drawn(state, around, pace, rng)
    found = drawn.proofs(n) if state.job.is_trial_clean else drawn.repairs(n) if state.procedure is not None else drawn.searches(n)
    return tuple(joined(f) for f in found)


def held(futures: Sequence[Future], minutes: float) -> tuple[Future, ...]:
    """Return futures of a unit that lies for so long until something has passed by itself: cleaner that dries, charge that leaves."""
    return tuple((Leg(LegKind.ALONE, minutes), *f) if f and minutes > 0.0 else f for f in futures)


def unseen_futures(
    model: CompiledModel, economy: Economy, price_eur_per_min: float, pace: Pace, rng: np.random.Generator, *, n: int = FUTURES
) -> tuple[Future, ...]:
    """Return ways that a unit of a drive may go of which nothing is known yet, and for which nothing was agreed."""
    plan = plan_for(model, economy)
    told = Telling(minutes_of(plan, model), _irons(plan, model), pace, 0.0, price_eur_per_min)
    return tuple(joined((Leg(LegKind.BENCH, COUNTER_MIN), *told.legs(g))) for g in _played(unseen(model, plan), plan, rng, n))


def in_any_hands(futures: Sequence[Future]) -> tuple[Future, ...]:
    """Return futures in a shop where everybody solders: nobody hands a unit on for it."""
    return tuple(joined([replace(leg, iron=False) for leg in f]) for f in futures)


def _irons(plan: Plan, model: CompiledModel) -> tuple[bool, ...]:
    """Tell of each repair of a plan whether it takes somebody who solders."""
    return tuple(procedure_for(model.model.family, r.id).skill == "soldering" for r in plan.repairs)


def _shutting(state: JobState) -> float:
    return float(state.job.model.model.depths.close_min[int(state.job.depth)])


def _thrown(at: Position, problem: Problem, rng: np.random.Generator, n: int) -> list[Unit]:
    away = None if at.is_home else (problem.p_home, problem.away)
    return throw_units(n, at.w, problem.at_home, problem.success, problem.first_row, rng, away=away)


def _played(at: Position, plan: Plan, rng: np.random.Generator, n: int) -> list[Game]:
    return play(_thrown(at, plan.problem, rng, n), at, plan.problem, by_choice(pick))


class _Drawn:
    """One job, and the three places from which it may go on."""

    def __init__(self, state: JobState, around: Around, pace: Pace, rng: np.random.Generator) -> None:
        self._state, self._around, self._rng = state, around, rng
        outlook = look_ahead(state.case, state.job.model, state.belief)
        self._plan, self._at = outlook.plan, outlook.position
        self._minutes = minutes_of(self._plan, state.job.model)
        self._irons = _irons(self._plan, state.job.model)
        self._pace = pace

    def _telling(self, agreed_eur: float | None = None) -> Telling:
        agreed = 0.0 if self._state.facts.is_refused else self._state.job.agreed_cents / 100
        return Telling(self._minutes, self._irons, self._pace, agreed if agreed_eur is None else agreed_eur, self._around.price_eur_per_min)

    def searches(self, n: int) -> list[Future]:
        """What is wrong is not known yet."""
        facts, asked = self._state.facts, {a.id: float(m) for a, m in zip(self._plan.asks, self._minutes.ask[self._at.state], strict=True)}
        left = sum(asked.get(q, 0.0) for q in facts.seen_at_least if q not in facts.answered)
        first = left + (COUNTER_MIN if self._state.job.stage is Stage.TAKEN_IN else 0.0)
        before = (Leg(LegKind.BENCH, first),) if first > 0.0 else ()
        return [(*before, *self._telling().legs(g)) for g in _played(self._at, self._plan, self._rng, n)]

    def repairs(self, n: int) -> list[Future]:
        """A repair is proposed: it is done first, and where it cures nothing the search goes on."""
        state, problem = self._state, self._plan.problem
        a = state.job.model.repair_index[state.procedure.repair if state.procedure else ""]
        units = _thrown(self._at, problem, self._rng, n)
        legs = [*self._agreed(), *self._part(a), Leg(LegKind.BENCH, self._left_of(a), iron=self._irons[a])]
        failing = [u for u in units if not u.cures[a]]
        onward = iter(play(failing, self._at.after_repair(a, problem), problem, by_choice(pick)) if failing else ())
        agreed = max(state.facts.proposed_cents, state.job.agreed_cents) / 100
        told = self._telling(agreed)
        return [(*legs, *(told.proof() if u.cures[a] else told.legs(next(onward)))) for u in units]

    def _agreed(self) -> list[Leg]:
        waits = {m.code for m in self._state.missing} & {"consent", "consent_kind", "refused"}
        return [Leg(LegKind.OWNER, self._pace.owner_min)] if waits or self._state.facts.proposed_cents > self._state.facts.agreed_cents else []

    def _part(self, a: int) -> list[Leg]:
        if self._state.job.takings or self._state.job.steps:  # it lies here, or the work has begun
            return []
        if self._around.part is not None:
            return [self._around.part]
        days = float(self._minutes.wait_days[a])
        return [Leg(LegKind.PART, days)] if days > 0.0 else []

    def _left_of(self, a: int) -> float:
        """Return the minutes of a repair that are left, by its steps."""
        steps, whole = self._state.steps, float(self._minutes.repair[self._at.state, a])
        return whole * (len(self._state.facts.open_steps) + 1) / (len([s for s in steps if not s.is_trial]) + 1)

    def proofs(self, n: int) -> list[Future]:
        """It was tried and works: what is left of the proof, and the search again where it fails."""
        facts = self._state.facts
        left = PASS_MIN * max(facts.passes_needed - facts.passes, 0) + CHECK_MIN * len(facts.open_checks) + _shutting(self._state)
        warm = [Leg(LegKind.ALONE, WARM_MIN)] if facts.open_checks else []
        good = (Leg(LegKind.BENCH, left), *warm) if left > 0.0 else ()
        fails = self._rng.random(n) >= self._state.p_fixed
        again = iter(self.searches(int(fails.sum())) if fails.any() else ())
        return [(Leg(LegKind.BENCH, left / 2.0 + PASS_MIN), *next(again)) if f else good for f in fails]


@dataclass(frozen=True)
class Telling:
    """How a game is told in legs: what is over the sum agreed on asks the owner first, once; a part that is not here is waited for."""

    minutes: Minutes
    irons: Sequence[bool]
    pace: Pace
    agreed_eur: float
    price_eur_per_min: float

    def legs(self, game: Game) -> Future:
        """Return a game's legs, its proof included."""
        legs, minutes, agreed = [], self.minutes, self.agreed_eur
        for kind, i, _, at in game.way:
            if kind == "ask":
                legs.append(Leg(LegKind.BENCH, float(minutes.ask[at, i])))
            elif kind == "stop":
                legs.append(Leg(LegKind.BENCH, float(minutes.close[at]) + CHECK_MIN))
            else:
                takes, price = float(minutes.repair[at, i]), float(minutes.price_eur[i])
                asks = price + takes * self.price_eur_per_min
                if asks > agreed:
                    legs.append(Leg(LegKind.OWNER, self.pace.owner_min))
                    agreed = asks
                if minutes.wait_days[i] > 0.0:
                    legs.append(Leg(LegKind.PART, float(minutes.wait_days[i])))
                legs.append(Leg(LegKind.BENCH, takes, iron=self.irons[i]))
        cured = game.is_repaired and bool(game.way) and game.way[-1][0] == "repair"
        return (*legs, *(self.proof() if cured else ()))

    def proof(self) -> Future:
        """Return the legs of a usual proof, the unit shut on the way."""
        return (Leg(LegKind.BENCH, PASS_MIN * PASSES + CHECK_MIN * CHECKS), Leg(LegKind.ALONE, WARM_MIN))


def joined(legs: Sequence[Leg]) -> Future:
    """Return legs with those at the bench that follow each other in the same hands made one, and without those that take nothing."""
    found: list[Leg] = []
    for leg in legs:
        if leg.amount <= 0.0:
            continue
        if found and leg.kind is LegKind.BENCH and found[-1].kind is LegKind.BENCH and found[-1].iron == leg.iron:
            found[-1] = replace(leg, amount=found[-1].amount + leg.amount)
        else:
            found.append(leg)
    return tuple(found)
