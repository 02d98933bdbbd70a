"""What is measured on an event: how fast a disc comes up, how often it ticks, whether it wobbles, whether a load run hesitates."""

from __future__ import annotations

from dataclasses import replace
from typing import Final

import numpy as np
from scipy.ndimage import median_filter, uniform_filter1d
from scipy.signal import butter, sosfilt

from spindle.sound.hearing.decoding import viterbi
from spindle.sound.hearing.pictures import FRAME_S, RATE, Floats, Pictures
from spindle.sound.kinds import Event, Kind

_BIN_OCT: Final = 1.0 / 24.0
_SLOWEST_BINS: Final = 84
"""A disc is followed from an eleventh of its speed on."""
TICK_S: Final = (0.035, 0.14)
"""7 to 28 clicks a second."""
REGULAR: Final = 0.16
"""Under this, clicks are typing."""
WOBBLES: Final = 0.17
_WOBBLE_HZ, _WOBBLE_BAND_HZ = (12.0, 110.0), (900.0, 6500.0)
_DIP_DB, _DIP_S = 5.0, 0.05


def measured(events: list[Event], of: Pictures) -> list[Event]:
    """Return the events with their measures; ticking that is not regular is dropped."""
    found = []
    for event in events:
        match event.kind:
            case Kind.SPIN_UP:
                found.append(replace(event, measures=_rise(event, events, of)))
            case Kind.TICKING:
                rate_hz, regular = click_rate(_cut(of.x, event))
                if regular >= REGULAR:
                    found.append(replace(event, measures={"rate_hz": rate_hz, "regular": regular}))
            case Kind.HOLD if event.length_s >= 1.0:
                found.append(replace(event, measures=_turning(_cut(of.x, event))))
            case Kind.LOAD:
                found.append(replace(event, measures=_loading(event, of)))
            case _:
                found.append(event)
    return found


def _cut(x: Floats, event: Event) -> Floats:
    return x[int(event.start_s * RATE) : int(event.end_s * RATE)]


def _rise(event: Event, events: list[Event], of: Pictures) -> dict[str, float]:
    """Return the time constant of a spin-up whose end is heard: its tones against those of the hold that follows."""
    hold = next((e for e in events if e.kind is Kind.HOLD and abs(e.start_s - event.end_s) < 0.1 and e.length_s >= 0.4), None)
    if hold is None:
        return {}
    first, last = int(event.start_s / FRAME_S), min(int(hold.end_s / FRAME_S), int(event.end_s / FRAME_S) + 150)
    rows, end = of.tones[first:last], of.tones[max(first, last - 30) : last].mean(axis=0)
    if end.max() < 3.0:
        return {}
    moved = np.stack([_shifted(end, k) for k in range(_SLOWEST_BINS)])
    match = rows @ moved.T / (np.linalg.norm(rows, axis=1)[:, None] + 6.0) / (np.linalg.norm(moved, axis=1) + 1e-6)
    steps = np.abs(np.subtract.outer(np.arange(_SLOWEST_BINS), np.arange(_SLOWEST_BINS)))
    nats = np.where(np.subtract.outer(np.arange(_SLOWEST_BINS), np.arange(_SLOWEST_BINS)) >= 0, 0.02 * steps, 1.0 * steps)
    speed = 2.0 ** (-_BIN_OCT * viterbi(8.0 * match, nats))
    heard = match.max(axis=1) > 0.2
    t = np.arange(len(speed)) * FRAME_S
    if heard.sum() < 8:
        return {}
    taus, starts = np.geomspace(0.2, 3.0, 60), np.arange(-0.3, 0.31, 0.05)
    curve = 1.0 - np.exp(-np.clip(t[None, None, :] - starts[None, :, None], 0.0, None) / taus[:, None, None])
    off = np.where(heard, np.abs(curve - speed), 0.0).sum(axis=2)
    best = np.unravel_index(off.argmin(), off.shape)
    return {"tau_s": round(float(taus[best[0]]), 2)}


def _shifted(row: Floats, bins: int) -> Floats:
    return np.concatenate([row[bins:], np.zeros(bins, row.dtype)]) if bins else row


