"""What the ear is worth: on seeds that nothing was learnt or set by, in the library's world, an odd one and one odder still."""

from __future__ import annotations

from collections.abc import Iterable
from concurrent.futures import ProcessPoolExecutor
from dataclasses import replace
from typing import Any, Final

import numpy as np

from spindle.diagnosis.planning.futures import Unit, play
from spindle.sound.answers import QUESTIONS
from spindle.sound.kinds import Kind
from spindle.sound.library.clips import Clip, make_clip, room_alone
from spindle.sound.library.voices import ODD, PLAIN
from spindle.sound.listening import Heard, listen
from spindle.study.measures import paired
from spindle.study.policies import as_at_the_bench, planner, start_of
from spindle.study.sound.scoring import Tally
from spindle.study.worlds import Setup, units_of, world_of

SNR_DB: Final = (20.0, 10.0, 5.0)
WIDTHS: Final = {"library": PLAIN, "odd": ODD, "odder": 2.0}
"""The third was never learnt from: pitches and speeds twice as wide in octaves."""
FIRST_SEED: Final = 50_000_000
"""Far from every seed that was learnt from or looked at: ``--seed`` counts from here."""
ROOM_S: Final = 20.0
EARS_MIN, EARS_RIGHT = 2.0, 0.97
"""A recording takes two minutes at the bench, with knocking and quiet; of its answers so many are right (measured above)."""
_Task = tuple[int, float, float]


def study_hearing(n: int, seed: int) -> dict[str, Any]:
    """Return the figures of ``sound.md``: ``n`` clips for each world and loudness of the room, and as many rooms alone."""
    first = FIRST_SEED + 1_000_000 * seed
    found: dict[str, Any] = {}
    with ProcessPoolExecutor() as pool:
        for name, width in WIDTHS.items():
            for snr in SNR_DB:
                found[f"{name}, {snr:.0f} dB"] = _figures(_tallied(pool.map(_clip, [(first + i, snr, width) for i in range(n)], chunksize=8)))
            rooms = _tallied(pool.map(_room, [(first + i, 0.0, width) for i in range(n)], chunksize=8))
            found[f"{name}, rooms alone"] = {"false_a_minute": round(60.0 * rooms.wrong.total() / rooms.seconds, 2), "minutes": round(rooms.seconds / 60.0)}
    return found


def _clip(task: _Task) -> tuple[Clip, Heard]:
    clip = make_clip(task[0], task[1], width=task[2])
    return clip, listen(clip.recording)


def _room(task: _Task) -> tuple[Clip, Heard]:
    clip = room_alone(task[0], ROOM_S, width=task[2])
    return clip, listen(clip.recording)


def _tallied(heard: Iterable[tuple[Clip, Heard]]) -> Tally:
    tally = Tally()
    for clip, what in heard:
        tally.take(clip, what)
    return tally


def _figures(tally: Tally) -> dict[str, Any]:
    return {
        "f1": round(tally.f1, 3),
        "f1_of": {k.value: round(tally.f1_of(k), 3) for k in Kind},
        "there": {k.value: tally.right[k] + tally.missed[k] for k in Kind},
        "confused": {f"{a} as {b}": n for (a, b), n in tally.confused.most_common(12)},
        "tries_counted": round(float(np.mean(tally.tries)), 3),
        "rate_within_3_percent": round(float(np.mean(np.array(tally.rates) < 0.03)), 3) if tally.rates else None,
        "tau_within_20_percent": round(float(np.mean(np.abs(np.array(tally.taus) - 1.0) < 0.2)), 3) if tally.taus else None,
        "calibration_error": round(tally.calibration_error, 3),
        **{k: round(v, 3) for k, v in tally.answered().items()},
        "wrong_answers": _wrong(tally),
    }


def _wrong(tally: Tally) -> dict[str, int]:
    """Return the answers that were said and are not so, the commonest first."""
    off = [f"{q}: {said} for {so or 'nothing'}" for q, said, so, _ in tally.answers if said and said != so]
    return {name: off.count(name) for name in sorted(set(off), key=lambda x: -off.count(x))[:8]}


def study_ears(ready: Setup, n: int, seed: int) -> dict[str, float]:
    """Return what one recording in place of the sound questions saves, on the same units: percent of the cost, and its error.

    The recording is made first and paid once; each of its answers is right with :data:`EARS_RIGHT`, else a draw of the hat, and the planner knows that.
    """
    rng = np.random.default_rng(seed)
    units = units_of(world_of("matched", ready, rng), ready, n, rng)
    asks = [i for i, a in enumerate(ready.plan.asks) if a.id in QUESTIONS]
    problem, likelihood, home = ready.problem, ready.problem.likelihood.copy(), ready.problem.at_home.copy()
    ask = problem.ask.copy()
    for q in asks:
        rows = slice(problem.first_row[q], problem.first_row[q + 1])
        size = rows.stop - rows.start
        for table in (likelihood, home):
            table[rows] = EARS_RIGHT * table[rows] + (1.0 - EARS_RIGHT) / size
        ask[:, q] = 0.0
    with_ears = replace(problem, likelihood=likelihood, at_home=home, ask=ask)
    policy = as_at_the_bench(ready, planner(ready))
    without = play(units, start_of(ready), problem, policy)
    heard = play([_misheard(u, asks, ready, rng) for u in units], start_of(ready), with_ears, policy)
    for game in heard:
        game.pay("looking", EARS_MIN * ready.plan.economy.rate_eur_per_min)
    a, b = np.array([g.cost_eur for g in heard]), np.array([g.cost_eur for g in without])
    saved = b - a
    return {
        "without_eur": round(float(b.mean()), 2),
        "with_eur": round(float(a.mean()), 2),
        "saved_percent": round(paired(heard, without).saves_percent, 2),
        "error_percent": round(float(100.0 * saved.std(ddof=1) / np.sqrt(n) / b.mean()), 2),
    }


def _misheard(unit: Unit, asks: list[int], ready: Setup, rng: np.random.Generator) -> Unit:
    shows = unit.shows.copy()
    for q in asks:
        if rng.random() > EARS_RIGHT:
            shows[q] = rng.integers(ready.problem.first_row[q + 1] - ready.problem.first_row[q])
    return replace(unit, shows=shows)
