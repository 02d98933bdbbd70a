"""A scene played by a voice: what the unit alone sounds like, with exact labels."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Final

import numpy as np

from spindle.sound.kinds import Event, Kind
from spindle.sound.library import sources
from spindle.sound.library.scenes import Scene, Step
from spindle.sound.library.sources import Wave
from spindle.sound.library.voices import ODD, PLAIN, Voice

AT_SPEED: Final = 0.9
"""Share of its speed from which a disc holds; a spin-down ends at :data:`STOPPED`."""
STOPPED: Final = 0.2
JERK_MAX_S: Final = 0.35


@dataclass(frozen=True, slots=True)
class Played:
    """Sound and labels: ``wave`` of shape (n,), float, a hold has an RMS of 1."""

    wave: Wave
    events: tuple[Event, ...]


@dataclass(slots=True)
class _Stage:
    """What was played until now: overlays by their first sample, the disc's speed, labels."""

    voice: Voice
    rate: int
    rng: np.random.Generator
    width: float
    t: float
    laid: list[tuple[float, Wave]] = field(default_factory=list)
    speeds: list[tuple[float, Wave]] = field(default_factory=list)
    roughs: list[tuple[float, float, str]] = field(default_factory=list)
    events: list[Event] = field(default_factory=list)
    now: float = 0.0
    """The disc's speed, turns a second."""

    def n(self, seconds: float) -> int:
        return max(1, int(seconds * self.rate))

    def label(self, kind: Kind, start: float, end: float, **measures: float) -> None:
        self.events.append(Event(kind, float(start), float(end), measures=measures))


def play(scene: Scene, family: str, voice: Voice, rate: int, rng: np.random.Generator, *, width: float = PLAIN, lead_s: float | None = None) -> Played:
    """Return one insert as this unit plays it, with a quiet lead-in and a tail."""
    stage = _Stage(voice, rate, rng, width, float(rng.uniform(1.4, 2.6)) if lead_s is None else lead_s)
    for step in scene.drawn(family, rng):
        _DO[step.name](stage, step)
    if stage.now > 0.0 and rng.random() < 0.5:
        _down(stage, Step("down"))
    return _mixed(stage, stage.t + float(rng.uniform(0.3, 1.5)))


def _load(s: _Stage, step: Step) -> None:
    length = s.n(step.low_s)
    pitch, envelope = np.full(length, s.voice.gear_hz * s.rng.uniform(0.96, 1.04)), sources.soft(length, 0.06) * s.voice.level["loader"]
    t = np.linspace(0.0, 1.0, length)
    pitch *= 1.0 - 0.5 * np.exp(-t * step.low_s / 0.05)
    measures = {}
    if "dips" in step.how:
        dips = int(s.rng.integers(1, 4))
        for at in s.rng.uniform(0.25, 0.85, dips):
            hole = np.exp(-0.5 * ((t - at) * step.low_s / s.rng.uniform(0.05, 0.12)) ** 2)
            pitch *= 1.0 - s.rng.uniform(0.25, 0.5) * hole
            envelope *= 1.0 - s.rng.uniform(0.6, 0.9) * hole
        measures["dips"] = float(dips)
    if "strains" in step.how:
        falls = s.rng.uniform(0.35, 0.9)
        pitch *= 2.0 ** (-falls * np.clip((t - 0.25) / 0.6, 0.0, 1.0))
        measures["falls_oct"] = float(falls)
    s.laid.append((s.t, sources.whine(pitch, envelope, s.rate, s.rng)))
    if "grinds" in step.how:
        at, lasts = s.t + 0.12 * step.low_s, 0.8 * step.low_s
        s.laid.append((at, sources.grinding(float(s.rng.uniform(3.0, 9.0)), s.n(lasts), s.rate, 1.3 * s.voice.level["grind"], s.rng)))
        s.label(Kind.GRIND, at, at + lasts)
    s.label(Kind.LOAD, s.t, s.t + step.low_s, **measures)
    s.t += step.low_s


def _slip(s: _Stage, step: Step) -> None:
    length = s.n(step.low_s)
    rise = s.rng.uniform(0.25, 0.7)
    t = np.linspace(0.0, 1.0, length)
    pitch = s.voice.gear_hz * 2.0 ** (rise * t ** s.rng.uniform(0.5, 1.0)) * (1.0 - 0.4 * np.exp(-t * step.low_s / 0.05))
    s.laid.append((s.t, sources.whine(pitch, sources.soft(length, 0.05) * s.voice.level["loader"], s.rate, s.rng)))
    s.label(Kind.SLIP, s.t, s.t + step.low_s)
    s.t += step.low_s


