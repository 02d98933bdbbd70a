"""What a set of played units amounts to."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict, dataclass
from typing import Final

import numpy as np

from spindle.diagnosis.given.compiled import Floats
from spindle.diagnosis.planning.futures import Game, Unit
from spindle.study.worlds import Setup, gets_home
from spindle.words.bench import Reach

BINS: Final = 10
"""Ten percent each: wide enough for a hundred games to fill."""


@dataclass(frozen=True)
class Summary:
    """One policy in one world: money in euro, shares in [0, 1], parts a job."""

    mean_eur: float
    se_eur: float
    p90_eur: float
    repaired: float
    needless_parts: float
    moves: float
    top1: float
    """Share of units whose fault was the first suspect before the first repair, or at the stop."""
    top3: float
    calibration_error: float
    looking_eur: float
    in_vain_eur: float
    cure_eur: float
    coming_back_eur: float
    giving_up_eur: float


def summarise(games: Sequence[Game], ready: Setup) -> Summary:
    """Return the summary of the games of one policy."""
    cost = np.array([g.cost_eur for g in games])
    at_repair = [_belief_at_first_repair(g, ready) for g in games]
    rank = np.array([int((w > w[g.unit.fault]).sum()) for g, w in zip(games, at_repair, strict=True)])
    return Summary(
        mean_eur=float(cost.mean()),
        se_eur=float(cost.std(ddof=1) / np.sqrt(len(cost))),
        p90_eur=float(np.quantile(cost, 0.9)),
        repaired=float(np.mean([g.is_repaired for g in games])),
        needless_parts=float(np.mean([_needless(g, ready) for g in games])),
        moves=float(np.mean([len(g.beliefs) for g in games])),
        top1=float((rank == 0).mean()),
        top3=float((rank < 3).mean()),
        calibration_error=calibration_error(*_tops(games)),
        looking_eur=_spent(games, "looking"),
        in_vain_eur=_spent(games, "repairs in vain"),
        cure_eur=_spent(games, "the cure"),
        coming_back_eur=_spent(games, "coming back"),
        giving_up_eur=_spent(games, "giving up"),
    )


def _spent(games: Sequence[Game], what: str) -> float:
    return float(np.mean([g.spent_eur.get(what, 0.0) for g in games]))


def _needless(game: Game, ready: Setup) -> int:
    """Return the new parts that went in and did not cure."""
    items = [a for a in game.repairs if ready.plan.repairs[a].uses_item]
    is_mended = game.is_repaired and not ready.model.sound[game.unit.fault]
    return len(items) - int(is_mended and bool(game.repairs) and ready.plan.repairs[game.repairs[-1]].uses_item)


def _belief_at_first_repair(game: Game, ready: Setup) -> Floats:
    """Return the belief before the first repair, rebuilt from what was asked before it; all of it if there was none."""
    problem = ready.problem
    rows = np.array([problem.first_row[i] + seen for kind, i, seen in game.history if kind == "ask"], dtype=np.int64)
    w = ready.model.prior * problem.rows(is_home=bool(problem.brings_home[rows].any()))[rows].prod(axis=0)
    return np.asarray(w / w.sum())


def _tops(games: Sequence[Game]) -> tuple[Floats, Floats]:
    said = [(p, float(top == g.unit.fault)) for g in games for top, p in g.beliefs]
    return np.array([p for p, _ in said]), np.array([hit for _, hit in said])


def calibration_error(said: Floats, came: Floats) -> float:
    """Return the expected calibration error: mean gap between what was said and what came, in :data:`BINS` equal bins.

    Parameters
    ----------
    said : ndarray of shape (n,)
        Chances in [0, 1] that were said.
    came : ndarray of shape (n,)
        1.0 where it was so, else 0.0.

    References
    ----------
    .. [1] M. P. Naeini, G. F. Cooper, M. Hauskrecht, "Obtaining well calibrated probabilities using Bayesian binning", AAAI 2015.
    """
    edge = np.minimum((said * BINS).astype(int), BINS - 1)
    gaps = [abs(said[edge == b].sum() - came[edge == b].sum()) for b in range(BINS)]
    return float(sum(gaps) / len(said))


def ceiling(units: Sequence[Unit], ready: Setup) -> tuple[float, float]:
    """Return top-1 and top-3 with every question of the bench answered: no diagnosis on this model can do better."""
    rows = ready.problem.first_row[:-1]
    free = np.array([a.question is None or a.question.stage < Reach.DISC for a in ready.plan.asks])
    ranks = []
    for unit in units:
        told = np.ones_like(free) if gets_home(unit, ready) else free
        log_w = np.log(ready.model.prior) + np.log(ready.problem.at_home[(rows + unit.shows)[told]]).sum(axis=0)
        ranks.append(int((log_w > log_w[unit.fault]).sum()))
    return float(np.mean(np.array(ranks) == 0)), float(np.mean(np.array(ranks) < 3))


@dataclass(frozen=True)
class Paired:
    """One policy against another on the same units: how much cheaper in percent, and by how many standard errors."""

    saves_percent: float
    standard_errors: float


def paired(mine: Sequence[Game], theirs: Sequence[Game]) -> Paired:
    """Return how much cheaper ``mine`` was than ``theirs``, unit by unit."""
    a, b = np.array([g.cost_eur for g in mine]), np.array([g.cost_eur for g in theirs])
    gain = b - a
    se = gain.std(ddof=1) / np.sqrt(len(gain))
    return Paired(float(100 * gain.mean() / b.mean()), float(gain.mean() / se) if se > 0 else 0.0)


def as_json(found: Summary | Paired) -> dict[str, float]:
    """Return it as plain values, rounded to what can be told apart."""
    return {k: round(v, 4) for k, v in asdict(found).items()}
