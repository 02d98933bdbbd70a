"""Recordings of the demo, played by the library of labelled sounds: no drive was recorded for them."""

from __future__ import annotations

import numpy as np
from spindle.sound.library.clips import clip_of
from spindle.sound.library.scenes import SCENES
from spindle.sound.library.voices import draw_voice
from spindle.sound.wav import write_wav

RATE = 22_050
SNR_DB = 24.0


def played(scene: str, family: str, seed: int, *, rate: int = RATE) -> bytes:
    """Return a scene of the library as a WAV file: one unit's voice in one room."""
    rng = np.random.default_rng([seed, 59])
    clip = clip_of(SCENES[scene], family, draw_voice(rng), SNR_DB, rng, rate=rate)
    return write_wav(clip.samples, clip.rate)