def _hum(s: _Stage, step: Step) -> None:
    length, pitch = s.n(step.low_s), float(s.rng.uniform(95.0, 240.0))
    s.laid.append((s.t, sources.whine(np.full(length, pitch), sources.soft(length, 0.04) * s.voice.level["hum"], s.rate, s.rng)))
    s.label(Kind.HUM, s.t, s.t + step.low_s)
    s.t += step.low_s


def _clunk(s: _Stage, _step: Step) -> None:
    s.laid.append((s.t, sources.thud(s.voice, s.rate, s.rng)))
    s.label(Kind.CLUNK, s.t, s.t + 0.15)
    s.t += 0.2


def _seek(s: _Stage, _step: Step) -> None:
    s.t = _chirp_at(s, s.t) + float(s.rng.uniform(0.05, 0.2))


def _chirp_at(s: _Stage, at: float) -> float:
    lasts = float(s.rng.uniform(0.07, 0.25))
    s.laid.append((at, sources.chirp(s.n(lasts), s.voice, s.rate, s.rng)))
    s.label(Kind.CHIRP, at, at + lasts)
    return at + lasts


def _focus(s: _Stage, step: Step) -> None:
    period, at, start = 1.0 / s.rng.uniform(1.2, 4.0), s.t, s.t
    end = s.t
    while at < start + step.low_s or end == start:
        lasts = float(s.rng.uniform(0.06, 0.16))
        s.laid.append((at, sources.buzz(s.n(lasts), s.voice, s.rate, s.rng)))
        end, at = at + lasts, at + period * s.rng.uniform(0.97, 1.03)
    s.label(Kind.FOCUS, start, end)
    s.t = end + 0.1


def _up(s: _Stage, step: Step) -> None:
    lasts = -np.log(1.0 - AT_SPEED) * s.voice.tau_up_s
    t = np.arange(s.n(lasts)) / s.rate
    _turn(s, s.voice.turns_hz * (1.0 - np.exp(-t / s.voice.tau_up_s)), step)
    s.label(Kind.SPIN_UP, s.t, s.t + lasts, tau_s=s.voice.tau_up_s, turns_hz=s.voice.turns_hz)
    s.t += lasts


def _hold(s: _Stage, step: Step) -> None:
    if s.now <= 0.0:
        return
    t = np.arange(s.n(step.low_s)) / s.rate
    _turn(s, s.voice.turns_hz - (s.voice.turns_hz - s.now) * np.exp(-t / s.voice.tau_up_s), step)
    s.label(Kind.HOLD, s.t, s.t + step.low_s, turns_hz=s.voice.turns_hz, wobble=1.0 if "wobbles" in step.how else 0.0)
    at = s.t + float(s.rng.uniform(0.1, 0.6))
    while "seeks" in step.how and at < s.t + step.low_s - 0.4:
        at = _chirp_at(s, at) + float(s.rng.exponential(0.9)) + 0.12
    if "ticks" in step.how and step.low_s > 1.5:
        lasts = float(s.rng.uniform(0.7, min(3.0, step.low_s - 0.8)))
        _tick_at(s, s.t + float(s.rng.uniform(0.2, step.low_s - lasts - 0.2)), lasts)
    s.t += step.low_s


def _down(s: _Stage, step: Step) -> None:
    if s.now <= 0.0:
        return
    tau = s.voice.tau_down_s
    t = np.arange(s.n(3.0 * tau)) / s.rate
    lasts = tau * np.log(s.now / (STOPPED * s.voice.turns_hz))
    _turn(s, s.now * np.exp(-t / tau) * np.clip((3.0 * tau - t) / (0.5 * tau), 0.0, 1.0), step)
    s.label(Kind.SPIN_DOWN, s.t, s.t + lasts, tau_s=tau)
    s.t, s.now = s.t + 3.0 * tau, 0.0


def _jerk(s: _Stage, step: Step) -> None:
    lasts, reach = float(s.rng.uniform(0.14, JERK_MAX_S - 0.03)), s.rng.uniform(0.12, 0.4)
    rise, fall = s.n(0.65 * lasts), s.n(0.5)
    top = s.voice.turns_hz * reach
    speed = np.concatenate([top * np.linspace(0, 1, rise), top * np.exp(-np.arange(fall) / s.rate / (0.35 * lasts))])
    _turn(s, speed, step)
    at = s.t
    s.laid.append((at, 0.5 * sources.thud(s.voice, s.rate, s.rng) * s.rng.uniform(0.1, 0.5)))
    s.label(Kind.JERK, at, at + lasts)
    s.t, s.now = at + lasts + 0.2, 0.0


