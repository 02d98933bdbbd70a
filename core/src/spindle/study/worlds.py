"""The worlds of the study: like the planner's own fault model, or unlike it in a stated way."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from types import MappingProxyType
from typing import Final

import numpy as np

from spindle.diagnosis.given.compiled import CompiledModel, Floats, compile_model
from spindle.diagnosis.given.economy import Economy
from spindle.diagnosis.planning.futures import Unit, throw_units
from spindle.diagnosis.planning.problem import Plan, Problem, plan_for
from spindle.drives.sheet import DriveSheet, Pairing

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

    @property
    def problem(self) -> Problem:
        """The planner's problem."""
        return self.plan.problem


def setup(family: str, economy: Economy | None = None) -> Setup:
    """Return one family's drive, model and plan."""
    model = compile_model(SHEETS[family])
    return Setup(family, model, plan_for(model, economy or Economy()))


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
    {"matched": _matched, "priors": _priors, "rows": _rows, "repairs": _repairs, "slips": _slips, "perturbed": _all_of_it}
)
"""Name -> how the world departs from the planner's model. Rows need not sum to 1: an answer is thrown in proportion."""


def world_of(name: str, ready: Setup, rng: np.random.Generator) -> TrueWorld:
    """Return one draw of a world for a family."""
    prior = np.where([bool(f.opened_by) for f in ready.model.faults], 0.0, ready.model.prior)
    return WORLDS[name](TrueWorld(name, prior / prior.sum(), ready.problem.likelihood, ready.problem.success), rng)


def units_of(world: TrueWorld, ready: Setup, n: int, rng: np.random.Generator) -> list[Unit]:
    """Return ``n`` units of a world."""
    return throw_units(n, world.prior, world.likelihood, world.success, ready.problem.first_row, rng)
