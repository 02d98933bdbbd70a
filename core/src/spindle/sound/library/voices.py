"""A voice is one unit: its pitches, speeds and levels. No two are alike."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np

PLAIN, ODD = 1.0, 1.5
"""How wide pitches and speeds are drawn: as the library has them, and 1.5 times wider (in octaves) to see what breaks."""
MIDDLE: Final = {
    "gear_hz": (260.0, 900.0),  # whine of a small motor through a worm
    "turns_hz": (16.0, 72.0),  # from a slow disc of the long wave to a fast one of the short
    "commutations": (6.0, 18.0),  # a turn: 9 coils and 12 poles make 18 at most
    "tau_up_s": (0.5, 1.4),  # a disc of 15 g on a motor of a few mNm
    "tau_down_s": (0.3, 0.8),  # braked
    "chirp_hz": (700.0, 2800.0),
    "click_hz": (1400.0, 4800.0),  # plastic on plastic
    "buzz_hz": (110.0, 320.0),  # the lens in its coil
    "thud_hz": (70.0, 220.0),
}
LEVELS_DB: Final = {
    "loader": (-5.0, 6.0),
    "chirp": (-5.0, 5.0),
    "click": (0.0, 10.0),
    "buzz": (-9.0, 0.0),
    "thud": (3.0, 12.0),
    "grind": (-6.0, 5.0),
    "scrape": (-10.0, 2.0),
    "tones": (-9.0, 2.0),
    "hum": (-6.0, 4.0),
}
"""Against the unit's own hold. ``tones`` is the whistle of the motor against the rush of the air."""


@dataclass(frozen=True, slots=True)
class Voice:
    """One unit's pitches in Hz, time constants in seconds, and levels as factors of its own hold."""

    gear_hz: float
    turns_hz: float
    commutations: float
    tau_up_s: float
    tau_down_s: float
    chirp_hz: float
    click_hz: float
    buzz_hz: float
    thud_hz: float
    level: dict[str, float]
    imbalance: float
    """Modulation of the rush once a turn; under 0.1 on a balanced disc."""


def draw_voice(rng: np.random.Generator, width: float = PLAIN) -> Voice:
    """Return a unit's voice; a ``width`` over 1 widens every range about its middle, in octaves."""
    drawn = {name: _log(rng, low, high, width) for name, (low, high) in MIDDLE.items()}
    levels = {name: 10.0 ** (rng.uniform(low - 3.0 * (width - 1.0), high + 3.0 * (width - 1.0)) / 20.0) for name, (low, high) in LEVELS_DB.items()}
    return Voice(**{**drawn, "commutations": float(round(drawn["commutations"]))}, level=levels, imbalance=float(rng.uniform(0.0, 0.1)))


def _log(rng: np.random.Generator, low: float, high: float, width: float) -> float:
    middle, half = 0.5 * np.log(low * high), 0.5 * width * np.log(high / low)
    return float(np.exp(rng.uniform(middle - half, middle + half)))
