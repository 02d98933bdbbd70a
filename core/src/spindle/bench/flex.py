"""A flex, track by track: which pair to read next, and what the readings say. Sound, pushed in one track over, a track open, neighbours short, torn.

Greedy by mutual information over exact beliefs (D. V. Lindley, *Ann. Math. Statist.* 27, 1956); the hypotheses are few enough to keep them all.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np

from spindle.errors import InvalidError

JOINED: Final = 0.97
"""A joined pair reads closed: now and then a tip misses its pad."""
APART: Final = 0.002
PITCHES_MM: Final = ((1.0, 0.005), (0.5, 0.03), (0.3, 0.06))
"""Chance that a tip bridges to one joined neighbour, by pitch: at 0.3 mm a tip is as wide as the gap."""
SURE: Final = 0.98
AGAIN: Final = 0.9
"""A pair once read is worth a little less: the same slip may happen again."""
TORN_MOST: Final = 6
"""Tracks torn in from an edge that are told apart; a longer tear is seen by eye."""
PRIOR: Final = {"sound": 0.65, "one_over": 0.09, "open": 0.17, "short": 0.03, "torn": 0.06}
"""Of flexes that come to a test: most are sound; a crease opens one track; one over is what a hurried hand does (trap T31); a whisker is rare."""

Pair = tuple[str, int, int]
"""("through", i, j): track i at one end to contact j at the other; ("side", i, i + 1): neighbours at one end. Tracks count from 1."""


@dataclass(frozen=True, slots=True)
class Flex:
    """A flat flex of so many tracks."""

    tracks: int
    pitch_mm: float = 1.0

    def __post_init__(self) -> None:
        if not 2 <= self.tracks <= 120:
            raise InvalidError("/tracks", f"A flex has 2 to 120 tracks, got {self.tracks}.")
        if not 0.2 <= self.pitch_mm <= 5.0:
            raise InvalidError("/pitch_mm", f"A pitch is 0.2 to 5 mm, got {self.pitch_mm:g}.")

    @property
    def bridges(self) -> float:
        """The chance that a tip bridges to one joined neighbour, between the stated pitches by straight lines."""
        mm, chance = zip(*sorted(PITCHES_MM), strict=True)
        return float(np.interp(self.pitch_mm, mm, chance))


@dataclass(frozen=True, slots=True)
class Read:
    """One reading of a pair."""

    pair: Pair
    closed: bool


@dataclass(frozen=True)
class Frame:
    """Hypotheses, pairs, and P(closed) of each pair under each: shape (n_pairs, n_hypotheses)."""

    names: tuple[tuple[str, int], ...]
    prior: np.ndarray
    pairs: tuple[Pair, ...]
    closed: np.ndarray


@lru_cache(maxsize=32)
def frame_of(flex: Flex) -> Frame:
    """Return everything that a flex may be, and what each reading of it would then show."""
    n = flex.tracks
    torn = min(TORN_MOST, n - 1)
    names: list[tuple[str, int]] = [("sound", 0), ("one_over", 1), ("one_over", -1)]
    names += [("open", i) for i in range(1, n + 1)] + [("short", i) for i in range(1, n)]
    names += [("torn", k) for k in range(2, torn + 1)] + [("torn", -k) for k in range(2, torn + 1)]
    count = {kind: sum(k == kind for k, _ in names) for kind in PRIOR}
    prior = np.array([PRIOR[k] / count[k] for k, _ in names])
    pairs: tuple[Pair, ...] = (
        *(("through", i, i) for i in range(1, n + 1)),
        *(("through", i, i + 1) for i in range(1, n)),
        *(("through", i + 1, i) for i in range(1, n)),
        *(("side", i, i + 1) for i in range(1, n)),
    )
    closed = np.array([[_p_closed(flex, name, pair) for name in names] for pair in pairs])
    return Frame(tuple(names), prior / prior.sum(), pairs, closed)


def _meets(name: tuple[str, int], end: int, other: int, n: int) -> bool:
    """Tell whether contact ``end`` here is joined to contact ``other`` there."""
    kind, k = name
    shift = k if kind == "one_over" else 0
    if not 1 <= other <= n or other != end + shift:
        return kind == "short" and {end, other} == {k, k + 1}
    if kind == "open":
        return end != k
    if kind == "torn":
        return end > k if k > 0 else end <= n + k
    return True


def _p_closed(flex: Flex, name: tuple[str, int], pair: Pair) -> float:
    where, i, j = pair
    if where == "side":
        return JOINED if name == ("short", i) else APART + flex.bridges
    if _meets(name, i, j, flex.tracks):
        return JOINED
    neighbours = sum(_meets(name, i, j + d, flex.tracks) for d in (-1, 1))
    return APART + neighbours * flex.bridges


@dataclass(frozen=True, slots=True)
class FlexFound:
    """What the readings say so far.

    Attributes
    ----------
    likeliest : (kind, track): "sound" 0; "one_over" +1 or -1; "open" i; "short" i with i + 1; "torn" k from the first edge, -k from the last
    chances : by kind
    next_pair : what to read next; None once it is sure
    may_power : False where one over or a short is likelier than before anything was read, None while it is not ruled out, True once it is (trap T31)
    """

    likeliest: tuple[str, int]
    p: float
    chances: dict[str, float]
    next_pair: Pair | None
    may_power: bool | None


POWER_RISK: Final = 0.02
"""Chance of one over or short that power is not put on."""


def judge_flex(flex: Flex, readings: Sequence[Read]) -> FlexFound:
    """Return what readings say of a flex, and the pair that tells most.

    Raises
    ------
    InvalidError
        If a pair is not one of this flex.
    """
    frame = frame_of(flex)
    place = {p: n for n, p in enumerate(frame.pairs)}
    logs = np.log(frame.prior)
    seen: dict[int, int] = {}
    for n, reading in enumerate(readings):
        row = place.get(reading.pair)
        if row is None:
            raise InvalidError(f"/readings/{n}", f"{reading.pair} is no pair of {flex.tracks} tracks: neighbours, or across to the same or the next one.")
        logs = logs + np.log(frame.closed[row] if reading.closed else 1.0 - frame.closed[row])
        seen[row] = seen.get(row, 0) + 1
    belief = np.exp(logs - logs.max())
    belief /= belief.sum()
    top = int(belief.argmax())
    chances = {kind: float(sum(b for b, (k, _) in zip(belief, frame.names, strict=True) if k == kind)) for kind in PRIOR}
    is_sure = belief[top] >= SURE
    next_pair = None if is_sure else frame.pairs[_most_telling(frame, belief, seen)]
    return FlexFound(frame.names[top], float(belief[top]), chances, next_pair, _may_power(chances))


def _may_power(chances: dict[str, float]) -> bool | None:
    crossed = chances["one_over"] + chances["short"]
    return True if crossed < POWER_RISK else False if crossed > PRIOR["one_over"] + PRIOR["short"] + 1e-9 else None


def _most_telling(frame: Frame, belief: np.ndarray, seen: dict[int, int]) -> int:
    """Return the pair of the most mutual information with what the flex is."""
    p = frame.closed @ belief
    gain = _entropy(p) - _entropy(frame.closed) @ belief
    for row, times in seen.items():
        gain[row] *= AGAIN**times
    return int(gain.argmax())


def _entropy(p: np.ndarray) -> np.ndarray:
    p = np.clip(p, 1e-12, 1.0 - 1e-12)
    return np.asarray(-(p * np.log(p) + (1.0 - p) * np.log1p(-p)))


def said(found: tuple[str, int], tracks: int) -> str:
    """Return a hypothesis in words."""
    kind, k = found
    if kind == "sound":
        return "Sound: every track arrives where it should, and none meets its neighbour."
    if kind == "one_over":
        return f"Pushed in one track over, towards the {'last' if k > 0 else 'first'} track. Do not power it: every line stands on its neighbour's."
    if kind == "open":
        return f"Track {k} is open."
    if kind == "short":
        return f"Tracks {k} and {k + 1} are short. Do not power it."
    ends = f"tracks 1 to {k}" if k > 0 else f"tracks {tracks + k + 1} to {tracks}"
    return f"Torn in from an edge: {ends} are open."


def foil_readings(tracks: int) -> int:
    """Return how many readings find all opens if the far contacts are tied together by foil: two tracks at a time."""
    return math.ceil(tracks / 2)
