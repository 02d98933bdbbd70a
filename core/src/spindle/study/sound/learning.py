"""How the layer is learnt: Adam over clips of the library, by a seed. Source: D. Kingma and J. Ba, *Adam*, ICLR 2015."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from concurrent.futures import ProcessPoolExecutor
from functools import partial
from typing import Final

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import minimize

from spindle.sound.hearing.columns import columns
from spindle.sound.hearing.confidence import Curve, log_odds
from spindle.sound.hearing.decoding import events_of
from spindle.sound.hearing.layer import LOADER, N_SCORES, OVERLAYS, SPINDLE, Layer, sigmoid, softmax
from spindle.sound.hearing.pictures import FRAME_S, Floats, heard, pictures_of
from spindle.sound.kinds import Event, Kind
from spindle.sound.library.clips import Clip, make_clip, room_alone
from spindle.sound.library.voices import ODD, PLAIN
from spindle.sound.measures import measured
from spindle.study.sound.scoring import matched

SNR_DB: Final = (2.0, 26.0)
"""Drawn evenly between the two for each clip."""
ODD_SHARE, ROOM_SHARE, RARE_SHARE = 0.5, 0.06, 0.4
"""Of the clips, from the odd world; rooms with no drive in them; and scenes with rare sounds."""
HIDDEN, PASSES, RATE, DROPPED, BATCH = 96, 11, 0.004, 0.1, 512
RARE_TIMES: Final = 12.0
_NEAR_CHANGE, _REST_KEPT = 8, 1 / 3
Rows = tuple[NDArray[np.float16], NDArray[np.int8]]


def learn(n_clips: int, seed: int, *, workers: int = 2) -> Layer:
    """Return the layer learnt from ``n_clips`` clips of the library; the same seed gives the same layer."""
    with ProcessPoolExecutor(workers) as pool:
        made = list(pool.map(rows_of, range(seed, seed + n_clips), chunksize=8))
    return fitted(np.concatenate([x for x, _ in made]), np.concatenate([y for _, y in made]), np.random.default_rng(seed))


def curves(layer: Layer, seeds: Iterable[int], *, workers: int = 2) -> dict[Kind, Curve]:
    """Return what makes the scores honest: a logistic for each kind, on clips that the layer has not seen."""
    with ProcessPoolExecutor(workers) as pool:
        told = [pair for pairs in pool.map(partial(judged_events, layer), seeds, chunksize=8) for pair in pairs]
    return {kind: _curve([(e, so) for e, so in told if e.kind is kind]) for kind in Kind}


def judged_events(layer: Layer, seed: int) -> list[tuple[Event, bool]]:
    """Return the events of a clip with their scores, and whether each is there."""
    clip = drawn(seed)
    of = pictures_of(heard(clip.recording.samples, clip.rate).x)
    found = measured(events_of(layer.scores(columns(of)), of.bands), of)
    right = {id(e) for e, _ in matched(found, clip.events)[0]}
    return [(e, id(e) in right) for e in found]


def _curve(told: Sequence[tuple[Event, bool]]) -> Curve:
    """Fit by likelihood, drawn a little towards the score as it is: few events change little."""
    z = np.array([[1.0, log_odds(e), np.log(e.length_s + 0.05)] for e, _ in told]).reshape(-1, 3)
    so, start = np.array([s for _, s in told], dtype=float), np.array([0.0, 1.0, 0.0])

    def cost(w: NDArray[np.float64]) -> float:
        raw = z @ w
        return float(np.sum(np.logaddexp(0.0, raw) - so * raw) + 0.5 * np.sum((w - start) ** 2))

    a, b, c = minimize(cost, start).x
    return round(float(a), 3), round(float(b), 3), round(float(c), 3)


def drawn(seed: int) -> Clip:
    """Return a clip of either world at any loudness of the room, or now and then a room alone."""
    rng = np.random.default_rng([seed, 61])
    width = ODD if rng.random() < ODD_SHARE else PLAIN
    return (
        room_alone(seed, 14.0, width=width) if rng.random() < ROOM_SHARE else make_clip(seed, float(rng.uniform(*SNR_DB)), width=width, rare_share=RARE_SHARE)
    )


def rows_of(seed: int) -> Rows:
    """Return the columns and the labels of a clip, of all frames near a change and a third of the rest."""
    clip, rng = drawn(seed), np.random.default_rng([seed, 62])
    x, from_s = heard(clip.recording.samples, clip.rate)
    found = columns(pictures_of(x))
    labels = labels_of(clip.events, len(found), from_s)
    changed = np.any(np.diff(labels, axis=0, prepend=labels[:1]) != 0, axis=1)
    near = np.convolve(changed, np.ones(2 * _NEAR_CHANGE + 1), "same") > 0
    kept = near | (rng.random(len(found)) < _REST_KEPT)
    return found[kept].astype(np.float16), labels[kept]


def labels_of(events: Iterable[Event], frames: int, from_s: float = 0.0) -> NDArray[np.int8]:
    """Return of each frame the spindle's state, the load motor's, and six times whether, of shape (frames, 8)."""
    labels = np.zeros((frames, 2 + len(OVERLAYS)), dtype=np.int8)
    for event in events:
        rows = slice(*_frames_of(event, from_s))
        if event.kind in SPINDLE:
            labels[rows, 0] = SPINDLE.index(event.kind)
        elif event.kind in LOADER:
            labels[rows, 1] = LOADER.index(event.kind)
        else:
            labels[rows, 2 + OVERLAYS.index(event.kind)] = 1
    return labels


def _frames_of(event: Event, from_s: float) -> tuple[int, int]:
    first = max(0, round((event.start_s - from_s) / FRAME_S))
    return first, max(first + 1, round((event.end_s - from_s) / FRAME_S))


def fitted(x: NDArray[np.float16], y: NDArray[np.int8], rng: np.random.Generator) -> Layer:
    """Return the layer that fits rows of shape (n, columns) to labels of shape (n, 8)."""
    sample = x[:: max(1, len(x) // 60_000)].astype(np.float32)
    mean, scale = sample.mean(axis=0), sample.std(axis=0) + 1e-3
    weights = [_start(rng, x.shape[1], HIDDEN), np.zeros(HIDDEN, np.float32), _start(rng, HIDDEN, N_SCORES), np.zeros(N_SCORES, np.float32)]
    wanted, weight = _wanted(y)
    adam = _Adam(weights)
    steps = PASSES * (len(x) // BATCH)
    done = 0
    for _ in range(PASSES):
        order = rng.permutation(len(x))
        for first in range(0, len(x) - BATCH + 1, BATCH):
            rows = order[first : first + BATCH]
            z = np.clip((x[rows].astype(np.float32) - mean) / scale, -6.0, 6.0)
            adam.step(_slopes(z, wanted[rows], weight[rows], weights, rng), RATE * (1.0 - done / steps) ** 1.2)
            done += 1
    return Layer(mean, scale, *weights)


def _slopes(z: Floats, wanted: Floats, weight: Floats, weights: Sequence[Floats], rng: np.random.Generator) -> list[Floats]:
    inner, at_inner, outer, at_outer = weights
    hidden = np.tanh(z @ inner + at_inner)
    kept = (rng.random(hidden.shape) >= DROPPED).astype(np.float32) / (1.0 - DROPPED)
    used = hidden * kept
    raw = used @ outer + at_outer
    a, b = len(SPINDLE), len(SPINDLE) + len(LOADER)
    said = np.concatenate([softmax(raw[:, :a]), softmax(raw[:, a:b]), sigmoid(raw[:, b:])], axis=1)
    off = (said - wanted) * weight / len(z)
    back = (off @ outer.T) * kept * (1.0 - hidden**2)
    return [z.T @ back, back.sum(axis=0), used.T @ off, off.sum(axis=0)]


def _wanted(y: NDArray[np.int8]) -> tuple[Floats, Floats]:
    """Return what each score should be, and what it weighs: rare kinds more, by one over the root of their share."""
    a, b = len(SPINDLE), len(SPINDLE) + len(LOADER)
    wanted = np.zeros((len(y), N_SCORES), np.float32)
    wanted[np.arange(len(y)), y[:, 0]] = 1.0
    wanted[np.arange(len(y)), a + y[:, 1]] = 1.0
    wanted[:, b:] = y[:, 2:]
    times = np.clip(1.0 / np.sqrt(wanted.mean(axis=0) + 1e-6), 1.0, RARE_TIMES) / 2.0
    weight = np.ones_like(wanted)
    weight[:, :a] = (wanted[:, :a] @ times[:a])[:, None]
    weight[:, a:b] = (wanted[:, a:b] @ times[a:b])[:, None]
    weight[:, b:] = np.where(wanted[:, b:] > 0, times[b:], 1.0)
    return wanted, weight


def _start(rng: np.random.Generator, rows: int, cols: int) -> Floats:
    return np.asarray(rng.standard_normal((rows, cols)) / np.sqrt(rows), dtype=np.float32)


class _Adam:
    """Steps that each weight scales for itself."""

    def __init__(self, weights: Iterable[Floats]) -> None:
        self.weights = list(weights)
        self.first = [np.zeros_like(w) for w in self.weights]
        self.second = [np.zeros_like(w) for w in self.weights]
        self.t = 0

    def step(self, slopes: Sequence[Floats], rate: float) -> None:
        self.t += 1
        for n, slope in enumerate(slopes):
            self.first[n] += 0.1 * (slope - self.first[n])
            self.second[n] += 0.001 * (slope * slope - self.second[n])
            first, second = self.first[n] / (1.0 - 0.9**self.t), self.second[n] / (1.0 - 0.999**self.t)
            self.weights[n] -= rate * first / (np.sqrt(second) + 1e-8)