def click_rate(x: Floats) -> tuple[float, float]:
    """Return clicks a second, and how regular they are in [0, 1]: autocorrelation of onsets at 1 ms, over three multiples.

    Examples
    --------
    >>> rate = click_rate((np.arange(16000) % 1000 < 20).astype(np.float32))[0]
    >>> abs(rate - 16.0) < 0.1
    True
    """
    step = RATE // 1000
    sharp = np.abs(sosfilt(butter(2, 900.0, btype="highpass", fs=RATE, output="sos"), x))
    level = np.log(uniform_filter1d(sharp, step)[::step] + 1e-5)
    jump = np.clip(level - np.roll(uniform_filter1d(level, 8), 6), 0.0, None)
    jump[:8] = 0.0
    jump = uniform_filter1d(jump - uniform_filter1d(jump, 400, mode="nearest"), 3)
    n = len(jump)
    spectrum = np.fft.rfft(jump, 2 * n)
    auto = np.fft.irfft(np.abs(spectrum) ** 2)[:n] / np.maximum(1.0, n - np.arange(n))
    auto /= auto[0] + 1e-12
    lags = np.arange(int(1000 * TICK_S[0]), int(1000 * TICK_S[1]) + 1, dtype=float)
    multiples = [m for m in (1, 2, 3) if m * lags[-1] < n - 2]
    if not multiples:
        return 0.0, 0.0
    fine = np.arange(lags[0], lags[-1], 0.1)
    smooth = uniform_filter1d(auto, 5)
    score = np.mean([np.interp(m * fine, np.arange(n), smooth) for m in multiples], axis=0)
    best = _not_a_multiple(fine, score)
    best = int(np.argmax(np.where(np.abs(fine - fine[best]) <= 2.5, score, -1.0)))
    return float(1000.0 / fine[best]), float(max(0.0, score[best]))


def _not_a_multiple(lags: Floats, score: Floats) -> int:
    """Return the best lag, or a half or a third of it where that repeats nearly as well: every click is every second and every third click's too."""
    best = int(score.argmax())
    while True:
        shorter = [_nearest(lags, score, lags[best] / n) for n in (3, 2) if lags[best] / n >= lags[0]]
        again = next((at for at in shorter if score[at] >= 0.6 * score[best]), None)
        if again is None:
            return best
        best = again


def _nearest(lags: Floats, score: Floats, lag: float) -> int:
    """Return the best place within 2 ms of a lag."""
    near = int(np.abs(lags - lag).argmin())
    first = max(0, near - 20)
    return first + int(score[first : near + 20].argmax())


def _turning(x: Floats) -> dict[str, float]:
    """Return the depth of the strongest beat between 12 and 110 Hz in the rush, and how often it comes."""
    rush = np.abs(sosfilt(butter(3, _WOBBLE_BAND_HZ, btype="bandpass", fs=RATE, output="sos"), x))
    level = rush[: len(rush) // 32 * 32].reshape(-1, 32).mean(axis=1)
    level = level / (uniform_filter1d(level, 250, mode="nearest") + 1e-9) - 1.0
    window = np.hanning(len(level))
    spectrum = 2.0 * np.abs(np.fft.rfft(level * window)) / window.sum()
    hz = np.fft.rfftfreq(len(level), 32 / RATE)
    inside = (hz >= _WOBBLE_HZ[0]) & (hz <= _WOBBLE_HZ[1])
    over = np.where(inside, spectrum - median_filter(spectrum, 41, mode="nearest"), 0.0)
    best = int(over.argmax())
    return {"wobble": round(float(over[best]), 3), "turns_hz": round(float(hz[best]), 1)}


def _loading(event: Event, of: Pictures) -> dict[str, float]:
    """Return how often a load run dips, by how many octaves its pitch falls, and how long it takes."""
    rows = slice(int(event.start_s / FRAME_S), max(int(event.end_s / FRAME_S), int(event.start_s / FRAME_S) + 1))
    level = of.bands[rows].mean(axis=1)
    inner = level[5:-5]
    if len(inner) < 15:
        return {}
    low = inner < np.median(inner) - _DIP_DB
    starts = np.flatnonzero(np.diff(low.astype(int), prepend=0) == 1)
    dips = sum(1 for s in starts if low[s : s + round(_DIP_S / FRAME_S)].all())
    tones = of.tones[rows][5:-5]
    third = len(tones) // 4
    early, late = tones[:third].mean(axis=0), tones[-third:].mean(axis=0)
    shifts = np.arange(0, 36)
    match = np.array([float(_shifted(early, int(k)) @ late) for k in shifts]) / (np.linalg.norm(early) * np.linalg.norm(late) + 30.0)
    falls = float(shifts[match.argmax()] * _BIN_OCT) if match.max() > 0.35 else 0.0
    return {"dips": float(dips), "falls_oct": round(falls, 2)}
