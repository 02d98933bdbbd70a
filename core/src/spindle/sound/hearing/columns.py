"""What is known of each frame: itself, its surroundings, and what came before and after."""

from __future__ import annotations

import numpy as np
from scipy.ndimage import uniform_filter1d

from spindle.sound.hearing.onsets import beats, levels, onsets
from spindle.sound.hearing.pictures import BANDS, FRAME_S, HOP, Floats, Pictures, drift

_NEAR_S, _WIDE_S = 0.16, 0.8
_ASIDE_S = (0.5, 1.5, 3.0)


def columns(of: Pictures) -> Floats:
    """Return the columns of each frame, of shape (frames, n_columns), float32."""
    base = _base(of)
    near, wide = (_mean(base, s) for s in (_NEAR_S, _WIDE_S))
    few = np.concatenate([_grouped(of.bands), base[:, BANDS : BANDS + 2], base[:, BANDS + 10 : BANDS + 14]], axis=1)
    aside = [np.roll(_mean(few, seconds), round(side * seconds / FRAME_S), axis=0) for seconds in _ASIDE_S for side in (1, -1)]
    return np.asarray(np.concatenate([base, near, wide, *aside], axis=1), dtype=np.float32)


def _base(of: Pictures) -> Floats:
    frames = len(of.bands)
    level = levels(of.x)
    jumps = onsets(level)
    rhythm = beats(level, jumps)
    steps = np.minimum(np.arange(frames)[:, None] * (HOP // 80) + np.arange(HOP // 80), len(level) - 1)
    jump = np.stack([jumps[steps].max(axis=1), jumps[steps].mean(axis=1)], axis=1)
    return np.concatenate([of.bands / 10.0, _tone_columns(of.tones), drift(of.tones), jump, rhythm[steps].mean(axis=1), _grouped(of.bands)], axis=1)


def _tone_columns(tones: Floats) -> Floats:
    """Return the strength, the strongest and its pitch, and four parts of the axis, of shape (frames, 8)."""
    total = tones.sum(axis=1)
    centre = (tones**2) @ np.linspace(0.0, 1.0, tones.shape[1]) / ((tones**2).sum(axis=1) + 1.0)
    parts = [p.sum(axis=1) / 100.0 for p in np.array_split(tones, 4, axis=1)]
    return np.stack([np.log1p(total) / 3.0, tones.max(axis=1) / 10.0, centre, (tones > 3.0).sum(axis=1) / 20.0, *parts], axis=1)


def _grouped(bands: Floats) -> Floats:
    """Return low, middle and bright over the room, of shape (frames, 3)."""
    return np.asarray(np.stack([bands[:, :5].mean(axis=1), bands[:, 5:13].mean(axis=1), bands[:, 13:].mean(axis=1)], axis=1) / 10.0, dtype=np.float32)


def _mean(x: Floats, seconds: float) -> Floats:
    return np.asarray(uniform_filter1d(x, max(1, round(seconds / FRAME_S)), axis=0, mode="nearest"))
