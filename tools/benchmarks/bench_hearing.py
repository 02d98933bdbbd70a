"""How long a recording of thirty seconds takes from its bytes to its answers, on one core, and how much memory."""

import resource
import time

import numpy as np
from spindle.sound.library.clips import clip_of
from spindle.sound.library.scenes import SCENES
from spindle.sound.library.voices import draw_voice
from spindle.sound.listening import listen
from spindle.sound.wav import read_wav, write_wav

SECONDS, RATE = 30, 44_100


def test_thirty_seconds_in_stereo():
    clip = clip_of(SCENES["healthy"], "tray", draw_voice(np.random.default_rng(1)), 15.0, np.random.default_rng(2), rate=RATE)
    one = np.resize(clip.samples, SECONDS * RATE)
    content = write_wav(np.stack([one, one], axis=1), RATE)
    listen(read_wav(content))
    before, took = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss, []
    for _ in range(5):
        start = time.perf_counter()
        listen(read_wav(content)).answers("tray")
        took.append(time.perf_counter() - start)
    print(f"\n{np.median(took):.2f} s of 1.0; the process has {before / 1024:.0f} MB at its most")
