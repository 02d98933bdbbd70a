"""Is what was learnt better? Each job is judged by what was learnt before it, never by what it taught itself.

A layer has parts, and each is worth having only if it predicts the next jobs better than what is in use, by two standard errors: the
causes, and what faults look like, by the fault that it was, from what was seen at first; the repairs by whether the first one cured; the minutes by what was
taken; the times to play by those of the next proven units.

References
----------
.. [1] A. P. Dawid, "Present position and potential developments: the prequential approach", JRSS A 147, 1984.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from math import log, sqrt
from types import MappingProxyType
from typing import Final

import numpy as np

from spindle.diagnosis.belief.likelihood import unreliability, with_guesses
from spindle.diagnosis.given.compiled import CompiledModel, Floats
from spindle.learning.hands import SPREAD, is_timed
from spindle.learning.layer import Layer, Part
from spindle.learning.past import Past
from spindle.learning.playing import logs_of
from spindle.learning.rows import telling
from spindle.words.witness import Witness

BLOCK: Final = 20
"""So many jobs are judged by one layer, before it is learnt anew with them."""
LEAST: Final = 0.001
"""A chance that was said to be nothing costs no more than one in a thousand: one surprise must not be all."""
NOBODY_KNOWS: Final = (log(20.0), 0.7)
"""Log of a time to play, and its spread, where no sheet says one: twenty seconds, half of them or twice as many."""
SURE: Final = 2.0
"""Standard errors by which a layer has to be better."""


@dataclass(frozen=True, slots=True)
class Judgement:
    """How a part of a layer predicts: what it saves a job over what is in use, with the standard error, over n jobs.

    In nats of the log loss; of minutes, in squares of their log over twice their usual spread, which is the same for a log-normal.
    """

    n: int
    gain: float
    error: float

    @property
    def is_better(self) -> bool:
        """True if it predicts better beyond doubt."""
        return self.n > BLOCK and self.gain > SURE * self.error


def cause_loss(past: Past, layer: Layer, model: CompiledModel) -> float:
    """Return the nats that the cause of a job costs by a layer, as it was believed when its fault had been seen.

    Parameters
    ----------
    model : the shipped model of its drive
    """
    closing = _row(past.closing, model)
    target = closing / max(float(closing.sum()), 1e-12)
    return -float(target @ np.log(np.maximum(_believed(past, layer, model), LEAST))) * past.weight


def repair_loss(past: Past, layer: Layer, model: CompiledModel) -> float | None:
    """Return the nats that the first repair of a job costs by a layer: did it cure? None if none was tried alone."""
    first = next((t for t in past.tried if t.repair in model.repair_index), None)
    if first is None:
        return None
    a, over = model.repair_index[first.repair], layer.over(model)
    bad = over.bad_item[first.health] if over.repairs[a].uses_item else 0.0
    cures = float(_believed(past, layer, model) @ over.success[a]) * (1.0 - bad)
    return -log(max(cures if first.is_clean else 1.0 - cures, LEAST))


def pace_loss(past: Past, layer: Layer, _model: CompiledModel) -> float | None:
    """Return how far the minutes of a job's repairs were from what a layer says; None if none were taken."""
    off = [log(t.minutes / t.planned / layer.pace.get(t.repair, 1.0)) for t in past.took if is_timed(t)]
    return sum(x * x for x in off) / len(off) / (2.0 * SPREAD**2) if off else None


def looks_loss(past: Past, layer: Layer, _model: CompiledModel) -> float | None:
    """Return how far the minutes of a job's looks were from what a layer says; None if none were taken."""
    off = [log(k.minutes / k.planned / layer.looks.get(k.question, 1.0)) for k in past.looked if is_timed(k)]
    return sum(x * x for x in off) / len(off) / (2.0 * SPREAD**2) if off else None


def playing_loss(past: Past, layer: Layer, model: CompiledModel) -> float | None:
    """Return the nats that a proven unit's times to play cost by a layer, each by its log; None if nobody timed it."""
    known = {disc: logs_of(t) for disc, t in layer.times_over(model.sheet).items()}
    timed = {disc: log(s) for disc, s in (past.seconds or {}).items() if disc in model.sheet.classes}
    lost = [log(sd) + 0.5 * ((x - mean) / sd) ** 2 for disc, x in timed.items() for mean, sd in [known.get(disc, NOBODY_KNOWS)]]
    return min(sum(lost) / len(lost), -log(LEAST)) if lost else None


_LOSSES: Final[Mapping[Part, Callable[[Past, Layer, CompiledModel], float | None]]] = MappingProxyType(
    {Part.CAUSES: cause_loss, Part.REPAIRS: repair_loss, Part.PACE: pace_loss, Part.LOOKS: looks_loss, Part.PLAYING: playing_loss, Part.ROWS: cause_loss}
)


def _believed(past: Past, layer: Layer, model: CompiledModel) -> Floats:
    seen = _row(past.seen, model) * layer.prior_over(model) / np.maximum(model.prior, 1e-12)
    rows = layer.rows_over(model)
    for saw in telling(past, model) if rows else ():
        if saw.is_first and saw.question in rows:
            question = model.questions[saw.question]
            eps, place = unreliability(Witness.BENCH, question), [o.id for o in question.outcomes].index(saw.outcome)
            seen *= with_guesses(rows[saw.question], eps)[place] / with_guesses(model.likelihood[saw.question], eps)[place]
    return np.asarray(seen / max(float(seen.sum()), 1e-12))


def _row(of: Mapping[str, float], model: CompiledModel) -> Floats:
    return np.array([of.get(f.id, 0.0) for f in model.faults])


def judge(
    pasts: Sequence[Past], models: Mapping[str, CompiledModel], learnt: Callable[[Sequence[Past]], Layer], in_use: Layer | None = None, knows: int = 0
) -> dict[Part, Judgement]:
    """Return how each part of what is learnt goes on predicting, against what is in use; each beside the others that are in use.

    Parameters
    ----------
    pasts : closed jobs in the order in which they closed
    learnt : makes a layer of the jobs before
    in_use : the layer that stands; None is the shipped models
    knows : so many of the jobs, oldest first, taught the layer that stands. It knows how they came out: a part that it holds is judged by
        the jobs since then alone
    """
    own = [(n, p) for n, p in enumerate(pasts) if p.variant in models]
    rival = in_use or Layer()
    since = {part: knows if rival.holds(part) else 0 for part in Part}
    gains: dict[Part, list[float]] = {part: [] for part in Part}
    for start in range(BLOCK, len(own), BLOCK):
        block = own[start : start + BLOCK]
        if block[-1][0] < min(since.values()):
            continue
        layer = learnt([p for _, p in own[:start]])
        for part, loss in _LOSSES.items():
            with_it = rival.with_parts(layer, {part})
            for past in [p for n, p in block if n >= since[part]]:
                then, now = loss(past, rival, models[past.variant]), loss(past, with_it, models[past.variant])
                if then is not None and now is not None:
                    gains[part].append(then - now)
    return {part: _judged(gains[part]) for part in Part}


def _judged(gains: Sequence[float]) -> Judgement:
    if len(gains) <= 1:
        return Judgement(len(gains), 0.0, 0.0)
    return Judgement(len(gains), float(np.mean(gains)), float(np.std(gains, ddof=1) / sqrt(len(gains))))
