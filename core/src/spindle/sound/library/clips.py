"""A clip of the library: a scene, a voice and a room, as samples of 16 bit with exact labels."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from spindle.sound.kinds import Event
from spindle.sound.library import rooms
from spindle.sound.library.playing import play
from spindle.sound.library.scenes import SCENES, Scene
from spindle.sound.library.voices import PLAIN, Voice, draw_voice
from spindle.sound.wav import Recording

RATE: Final = 16_000
FULL: Final = 32767.0
PEAK_DBFS: Final = (-36.0, -3.0)
CLIPS_SOMETIMES: Final = 0.1
"""One recording in ten was turned up too far."""
FAMILIES: Final = ("tray", "slot", "lid")
RARE: Final = ("belt", "belt_once", "object", "tooth", "scraped", "bearing", "driver", "stalled", "strains", "rollers")
"""Scenes with sounds that few others have: what is learnt from has more of them than a bench."""


@dataclass(frozen=True, slots=True)
class Clip:
    """Samples of shape (n,), int16, and what is in them."""

    samples: NDArray[np.int16]
    rate: int
    events: tuple[Event, ...]
    scene: str
    family: str

    @property
    def recording(self) -> Recording:
        """The clip as a file of it would be read."""
        return Recording((self.samples / FULL).astype(np.float32)[:, None], self.rate)


def make_clip(seed: int, snr_db: float, *, width: float = PLAIN, rate: int = RATE, rare_share: float = 0.0) -> Clip:
    """Return the clip of a seed: family, scene, voice and room are drawn; ``rare_share`` of them from the scenes whose sounds are rare."""
    rng = np.random.default_rng([seed, 57])
    family = FAMILIES[int(rng.integers(3))]
    scene = draw_scene(family, rng)
    if rare_share and rng.random() < rare_share:
        ids = [s for s in RARE if family in SCENES[s].families]
        scene = SCENES[ids[int(rng.integers(len(ids)))]]
    return clip_of(scene, family, draw_voice(rng, width), snr_db, rng, width=width, rate=rate)


def draw_scene(family: str, rng: np.random.Generator) -> Scene:
    """Return a scene that this family can play; one in six is a healthy one."""
    ids = [s.id for s in SCENES.values() if family in s.families]
    return SCENES["healthy"] if rng.random() < 1 / 6 else SCENES[ids[int(rng.integers(len(ids)))]]


def clip_of(scene: Scene, family: str, voice: Voice, snr_db: float, rng: np.random.Generator, *, width: float = PLAIN, rate: int = RATE) -> Clip:
    """Return a scene in a room, the unit's hold ``snr_db`` over it between 150 and 7500 Hz."""
    played = play(scene, family, voice, rate, rng, width=width)
    around = rooms.room(len(played.wave), rate, rng, width)
    around *= 10.0 ** (-snr_db / 20.0) / rooms.heard_rms(around, rate)
    x = rooms.coloured(rooms.echoed(played.wave, rate, rng, width) + around, rate, rng)
    return Clip(as_16_bit(x, rng), rate, played.events, scene.id, family)


def room_alone(seed: int, seconds: float, *, width: float = PLAIN, rate: int = RATE) -> Clip:
    """Return a room in which no drive stands."""
    rng = np.random.default_rng([seed, 58])
    x = rooms.coloured(rooms.room(int(seconds * rate), rate, rng, width), rate, rng)
    return Clip(as_16_bit(x, rng), rate, (), "room", "")


def as_16_bit(x: NDArray[np.float64], rng: np.random.Generator) -> NDArray[np.int16]:
    """Return ``x`` at the gain of somebody's microphone; one in ten clips."""
    peak = float(np.quantile(np.abs(x), 0.9995))
    gain = 10.0 ** (rng.uniform(*PEAK_DBFS) / 20.0) / max(peak, 1e-9)
    if rng.random() < CLIPS_SOMETIMES:
        gain = rng.uniform(1.1, 2.5) / max(peak, 1e-9)
    return np.asarray(np.clip(np.round(x * gain * FULL), -FULL - 1, FULL), dtype=np.int16)
