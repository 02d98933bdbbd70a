"""Onsets every 5 ms, and whether they come in a beat."""

from __future__ import annotations

from typing import Final

import numpy as np
from scipy.ndimage import maximum_filter1d, uniform_filter1d

from spindle.sound.hearing.pictures import RATE, Floats

STEP: Final = 80
STEP_S: Final = STEP / RATE
_FFT, _TEN = 128, 10
_FAST, _SLOW, _BRIGHT = (8, 26), (48, 200), (3, 26)
"""Lags in steps: ticks and keys (40 to 130 ms), the lens (0.24 to 1 s), what turns (15 to 130 ms)."""


def levels(x: Floats) -> Floats:
    """Return ten bands of shape (steps, 10), dB, every 5 ms."""
    steps = max(1, -(-len(x) // STEP))
    padded = np.pad(x, (_FFT // 2, _FFT // 2 + steps * STEP - len(x)))
    rows = np.lib.stride_tricks.sliding_window_view(padded, _FFT)[STEP // 2 :: STEP][:steps]
    spectrum = np.fft.rfft(rows * np.hanning(_FFT).astype(np.float32), axis=1)
    power = spectrum.real**2 + spectrum.imag**2
    edges = np.unique(np.geomspace(1, _FFT // 2 + 1, _TEN + 3).astype(int))
    grouped = np.add.reduceat(power, edges[:-1], axis=1)[:, -_TEN:]
    return np.asarray(10.0 * np.log10(grouped + 1e-9), dtype=np.float32)


def onsets(level: Floats) -> Floats:
    """Return how much each 5 ms jumps, of shape (steps,): the top four of ten bands against their usual jump within 2 s."""
    before = np.stack([np.roll(level, lag, axis=0) for lag in (2, 4, 6, 8)]).mean(axis=0)
    jump = level - before
    jump[:8] = 0.0
    usual = uniform_filter1d(np.abs(jump), round(2.0 / STEP_S), axis=0, mode="nearest") + 0.5
    return np.asarray(np.clip(np.sort(jump / usual, axis=1)[:, -4:].mean(axis=1), 0.0, 8.0), dtype=np.float32)


def beats(level: Floats, jumps: Floats) -> Floats:
    """Return what repeats, of shape (steps, 8).

    Autocorrelation of the onsets at the best of the fast lags with its double, and that lag; the same of the slow lags; of the bright level;
    its depth (dB) and its kurtosis.
    """
    bright = level[:, -4:].mean(axis=1)
    flat = bright - uniform_filter1d(bright, round(0.5 / STEP_S), mode="nearest")
    var = uniform_filter1d(flat**2, round(0.6 / STEP_S), mode="nearest") + 0.3
    kurtosis = uniform_filter1d(flat**4, round(0.6 / STEP_S), mode="nearest") / var**2
    sharp = np.clip(jumps - 1.2, 0.0, 4.0)
    fast, fast_lag = _repeats(sharp, _FAST, 1, 0.6, with_double=True)
    slow, slow_lag = _repeats(maximum_filter1d(sharp, 5), _SLOW, 4, 2.4, with_double=False)
    turn, turn_lag = _repeats(flat, _BRIGHT, 1, 0.6, with_double=True)
    return np.stack([fast, fast_lag, slow, slow_lag, turn, turn_lag, np.sqrt(var), np.clip(kurtosis, 0.0, 12.0)], axis=1).astype(np.float32)


def _repeats(x: Floats, lags: tuple[int, int], step: int, window_s: float, *, with_double: bool) -> tuple[Floats, Floats]:
    """Return the best autocorrelation about each step, and its lag as a share of the longest."""
    width = round(window_s / STEP_S)
    x = x - uniform_filter1d(x, width, mode="nearest")
    energy = uniform_filter1d(x * x, width, mode="nearest") + 1e-2

    def at(lag: int) -> Floats:
        return np.asarray(uniform_filter1d(x * np.roll(x, lag), width, mode="nearest") / energy)

    tried = list(range(lags[0], lags[1] + 1, step))
    found = np.stack([np.minimum(at(lag), at(2 * lag)) if with_double else at(lag) for lag in tried])
    best = found.argmax(axis=0)
    return found.max(axis=0), np.asarray(tried)[best] / lags[1]
