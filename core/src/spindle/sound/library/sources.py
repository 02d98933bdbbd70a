"""Sums of tones and shaped noise: what one part of a drive sounds like. Amplitudes are such that a hold has an RMS of 1."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.signal import butter, sosfilt

from spindle.sound.library.voices import Voice

Wave = NDArray[np.float64]
_NYQUIST = 0.46
"""Share of the rate above which no partial is drawn."""


def spindle(speed: Wave, voice: Voice, rate: int, rng: np.random.Generator, *, rough: float = 0.0, wobble: float = 0.0, scrape: float = 0.0) -> Wave:
    """Return the sound of a disc that turns.

    Parameters
    ----------
    speed : ndarray of shape (n,)
        Turns a second at each sample.
    rough, wobble, scrape : float
        A bearing in time with the turns; modulation of the rush once a turn; a disc that touches, without a beat.
    """
    share = speed / voice.turns_hz
    turned = np.cumsum(speed) / rate
    x = np.zeros_like(speed)
    tones, partials = voice.level["tones"], (1.0, 0.6, 0.35, 0.2, 0.12)
    scale = tones / np.sqrt(0.5 * sum(p * p for p in partials))
    for k, part in enumerate(partials, start=1):
        heard = (k * voice.commutations * speed) < _NYQUIST * rate
        x += scale * part * heard * share**1.2 * np.sin(2.0 * np.pi * k * voice.commutations * turned + rng.uniform(0, 6.3))
    beat = np.cos(2.0 * np.pi * turned)
    rush = band(noise(len(speed), rng), 350.0, 4500.0, rate)
    x += share**2 * rush * (1.0 + (voice.imbalance + wobble) * beat)
    x /= np.sqrt(1.0 + tones * tones)
    if rough > 0.0:
        x += rough * share * (beat > rng.uniform(0.3, 0.75)) * band(noise(len(speed), rng), 500.0, 6000.0, rate) * 1.6
    if scrape > 0.0:
        x += scrape * share * wander(len(speed), rate, rng, 0.25) * band(noise(len(speed), rng), 3000.0, 7000.0, rate)
    return x


def whine(pitch: Wave, envelope: Wave, rate: int, rng: np.random.Generator) -> Wave:
    """Return a motor through its gears: partials of ``pitch`` (Hz at each sample) and the noise of teeth."""
    turned = 2.0 * np.pi * np.cumsum(pitch) / rate
    x = np.zeros_like(pitch)
    for k in range(1, 7):
        heard = k * pitch < _NYQUIST * rate
        x += heard * np.sin(k * turned + rng.uniform(0, 6.3)) * rng.uniform(0.3, 1.0) / k**0.8
    teeth = band(noise(len(pitch), rng), 500.0, 5000.0, rate) * (1.0 + 0.4 * np.sin(turned / rng.integers(8, 16)))
    return envelope * (0.75 * x + rng.uniform(0.15, 0.5) * teeth)


def chirp(length: int, voice: Voice, rate: int, rng: np.random.Generator) -> Wave:
    """Return a seek of the sled: a sweep up or down, with the noise of its rack."""
    t = np.linspace(0.0, 1.0, length)
    bend = rng.uniform(0.25, 0.8) * rng.choice((-1.0, 1.0))
    pitch = voice.chirp_hz * 2.0 ** (bend * (t - 0.5)) * rng.uniform(0.85, 1.18)
    turned = 2.0 * np.pi * np.cumsum(pitch) / rate
    tone = np.sin(turned) + 0.5 * np.sin(2 * turned) * (2 * pitch < _NYQUIST * rate)
    return np.asarray(voice.level["chirp"] * 1.5 * soft(length, 0.2) * (tone + 0.4 * band(noise(length, rng), 800.0, 5000.0, rate)))


def click(voice: Voice, rate: int, rng: np.random.Generator) -> Wave:
    """Return one click: a resonance that dies in some milliseconds."""
    t = np.arange(int(0.05 * rate)) / rate
    fall = rng.uniform(0.003, 0.009)
    pitch = voice.click_hz * rng.uniform(0.97, 1.03)
    return voice.level["click"] * 3.0 * np.exp(-t / fall) * (np.sin(2 * np.pi * pitch * t) + 0.5 * rng.standard_normal(len(t)))


def thud(voice: Voice, rate: int, rng: np.random.Generator) -> Wave:
    """Return a clamp that comes down, or a tray at its end: a low blow with a click on top."""
    t = np.arange(int(0.25 * rate)) / rate
    low = np.exp(-t / rng.uniform(0.025, 0.06)) * np.sin(2 * np.pi * voice.thud_hz * t)
    top = np.exp(-t / rng.uniform(0.004, 0.012)) * rng.standard_normal(len(t))
    body = np.exp(-t / rng.uniform(0.012, 0.03)) * np.sin(2 * np.pi * voice.thud_hz * rng.uniform(3.0, 6.0) * t)
    return voice.level["thud"] * 1.6 * (low + 0.7 * top + 0.5 * body)


def buzz(length: int, voice: Voice, rate: int, rng: np.random.Generator) -> Wave:
    """Return one up and down of the lens: a faint buzz."""
    t = np.arange(length) / rate
    pitch = voice.buzz_hz * rng.uniform(0.97, 1.03)
    x = sum(np.sin(2 * np.pi * k * pitch * t + rng.uniform(0, 6.3)) / k**0.7 for k in range(1, 8))
    return np.asarray(voice.level["buzz"] * 0.9 * soft(length, 0.3) * x)


def grinding(beat_hz: float, length: int, rate: int, level: float, rng: np.random.Generator) -> Wave:
    """Return broadband noise in time with what turns."""
    t = np.arange(length) / rate
    turns = np.cos(2 * np.pi * beat_hz * t + rng.uniform(0, 6.3)) + 0.25 * np.cos(4 * np.pi * beat_hz * t + rng.uniform(0, 6.3))
    gate = 1.0 / (1.0 + np.exp(-9.0 * (turns - rng.uniform(0.1, 0.5))))
    return level * soft(length, 0.03) * (0.12 + gate) * band(noise(length, rng), 500.0, 6500.0, rate) * 1.7


def scraping(length: int, rate: int, level: float, rng: np.random.Generator) -> Wave:
    """Return something bright that touches, without a beat."""
    return level * 1.4 * soft(length, 0.05) * wander(length, rate, rng, 0.2) * band(noise(length, rng), rng.uniform(2600.0, 3600.0), 7000.0, rate)


def noise(length: int, rng: np.random.Generator) -> Wave:
    """Return white noise with an RMS of 1."""
    return rng.standard_normal(length)


def band(x: Wave, low_hz: float, high_hz: float, rate: int) -> Wave:
    """Return what of ``x`` lies between two pitches, with the RMS that white noise had."""
    high = min(high_hz, _NYQUIST * rate)
    sos: Any = butter(2, (low_hz, high), btype="bandpass", fs=rate, output="sos")
    return np.asarray(sosfilt(sos, x) / np.sqrt(2.0 * (high - low_hz) / rate))


def wander(length: int, rate: int, rng: np.random.Generator, depth: float) -> Wave:
    """Return a level that drifts about 1 over tenths of seconds."""
    knots = max(2, int(length / rate / 0.3) + 2)
    return np.asarray(np.exp(depth * np.interp(np.linspace(0, knots - 1, length), np.arange(knots), rng.standard_normal(knots))))


def soft(length: int, share: float) -> Wave:
    """Return an envelope of ones with both ends rounded over a ``share`` of its length."""
    n = max(1, int(share * length))
    rise = np.sin(0.5 * np.pi * (np.arange(n) + 0.5) / n) ** 2
    out = np.ones(length)
    out[:n] *= rise
    out[length - n :] *= rise[::-1]
    return out
