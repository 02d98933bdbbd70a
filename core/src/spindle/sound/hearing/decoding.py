"""From scores to events: what is likely as a whole, and one explanation for one sound."""

from __future__ import annotations

from dataclasses import dataclass, replace
from types import MappingProxyType
from typing import Final

import numpy as np
from numpy.typing import NDArray

from spindle.sound.hearing.layer import LOADER, OVERLAYS, SPINDLE, Scores
from spindle.sound.hearing.pictures import FRAME_S, Floats
from spindle.sound.kinds import Event, Kind

_NEVER: Final = 60.0
_TRUST: Final = 0.7
"""Frames next to each other are not independent: each counts for so much of its log chance."""
_SPINDLE_NATS: Final = np.array(
    [  # to rest, up, hold, down, jerk
        [0.0, 5.0, 9.0, _NEVER, 5.0],
        [7.0, 0.0, 3.0, 5.0, 7.0],
        [7.0, 9.0, 0.0, 3.0, _NEVER],
        [3.0, 6.0, 9.0, 0.0, _NEVER],
        [3.0, 5.0, _NEVER, _NEVER, 0.0],
    ]
)
_LOADER_NATS: Final = np.array([[0.0, 4.0, 4.0, 4.0], [4.0, 0.0, 7.0, 7.0], [4.0, 7.0, 0.0, 7.0], [4.0, 7.0, 7.0, 0.0]])
_SHORTEST_S: Final = MappingProxyType(
    {Kind.SPIN_UP: 0.3, Kind.HOLD: 0.12, Kind.SPIN_DOWN: 0.12, Kind.JERK: 0.08, Kind.LOAD: 0.2, Kind.SLIP: 0.3, Kind.HUM: 0.3}
)


@dataclass(frozen=True, slots=True)
class _Gate:
    """Begins over ``up``, ends under ``down``; gaps up to ``joined_s`` are none; shorter than ``least_s`` is nothing."""

    up: float
    down: float
    joined_s: float
    least_s: float


_GATES: Final = MappingProxyType(
    {
        Kind.CHIRP: _Gate(0.8, 0.3, 0.03, 0.05),
        Kind.TICKING: _Gate(0.85, 0.3, 0.4, 0.3),
        Kind.FOCUS: _Gate(0.85, 0.3, 0.7, 0.1),
        Kind.CLUNK: _Gate(0.8, 0.3, 0.05, 0.05),
        Kind.GRIND: _Gate(0.85, 0.3, 0.6, 0.4),
        Kind.SCRAPE: _Gate(0.85, 0.3, 0.8, 0.6),
    }
)
_DIP_DB: Final = 3.0


def events_of(scores: Scores, bands: Floats) -> list[Event]:
    """Return the events, in order of their start; each with the mean score as its chance.

    Parameters
    ----------
    scores : Scores
        Of every frame.
    bands : ndarray of shape (frames, 20)
        Over the room, dB: a hold that dips is two.
    """
    found = _states(scores.spindle, SPINDLE, _SPINDLE_NATS) + _states(scores.loader, LOADER, _LOADER_NATS)
    for column, kind in enumerate(OVERLAYS):
        found += _gated(scores.overlays[:, column], kind)
    return sorted(_one_explanation(_holds_joined(found, bands)), key=lambda e: (e.start_s, e.end_s))


def _states(p: Floats, states: tuple[Kind | None, ...], nats: NDArray[np.float64]) -> list[Event]:
    path = viterbi(_TRUST * np.log(p + 1e-6), nats)
    found = []
    for first, last in _runs(path):
        kind = states[path[first]]
        if kind is not None and (last - first) * FRAME_S >= _SHORTEST_S[kind]:
            found.append(Event(kind, first * FRAME_S, last * FRAME_S, float(p[first:last, path[first]].mean())))
    return found