def _tick(s: _Stage, step: Step) -> None:
    _tick_at(s, s.t, step.low_s)
    s.t += step.low_s


def _tick_at(s: _Stage, at: float, lasts: float) -> None:
    rate_hz, clicks = float(s.rng.uniform(8.0, 25.0)), []
    bounce = 0.35 if s.width > PLAIN else 0.0
    for k in range(max(4, int(lasts * rate_hz))):
        when = at + (k + s.rng.normal(0.0, 0.012)) / rate_hz
        clicks.append(when)
        loud = s.rng.uniform(1.0 - 0.25 * s.width, 1.0)
        s.laid.append((max(0.0, when), loud * sources.click(s.voice, s.rate, s.rng)))
        if s.rng.random() < bounce:
            s.laid.append((when + s.rng.uniform(0.008, 0.02), 0.4 * loud * sources.click(s.voice, s.rate, s.rng)))
    s.label(Kind.TICKING, at, clicks[-1] + 0.02, rate_hz=rate_hz)


def _rest(s: _Stage, step: Step) -> None:
    s.t += step.low_s


def _turn(s: _Stage, speed: Wave, step: Step) -> None:
    """Append to the disc's speed; what is rough in it lasts as long."""
    s.speeds.append((s.t, speed))
    for how in step.how:
        if how in ("rough", "wobbles", "scrapes"):
            s.roughs.append((s.t, s.t + len(speed) / s.rate, how))
    s.now = float(speed[-1])


_DO: Final = {
    "load": _load,
    "slip": _slip,
    "hum": _hum,
    "clunk": _clunk,
    "home": _seek,
    "seek": _seek,
    "focus": _focus,
    "up": _up,
    "hold": _hold,
    "down": _down,
    "jerk": _jerk,
    "tick": _tick,
    "rest": _rest,
}


def _mixed(s: _Stage, ends: float) -> Played:
    speed = np.zeros(s.n(ends) + s.n(1.0))
    for at, part in s.speeds:
        first = s.n(at)
        kept = min(len(part), len(speed) - first)
        speed[first : first + kept] = part[:kept]
    how = {h for _, _, h in s.roughs}
    level, odd = s.voice.level, s.width >= ODD
    wave = sources.spindle(
        speed,
        s.voice,
        s.rate,
        s.rng,
        rough=level["grind"] if "rough" in how else 0.0,
        wobble=float(s.rng.uniform(0.45, 0.9)) if "wobbles" in how else 0.0,
        scrape=level["scrape"] if "scrapes" in how else 0.0,
    )
    if odd:
        wave *= sources.wander(len(wave), s.rate, s.rng, 0.15)
    for at, part in s.laid:
        first = s.n(at)
        kept = min(len(part), len(wave) - first)
        if kept > 0:
            wave[first : first + kept] += part[:kept]
    _label_roughs(s)
    end = s.n(ends)
    events = (e if e.end_s <= ends else Event(e.kind, e.start_s, ends, measures=e.measures) for e in s.events if e.start_s < ends)
    return Played(wave[:end], tuple(sorted(_joined(events), key=lambda e: (e.start_s, e.end_s))))


def _label_roughs(s: _Stage) -> None:
    """A rough disc is heard from a third of its speed on."""
    for start, end, how in s.roughs:
        kind = {"rough": Kind.GRIND, "scrapes": Kind.SCRAPE}.get(how)
        if kind is not None:
            is_up = any(e.kind is Kind.SPIN_UP and abs(e.start_s - start) < 1e-6 for e in s.events)
            s.label(kind, start + (0.4 * s.voice.tau_up_s if is_up else 0.0), end)


def _joined(events: object) -> list[Event]:
    """Join what touches: a hold after a hold, grinding through spin-up and hold."""
    found: list[Event] = []
    for event in sorted(events, key=lambda e: (e.kind, e.start_s)):  # type: ignore[call-overload]  # any iterable of events
        last = found[-1] if found else None
        if last is not None and last.kind is event.kind and event.kind in (Kind.HOLD, Kind.GRIND, Kind.SCRAPE) and event.start_s - last.end_s < 0.05:
            found[-1] = Event(last.kind, last.start_s, max(last.end_s, event.end_s), measures=last.measures)
        else:
            found.append(event)
    return found
