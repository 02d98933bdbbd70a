"""The worlds of the study: like the planner's own fault model, or unlike it in a stated way."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import cached_property
from types import MappingProxyType
from typing import Final

import numpy as np

from spindle.diagnosis.evidence.reach import is_out_of_reach
from spindle.diagnosis.given.compiled import CompiledModel, Floats, compile_model
from spindle.diagnosis.given.economy import Economy
from spindle.diagnosis.planning.futures import Unit, throw_units
from spindle.diagnosis.planning.plan import plan_for
from spindle.diagnosis.planning.problem import Flags, Plan, Problem
from spindle.drives.sheet import DriveSheet, Pairing
from spindle.study.shops import SHOPS
from spindle.words.bench import Instrument, Reach

SHEETS: Final = MappingProxyType(
    {
        "tray": DriveSheet("study tray", "tray", Pairing.BOARD, frozenset({"game_dvd", "film_dvd", "music_cd"}), True, "1 A fast", has_electrolytics=True),
        "slot": DriveSheet("study slot", "slot", Pairing.BOARD, frozenset({"game_bd", "film_bd", "film_dvd"}), True, "1.5 A fast"),
        "lid": DriveSheet(
            "study lid", "lid", Pairing.NONE, frozenset({"game_cd", "music_cd"}), True, "0.5 A slow", True, 2, has_electrolytics=True, has_alignment=True
        ),
    }
)
"""One well-equipped drive of each loader family; nothing on it is left out of the model without need."""


@dataclass(frozen=True)
class TrueWorld:
    """What is true out there, laid out as in the planner's problem.

    Attributes
    ----------
    prior : ndarray of shape (n_faults,)
    likelihood : ndarray of shape (n_rows, n_faults)
        With the disc home; where it does not get home, every later stage is silent.
    success : ndarray of shape (n_repairs, n_faults)
    """

    name: str
    prior: Floats
    likelihood: Floats
    success: Floats


@dataclass(frozen=True)
class Setup:
    """One family made ready to be played."""

    family: str
    model: CompiledModel
    plan: Plan
    lacks: frozenset[Instrument] = frozenset()

    @cached_property
    def can_ask(self) -> Flags:
        """Which questions and swaps this shop has the instruments for, of shape (n_questions,)."""
        return np.array([a.question is None or a.question.instrument not in self.lacks for a in self.plan.asks], dtype=bool)

    @cached_property
    def can_do(self) -> Flags:
        """Which repairs an advice may name here, of shape (n_repairs,)."""
        return np.asarray(self.plan.advisable & [r.instrument not in self.lacks for r in self.plan.repairs])

    @property
    def problem(self) -> Problem:
        """The planner's problem."""
        return self.plan.problem


def setup(family: str, economy: Economy | None = None, *, shop: str = "study") -> Setup:
    """Return one family's drive, model and plan in one of the shops."""
    model, its = compile_model(SHEETS[family]), SHOPS[shop]
    return Setup(family, model, plan_for(model, economy or Economy(), stock=its.shelf(model)), its.lacks)


def _matched(world: TrueWorld, _rng: np.random.Generator) -> TrueWorld:
    return world


def _priors(world: TrueWorld, rng: np.random.Generator) -> TrueWorld:
    """Every fault is up to three times likelier or rarer than believed (log-normal, sigma 0.6)."""
    prior = world.prior * np.exp(rng.normal(0.0, 0.6, len(world.prior)))
    return replace(world, prior=prior / prior.sum())


def _shift(table: Floats, rng: np.random.Generator, sigma: float) -> Floats:
    odds = np.log(table / (1.0 - table)) + rng.normal(0.0, sigma, table.shape)
    return np.asarray(1.0 / (1.0 + np.exp(-odds)))


def _rows(world: TrueWorld, rng: np.random.Generator) -> TrueWorld:
    """Every answer's chance is off by a step of the scale or two (log-odds, sigma 0.6)."""
    return replace(world, likelihood=_shift(np.clip(world.likelihood, 0.004, 0.996), rng, 0.6))


def _repairs(world: TrueWorld, rng: np.random.Generator) -> TrueWorld:
    """Repairs cure less often than believed, each by its own amount."""
    success = np.where(world.success > 0, _shift(np.clip(world.success, 0.004, 0.996), rng, 0.5) * 0.92, 0.0)
    return replace(world, success=success)


def _slips(world: TrueWorld, _rng: np.random.Generator) -> TrueWorld:
    """One answer in eight is a mere guess."""
    flat = np.full_like(world.likelihood, 0.4)
    return replace(world, likelihood=0.9 * world.likelihood + 0.1 * flat)


def _all_of_it(world: TrueWorld, rng: np.random.Generator) -> TrueWorld:
    """Priors, answers and repairs are all off at once."""
    return _repairs(_rows(_priors(world, rng), rng), rng)


WORLDS: Final[MappingProxyType[str, Callable[[TrueWorld, np.random.Generator], TrueWorld]]] = MappingProxyType(
    {"matched": _matched, "priors": _priors, "rows": _rows, "repairs": _repairs, "slips": _slips, "perturbed": _all_of_it, "chain": _matched}
)
"""Name -> how the world departs from the planner's model. Rows need not sum to 1: an answer is thrown in proportion.

In the chain, a disc that is not in does not spin, and one that does not spin reads nothing; see :func:`units_of`.
"""


def world_of(name: str, ready: Setup, rng: np.random.Generator) -> TrueWorld:
    """Return one draw of a world for a family."""
    prior = np.where([bool(f.opened_by) for f in ready.model.faults], 0.0, ready.model.prior)
    return WORLDS[name](TrueWorld(name, prior / prior.sum(), ready.problem.at_home, ready.problem.success), rng)


def units_of(world: TrueWorld, ready: Setup, n: int, rng: np.random.Generator) -> list[Unit]:
    """Return ``n`` units of a world."""
    units = throw_units(n, world.prior, world.likelihood, world.success, ready.problem.first_row, rng)
    return [_chained(u, ready, is_whole=world.name == "chain") for u in units]


def gets_home(unit: Unit, ready: Setup) -> bool:
    """Tell whether a unit's disc gets home: the one hidden step that every world has."""
    n = next(n for n, a in enumerate(ready.plan.asks) if a.id == ready.model.model.home)
    question = ready.model.questions[ready.model.model.home]
    return question.outcomes[int(unit.shows[n])].id not in question.stops


def _chained(unit: Unit, ready: Setup, *, is_whole: bool) -> Unit:
    """A unit that shows as not done whatever it did not reach: what needs a disc that is not home, and in the whole chain every later stage."""
    shows, asked = unit.shows.copy(), [a.question for a in ready.plan.asks]
    stops = [q.stops.get(q.outcomes[o].id) for q, o in zip(asked, shows, strict=True) if q is not None]
    halted = min((s for s in stops if s is not None), default=None) if is_whole else None if gets_home(unit, ready) else Reach.DISC
    for n, question in enumerate(asked):
        if question is not None and is_out_of_reach(question, halted):
            ids = [o.id for o in question.outcomes]
            shows[n] = ids.index(question.bad[-1])
    return replace(unit, shows=shows)
