"""Playing units to their end: simulated futures of the policy for the money on the screen, and the engine of the study.

A unit is a hidden fault with all its dice thrown beforehand: what each question would show and whether each repair would
cure. So the same unit can be played by different policies, and they can be compared in pairs.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from typing import Final

import numpy as np

from spindle.diagnosis.given.compiled import Floats
from spindle.diagnosis.planning.lookahead import Choice, Pick, Position, one_step_many, pick_in_pairs
from spindle.diagnosis.planning.problem import Flags, Ints, Problem

MAX_MOVES: Final = 80
"""No bench goes on longer; a policy that does is broken."""
FUTURES: Final = 40
"""Futures behind a figure on the screen: enough for a mean within a few euro and for a band."""


@dataclass(frozen=True)
class Unit:
    """One unit with its dice thrown.

    Attributes
    ----------
    fault : int
    shows : ndarray of shape (n_questions,)
        Index of the answer that each question would get.
    cures : ndarray of shape (n_repairs,)
        True where that repair would cure it.
    """

    fault: int
    shows: Ints
    cures: Flags


@dataclass
class Game:
    """How one unit was played."""

    unit: Unit
    at: Position
    history: tuple[tuple[str, int, int], ...] = ()
    spent_eur: dict[str, float] = field(default_factory=dict)
    """What it was spent on: looking, repairs in vain, the cure, what comes back within a year (by its chance), giving up."""
    is_over: bool = False
    is_repaired: bool = False
    """It goes home working: cured, or nothing was wrong with it."""
    way: list[tuple[str, int, int, int]] = field(default_factory=list)
    """(kind, index, what came of it, the state of the bench before it) of each move in its order; the last may be to stop."""
    beliefs: list[tuple[int, float]] = field(default_factory=list)
    """(likeliest fault, its probability) before each move."""

    @property
    def repairs(self) -> list[int]:
        """The repairs that were done, in their order."""
        return [i for kind, i, _, _ in self.way if kind == "repair"]

    @property
    def cost_eur(self) -> float:
        """All that was spent."""
        return sum(self.spent_eur.values())

    def pay(self, what: str, eur: float) -> None:
        """Spend money on something."""
        self.spent_eur[what] = self.spent_eur.get(what, 0.0) + eur


Policy = Callable[[list[Game], Problem], Sequence[Pick]]


def throw_units(  # noqa: PLR0917  # the world's three tables
    n: int, w: Floats, likelihood: Floats, success: Floats, first_row: Ints, rng: np.random.Generator, *, away: tuple[Floats, Floats] | None = None
) -> list[Unit]:
    """Return ``n`` units of a world.

    Parameters
    ----------
    w : ndarray of shape (n_faults,)
        P(fault); need not sum to 1.
    likelihood, success : ndarray of shape (n_rows, n_faults) and (n_repairs, n_faults)
        What is true in that world, laid out as in the problem.
    away : P(the disc gets home | fault), and the likelihood of units whose disc does not; without it all answers are independent.
    """
    faults = rng.choice(len(w), n, p=w / w.sum())
    asked, repaired = rng.random((n, len(first_row) - 1)), rng.random((n, len(success)))
    is_home = np.ones(n, dtype=bool) if away is None else rng.random(n) < away[0][faults]
    units = []
    for i, fault in enumerate(faults):
        column = likelihood[:, fault] if away is None or is_home[i] else away[1][:, fault]
        blocks = zip(first_row[:-1], first_row[1:], asked[i], strict=True)
        shows = np.array([np.searchsorted(np.cumsum(column[a:b]), u * column[a:b].sum()) for a, b, u in blocks])
        units.append(Unit(int(fault), np.minimum(shows, np.diff(first_row) - 1), repaired[i] < success[:, fault]))
    return units


def play(  # the game's rules and its two ends
    units: Sequence[Unit],
    start: Position,
    problem: Problem,
    policy: Policy,
    *,
    known: tuple[tuple[str, int, int], ...] = (),
    stop_after: int = MAX_MOVES,
    keep_going: Callable[[], bool] = lambda: True,
) -> list[Game]:
    """Play every unit to its end by one policy, in lockstep; ``known`` is what was done before ``start``."""
    games = [Game(u, replace(start, w=start.w / start.w.sum()), known) for u in units]
    for _ in range(stop_after):
        running = [g for g in games if not g.is_over]
        if not running or not keep_going():
            break
        for game, move in zip(running, policy(running, problem), strict=True):
            _step(game, move, problem)
    return games


def _step(game: Game, move: Pick, problem: Problem) -> None:
    at = game.at
    top = int(at.w.argmax())
    game.beliefs.append((top, float(at.w[top])))
    if move.kind == "stop":
        is_sound = problem.sound[game.unit.fault] > 0.0
        game.way.append(("stop", -1, int(is_sound), at.state))
        game.pay("the cure" if is_sound else "giving up", float(problem.close[at.state]) + (0.0 if is_sound else problem.give_up_eur))
        game.is_over, game.is_repaired = True, bool(is_sound)
        return
    if move.kind == "ask":
        seen = int(game.unit.shows[move.index])
        game.way.append(("ask", move.index, seen, at.state))
        game.pay("looking", problem.asking(at.state, move.index))
        after = at.after_answer(move.index, seen, problem)
    else:
        seen = int(game.unit.cures[move.index])
        game.way.append(("repair", move.index, seen, at.state))
        game.pay("the cure" if seen else "repairs in vain", float(problem.cost[at.state, move.index]))
        if seen:
            game.pay("the cure", float(problem.close_after[at.state, move.index]))
            game.pay("coming back", float(problem.fades_eur[move.index, game.unit.fault]))
            game.is_over = game.is_repaired = True
            return
        after = at.after_repair(move.index, problem)
    game.history = tuple(sorted((*game.history, (move.kind, move.index, seen))))
    total = float(after.w.sum())
    game.at = replace(after, w=after.w / total)


def by_choice(choose: Callable[[Position, Choice, Problem], Pick]) -> Policy:
    """Return a policy of one step of look-ahead; units with the same history are thought about once."""
    known: dict[object, Pick] = {}

    def policy(games: list[Game], problem: Problem) -> Sequence[Pick]:
        keys = [(g.history, g.at.state) for g in games]
        fresh = {k: g.at for k, g in zip(keys, games, strict=True) if k not in known}
        if fresh:
            choices = one_step_many(list(fresh.values()), problem)
            known.update({k: choose(at, c, problem) for (k, at), c in zip(fresh.items(), choices, strict=True)})
        return [known[k] for k in keys]

    return policy


@dataclass(frozen=True)
class Outturn:
    """What the policy would pay from here, by simulated futures.

    Attributes
    ----------
    mean_eur, median_eur : float
        Expected cost to the end, and the cost that half of the futures stay below. A few dear ends can lift the mean above the band.
    low_eur, high_eur : float
        In four futures of five it ends between these.
    p_repaired : float
        Share of the futures that end repaired.
    """

    mean_eur: float
    median_eur: float
    low_eur: float
    high_eur: float
    p_repaired: float


def outturn(start: Position, problem: Problem, rng: np.random.Generator, *, n: int = FUTURES, keep_going: Callable[[], bool] = lambda: True) -> Outturn:
    """Return what the advice's own policy would pay from here, from ``n`` simulated futures.

    ``keep_going`` is asked before each round of moves, and may raise to give the whole thing up.
    """
    away = None if start.is_home else (problem.p_home, problem.away)
    units = throw_units(n, start.w, problem.at_home, problem.success, problem.first_row, rng, away=away)
    games = play(units, start, problem, by_choice(pick_in_pairs), keep_going=keep_going)
    costs = np.array([g.cost_eur for g in games])
    low, median, high = np.quantile(costs, [0.1, 0.5, 0.9])
    return Outturn(float(costs.mean()), float(median), float(low), float(high), float(np.mean([g.is_repaired for g in games])))
