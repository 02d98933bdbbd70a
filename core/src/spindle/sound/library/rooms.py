"""What else is in a recording: the bench's room, the way to the microphone, and the file."""

from __future__ import annotations

from typing import Final

import numpy as np
from scipy.signal import butter, fftconvolve, sosfilt

from spindle.sound.library.sources import Wave, band, noise, soft, wander
from spindle.sound.library.voices import ODD

HEARD_HZ: Final = (150.0, 7500.0)
"""Between these two pitches a unit and its room are compared."""
OTHERS: Final = {"voice": 0.12, "knocks": 0.2, "music": 0.06, "hum": 0.4}
"""How often each is there beside the fan."""


def room(length: int, rate: int, rng: np.random.Generator, width: float) -> Wave:
    """Return a room of ``length`` samples: a fan always, others now and then; in the odd world a fan that changes, and typing."""
    x = _fan(length, rate, rng, width)
    for name, chance in OTHERS.items():
        if rng.random() < chance:
            part = _OTHERS[name](length, rate, rng)
            x += part * rng.uniform(0.3, 1.2) / max(1e-9, float(np.sqrt(np.mean(part**2))))
    if width >= ODD and rng.random() < 0.2:
        x += _typing(length, rate, rng)
    return x


def _fan(length: int, rate: int, rng: np.random.Generator, width: float) -> Wave:
    x = band(noise(length, rng), 60.0, rng.uniform(500.0, 1500.0), rate) + rng.uniform(0.2, 0.7) * band(
        noise(length, rng), 300.0, rng.uniform(2500.0, 7000.0), rate
    )
    t = np.arange(length) / rate
    turns = np.ones(length)
    if width >= ODD and rng.random() < 0.5:
        turns = 1.0 + rng.uniform(-0.2, 0.3) * 0.5 * (1.0 + np.tanh((t - rng.uniform(2.0, t[-1])) / 0.8))
    turned = 2 * np.pi * np.cumsum(turns) / rate
    for _ in range(int(rng.integers(1, 4))):
        x += rng.uniform(0.05, 0.5) * np.sin(rng.uniform(90.0, 900.0) * turned + rng.uniform(0, 6.3))
    return x * turns**2 * wander(length, rate, rng, 0.03)


def _voice(length: int, rate: int, rng: np.random.Generator) -> Wave:
    x, at = np.zeros(length), float(rng.uniform(0.0, 4.0))
    while at < length / rate:
        for _ in range(int(rng.integers(2, 9))):
            n = int(rng.uniform(0.1, 0.3) * rate)
            first = int(at * rate)
            if first + n >= length:
                break
            pitch = rng.uniform(95.0, 230.0) * 2.0 ** (rng.uniform(-0.3, 0.3) * np.linspace(0, 1, n))
            turned = 2 * np.pi * np.cumsum(pitch) / rate
            formants = rng.uniform([300, 900, 2200], [800, 2100, 3200])
            middle = float(np.mean(pitch))
            said = sum(
                np.exp(-0.5 * np.min(np.abs(k * middle - formants) / (90 + 0.06 * formants)) ** 2) * np.sin(k * turned) for k in range(1, int(3600 / middle))
            )
            x[first : first + n] += soft(n, 0.25) * (said + 0.15 * band(noise(n, rng), 2000.0, 6500.0, rate))
            at += n / rate + rng.uniform(0.02, 0.12)
        at += rng.uniform(0.5, 4.0)
    return x


def _knocks(length: int, rate: int, rng: np.random.Generator) -> Wave:
    x = np.zeros(length)
    for _ in range(int(rng.integers(1, 5))):
        first, n = int(rng.uniform(0, length)), int(0.12 * rate)
        t = np.arange(min(n, length - first)) / rate
        x[first : first + n] += rng.uniform(3, 9) * (
            np.exp(-t / 0.02) * np.sin(2 * np.pi * rng.uniform(90, 400) * t) + 0.5 * np.exp(-t / 0.006) * rng.standard_normal(len(t))
        )
    return x


def _music(length: int, rate: int, rng: np.random.Generator) -> Wave:
    x, beat, at = np.zeros(length), float(rng.uniform(0.28, 0.6)), 0.0
    while at * rate < length:
        first = int(at * rate)
        n = min(int(1.4 * beat * rate), length - first)
        t = np.arange(n) / rate
        for pitch in 110.0 * 2.0 ** (rng.choice(25, 3) / 12.0 + 1.0):
            x[first : first + n] += np.exp(-t / (1.2 * beat)) * sum(np.sin(2 * np.pi * k * pitch * t) / k for k in range(1, 6))
        at += beat
    return x


def _hum(length: int, rate: int, rng: np.random.Generator) -> Wave:
    t, mains = np.arange(length) / rate, float(rng.choice((50.0, 60.0)))
    return np.asarray(sum(rng.uniform(0.2, 1.0) / k * np.sin(2 * np.pi * mains * k * t + rng.uniform(0, 6.3)) for k in (1, 2, 3, 4, 6, 8, 12)))


def _typing(length: int, rate: int, rng: np.random.Generator) -> Wave:
    x, at = np.zeros(length), float(rng.uniform(0.0, 5.0))
    while at * rate < length - 0.1 * rate:
        first, n = int(at * rate), int(0.03 * rate)
        t = np.arange(n) / rate
        x[first : first + n] += rng.uniform(1.0, 4.0) * np.exp(-t / rng.uniform(0.002, 0.006)) * np.sin(2 * np.pi * rng.uniform(1500, 4500) * t)
        at += rng.gamma(3.0, 0.06) if rng.random() < 0.92 else rng.uniform(1.0, 5.0)
    return x


_OTHERS: Final = {"voice": _voice, "knocks": _knocks, "music": _music, "hum": _hum}


def heard_rms(x: Wave, rate: int) -> float:
    """Return the RMS of what lies between :data:`HEARD_HZ`."""
    high = min(HEARD_HZ[1], 0.47 * rate)
    return float(np.sqrt(np.mean(sosfilt(butter(4, (HEARD_HZ[0], high), btype="bandpass", fs=rate, output="sos"), x) ** 2)))


def echoed(x: Wave, rate: int, rng: np.random.Generator, width: float) -> Wave:
    """Return ``x`` as it comes back from the walls: a reverberation of 0.1 to 0.35 s, 1.5 times that in the odd world."""
    t60 = rng.uniform(0.1, 0.35) * (width if width >= ODD else 1.0)
    t = np.arange(int(t60 * rate)) / rate
    walls = rng.standard_normal(len(t)) * 10.0 ** (-3.0 * t / t60)
    walls[: int(0.003 * rate)] = 0.0
    walls *= rng.uniform(0.15, 0.55) / max(1e-9, float(np.sqrt(np.sum(walls**2))))
    walls[0] = 1.0
    return np.asarray(fftconvolve(x, walls)[: len(x)])


def coloured(x: Wave, rate: int, rng: np.random.Generator) -> Wave:
    """Return ``x`` as the housing and the microphone colour it: a tilt and some resonances, within 6 dB or so."""
    spectrum, f = np.fft.rfft(x), np.fft.rfftfreq(len(x), 1.0 / rate) + 1.0
    gain = rng.uniform(-2.0, 2.0) * np.log2(f / 1000.0)
    for _ in range(4):
        gain += rng.uniform(-6.0, 6.0) * np.exp(-0.5 * (np.log2(f / rng.uniform(150.0, 7000.0)) / 0.25) ** 2)
    return np.asarray(np.fft.irfft(spectrum * 10.0 ** (np.clip(gain, -14.0, 12.0) / 20.0), len(x)))