def viterbi(log_p: NDArray[np.floating], nats: NDArray[np.floating]) -> NDArray[np.intp]:
    """Return the likeliest path through states.

    Parameters
    ----------
    log_p : ndarray of shape (frames, states)
        Log chance of each state in each frame.
    nats : ndarray of shape (states, states)
        What it costs to go from one to another.

    References
    ----------
    .. [1] A. Viterbi, Error bounds for convolutional codes, IEEE Trans. Inf. Theory 13 (1967).
    """
    best, came = log_p[0].copy(), np.zeros(log_p.shape, dtype=np.intp)
    for t in range(1, len(log_p)):
        ways = best[:, None] - nats
        came[t] = ways.argmax(axis=0)
        best = ways[came[t], np.arange(len(best))] + log_p[t]
    path = np.zeros(len(log_p), dtype=np.intp)
    path[-1] = best.argmax()
    for t in range(len(log_p) - 1, 0, -1):
        path[t - 1] = came[t, path[t]]
    return path


def _runs(path: NDArray[np.intp]) -> list[tuple[int, int]]:
    edges = np.flatnonzero(np.diff(path)) + 1
    return list(zip([0, *edges.tolist()], [*edges.tolist(), len(path)], strict=True))


def _gated(p: Floats, kind: Kind) -> list[Event]:
    gate = _GATES[kind]
    spans: list[list[int]] = []
    for first, last in _runs((p >= gate.down).astype(np.intp)):
        if p[first] < gate.down or p[first:last].max() < gate.up:
            continue
        if spans and (first - spans[-1][1]) * FRAME_S <= gate.joined_s:
            spans[-1][1] = last
        else:
            spans.append([first, last])
    found = []
    for first, last in spans:
        if (last - first) * FRAME_S >= gate.least_s - 1e-9:
            inside = p[first:last]
            found.append(Event(kind, first * FRAME_S, last * FRAME_S, float(inside[inside >= gate.down].mean())))
    return found


def _holds_joined(events: list[Event], bands: Floats) -> list[Event]:
    """Hold, "spin-up", hold without a dip of 3 dB is one hold."""
    spindle = sorted((e for e in events if e.kind in SPINDLE), key=lambda e: e.start_s)
    rest = [e for e in events if e.kind not in SPINDLE]
    level = bands.mean(axis=1)
    kept: list[Event] = []
    for event in spindle:
        if len(kept) >= 2 and event.kind is Kind.HOLD and kept[-1].kind in (Kind.SPIN_UP, Kind.JERK) and kept[-2].kind is Kind.HOLD:
            before, between = kept[-2], level[int(kept[-2].end_s / FRAME_S) : max(int(event.start_s / FRAME_S), int(kept[-2].end_s / FRAME_S) + 1)]
            usual = float(np.median(level[int(before.start_s / FRAME_S) : int(event.end_s / FRAME_S)]))
            if float(np.min(between)) > usual - _DIP_DB:
                kept[-2:] = [replace(before, end_s=event.end_s, p=min(before.p, event.p))]
                continue
        kept.append(event)
    return kept + rest


def _one_explanation(events: list[Event]) -> list[Event]:
    """A chirp in ticking or in a jerk, grinding that is ticking, a lens within a hold: one sound, and it has its name already."""
    covers = {Kind.CHIRP: (Kind.TICKING, Kind.JERK), Kind.GRIND: (Kind.TICKING,), Kind.FOCUS: (Kind.HOLD, Kind.TICKING), Kind.CLUNK: (Kind.TICKING,)}
    return [e for e in events if not any(o.kind in covers.get(e.kind, ()) and _inside(e, o) > 0.5 for o in events)]


def overlap_s(event: Event, other: Event) -> float:
    """Return for how many seconds two events are heard at once."""
    return max(0.0, min(event.end_s, other.end_s) - max(event.start_s, other.start_s))


def _inside(event: Event, other: Event) -> float:
    return overlap_s(event, other) / max(event.length_s, FRAME_S)
