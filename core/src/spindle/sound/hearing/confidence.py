"""Scores made honest: of events said to be so sure, so many are there. A logistic of score and length for each kind, learnt on seeds of its own."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import replace
from functools import cache
from types import MappingProxyType

import numpy as np

from spindle.shipped import read_toml
from spindle.sound.kinds import Event, Kind

Curve = tuple[float, float, float]
"""Offset, slope of the score's log odds, slope of the log of the length."""


def honest(events: Iterable[Event], curves: Mapping[Kind, Curve] | None = None) -> list[Event]:
    """Return the events with a chance in place of a score."""
    by_kind = curves if curves is not None else _shipped()
    return [replace(e, p=chance_of(e, by_kind[e.kind])) for e in events]


def chance_of(event: Event, curve: Curve) -> float:
    """Return the chance that an event of this score and length is there."""
    return float(1.0 / (1.0 + np.exp(-(curve[0] + curve[1] * log_odds(event) + curve[2] * np.log(event.length_s + 0.05)))))


def log_odds(event: Event) -> float:
    """Return the score as log odds, held to 6."""
    p = min(max(event.p, 1e-3), 1.0 - 1e-3)
    return float(np.clip(np.log(p / (1.0 - p)), -6.0, 6.0))


@cache
def _shipped() -> Mapping[Kind, Curve]:
    declared = read_toml("spindle.sound.hearing", "confidence")["curves"]
    return MappingProxyType({Kind(kind): (float(a), float(b), float(c)) for kind, (a, b, c) in declared.items()})
