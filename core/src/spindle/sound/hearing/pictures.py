"""Pictures of a sound: bands and tones over the room, and how the tones drift. One row a frame of 20 ms."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final, NamedTuple

import numpy as np
from numpy.typing import NDArray
from scipy.ndimage import median_filter
from scipy.signal import butter, resample_poly, sosfilt

Floats = NDArray[np.float32]
RATE: Final = 16_000
"""Samples a second that everything is heard at."""
HOP: Final = 320
FRAME_S: Final = HOP / RATE
BANDS: Final = 20
_BAND_FFT, _TONE_FFT = 512, 2048
_BAND_HZ, _TONE_HZ, _BINS_AN_OCTAVE = (80.0, 7600.0), (110.0, 4200.0), 24
_FLOOR_DB, _TOP_DB = -3.0, 40.0
_ROOM_QUANTILE, _LEAD_FRAMES = 12.0, 50
_NEIGHBOURS, _ROOM_TIMES, _ROOM_PLUS_DB = 25, 1.3, 3.0
DELAYS_S: Final = ((0.12, 8), (0.3, 12), (0.8, 14))
"""The picture of tones is laid on itself so much later, shifted by up to so many bins up and down."""
_UNCHANGING_S: Final = 0.05


@dataclass(frozen=True, slots=True)
class Pictures:
    """What can be seen of a sound.

    Attributes
    ----------
    x : ndarray of shape (n,)
        The samples at :data:`RATE`.
    level_db : ndarray of shape (frames, 20)
        Bands, dB of full scale; ``room_db`` of shape (20,) is the room's, ``bands`` the same over the room.
    tones : ndarray of shape (frames, 126)
        What stands out of its neighbours on a log axis of pitch, dB.
    """

    x: Floats
    level_db: Floats
    room_db: Floats
    bands: Floats
    tones: Floats


class Heard(NamedTuple):
    """One channel at :data:`RATE`, of shape (n,), and the second of the recording at which it begins."""

    x: Floats
    from_s: float


def heard(samples: Floats, rate: int) -> Heard:
    """Return samples of shape (n, channels) as one channel at 16 kHz without what lies under 60 Hz, ends that do not change cut off."""
    x = samples.mean(axis=1, dtype=np.float32)
    first, last = _moving(x, rate)
    x = x[first:last]
    if rate != RATE:
        common = int(np.gcd(rate, RATE))
        x = resample_poly(x, RATE // common, rate // common).astype(np.float32)
    return Heard(np.asarray(sosfilt(butter(2, 60.0, btype="highpass", fs=RATE, output="sos"), x), dtype=np.float32), first / rate)


def pictures_of(x: Floats) -> Pictures:
    """Return the pictures of what was :func:`heard`; a frame for every 20 ms begun."""
    frames = max(1, -(-len(x) // HOP))
    level = 10.0 * np.log10(_power(x, frames, _BAND_FFT) @ _MEL.T + 1e-12)
    room = _room_of(level)
    bands = np.clip(level - room, _FLOOR_DB, _TOP_DB)
    raw = 10.0 * np.log10(_power(x, frames, _TONE_FFT) @ _LOG.T + 1e-12)
    over = raw - median_filter(raw, size=(1, _NEIGHBOURS), mode="nearest")
    tones = np.clip(over - _ROOM_TIMES * np.maximum(_room_of(over), 0.0) - _ROOM_PLUS_DB, 0.0, 30.0)
    return Pictures(x, *(a.astype(np.float32) for a in (level, room, bands, tones)))


def drift(tones: Floats) -> Floats:
    """Return how the tones move, of shape (frames, 15).

    For each of :data:`DELAYS_S`: the match at rest, rising, falling, rising less falling, and the mean shift in bins.
    """
    out = []
    strength = np.sqrt(np.sum(tones**2, axis=1)) + 6.0
    for delay_s, most in DELAYS_S:
        later = np.roll(tones, -round(delay_s / FRAME_S / 2), axis=0)
        sooner = np.roll(tones, round(delay_s / FRAME_S / 2), axis=0)
        padded = np.pad(later, ((0, 0), (most, most)))
        match = np.stack([np.einsum("tb,tb->t", sooner, padded[:, s : s + tones.shape[1]]) for s in range(2 * most + 1)], axis=1)
        match /= (np.roll(strength, -round(delay_s / FRAME_S / 2)) * np.roll(strength, round(delay_s / FRAME_S / 2)))[:, None]
        rest, up, down = match[:, most - 1 : most + 2].max(axis=1), match[:, most + 2 :].max(axis=1), match[:, : most - 1].max(axis=1)
        weight = match**4
        mean = weight @ np.arange(-most, most + 1) / (weight.sum(axis=1) + 1e-4)
        out += [rest, up, down, up - down, mean / most]
    return np.stack(out, axis=1).astype(np.float32)


def pitches() -> Floats:
    """Return the pitch of each bin of the tones, Hz."""
    return _PITCHES.astype(np.float32)


def _moving(x: Floats, rate: int) -> tuple[int, int]:
    """Return where ``x`` begins and ends without ends of 50 ms or more that do not change: a device that was off, or holds its last value."""
    changes = np.flatnonzero(np.diff(x))
    if not len(changes):
        return 0, len(x)
    least = int(_UNCHANGING_S * rate)
    first = int(changes[0]) if changes[0] >= least else 0
    last = int(changes[-1]) + 2 if len(x) - changes[-1] - 2 >= least else len(x)
    return first, last


def _power(x: Floats, frames: int, fft: int) -> Floats:
    """Return power spectra of shape (frames, fft // 2 + 1), windows centred on their frames."""
    half = fft // 2
    padded = np.pad(x, (half, half + frames * HOP - len(x)), mode="reflect" if len(x) > fft else "constant")
    rows = np.lib.stride_tricks.sliding_window_view(padded, fft)[HOP // 2 :: HOP][:frames]
    window = np.hanning(fft).astype(np.float32)
    spectrum = np.fft.rfft(rows * window, axis=1)
    return np.asarray((spectrum.real**2 + spectrum.imag**2) / float(np.sum(window**2)) / half, dtype=np.float32)


def _room_of(level: NDArray[np.floating]) -> NDArray[np.floating]:
    """Return each band's room: the lower of the clip's 12th percentile and the median of its first second."""
    return np.asarray(np.minimum(np.percentile(level, _ROOM_QUANTILE, axis=0), np.median(level[:_LEAD_FRAMES], axis=0)))


def _mel_rows() -> Floats:
    """Return triangles of shape (20, 257), even on the mel scale of O'Shaughnessy (1987)."""
    low, high = (2595.0 * math.log10(1.0 + hz / 700.0) for hz in _BAND_HZ)
    mel = np.linspace(low, high, BANDS + 2)
    return _triangles(700.0 * (10.0 ** (mel / 2595.0) - 1.0), _BAND_FFT)


def _triangles(edges_hz: NDArray[np.floating], fft: int) -> Floats:
    f = np.fft.rfftfreq(fft, 1.0 / RATE)
    low, middle, high = edges_hz[:-2, None], edges_hz[1:-1, None], edges_hz[2:, None]
    rows = np.clip(np.minimum((f - low) / (middle - low), (high - f) / (high - middle)), 0.0, None)
    nearest = np.abs(f[None, :] - middle).argmin(axis=1)
    rows[np.arange(len(rows)), nearest] = np.maximum(rows[np.arange(len(rows)), nearest], 1e-3)
    return np.asarray(rows / rows.sum(axis=1, keepdims=True), dtype=np.float32)


_MEL: Final = _mel_rows()
_PITCHES: Final = _TONE_HZ[0] * 2.0 ** (np.arange(int(_BINS_AN_OCTAVE * np.log2(_TONE_HZ[1] / _TONE_HZ[0]))) / _BINS_AN_OCTAVE)
_LOG: Final = _triangles(_TONE_HZ[0] * 2.0 ** ((np.arange(len(_PITCHES) + 2) - 1.0) / _BINS_AN_OCTAVE), _TONE_FFT)
