"""The plots of docs/sound.md, from what tools/study_hearing has measured. Run by it."""

from __future__ import annotations

import json

import numpy as np
from matplotlib import pyplot as plt
from plots import BRASS, DOCS, EMBER, INK, VERDIGRIS, begin, save
from spindle.sound.kinds import KIND_WORDS, Kind
from spindle.sound.library.clips import clip_of
from spindle.sound.library.scenes import SCENES
from spindle.sound.library.voices import draw_voice
from spindle.sound.listening import listen

FOUND = json.loads((DOCS / "hearing" / "hearing.json").read_text(encoding="utf-8"))["found"]
SNR = (20, 10, 5)
AIMS = {"library": (0.92, 0.88, 0.80), "odd": (0.83, 0.80, 0.70)}
COLOURS = {"library": INK, "odd": VERDIGRIS, "odder": BRASS}


def worlds() -> None:
    """Draw F1 over the loudness of the room, with what was asked for."""
    figure, panel = plt.subplots(figsize=(7, 3.2))
    for world, colour in COLOURS.items():
        panel.plot(SNR, [FOUND[f"{world}, {s} dB"]["f1"] for s in SNR], "o-", color=colour, label=world)
        if world in AIMS:
            panel.plot(SNR, AIMS[world], "--", color=colour, alpha=0.5, label=f"{world}, asked for")
    panel.set_xlabel("the unit's hold over the room, dB")
    panel.set_ylabel("F1 of events")
    panel.set_ylim(0.6, 1.0)
    panel.invert_xaxis()
    panel.legend(frameon=False, ncols=3, loc="lower left")
    save(figure, "hearing", "worlds")


def kinds() -> None:
    """Draw F1 of each kind in three rooms."""
    figure, panel = plt.subplots(figsize=(7, 3.6))
    place = np.arange(len(Kind))
    for n, (snr, colour) in enumerate(zip(SNR, (INK, VERDIGRIS, EMBER), strict=True)):
        panel.bar(place + 0.27 * (n - 1), [FOUND[f"library, {snr} dB"]["f1_of"][k] for k in Kind], 0.25, color=colour, label=f"{snr} dB")
    panel.set_xticks(place, [KIND_WORDS[k] for k in Kind], rotation=35, ha="right")
    panel.set_ylabel("F1")
    panel.legend(frameon=False, ncols=3, loc="lower center", bbox_to_anchor=(0.5, 1.0))
    save(figure, "hearing", "kinds")


def example() -> None:
    """Draw one recording as the bench sees it: a picture, the labels under it and what was heard."""
    clip = clip_of(SCENES["retries"], "slot", draw_voice(np.random.default_rng(3)), 15.0, np.random.default_rng(9))
    heard = listen(clip.recording)
    figure, (top, below) = plt.subplots(2, 1, figsize=(7, 3.8), sharex=True, height_ratios=(3, 2))
    top.imshow(heard.picture.T, aspect="auto", origin="lower", cmap="Greys", vmin=0, vmax=30, extent=(0, len(heard.picture) * 0.02, 0, 20))
    top.set_yticks([])
    for row, (events, colour) in enumerate(((clip.events, VERDIGRIS), (heard.events, INK))):
        for e in events:
            below.barh(row + 0.12 * (list(Kind).index(e.kind) % 5), e.length_s, left=e.start_s, height=0.1, color=colour)
    below.set_yticks([0.3, 1.3], ["labels", "heard"])
    below.set_xlabel("seconds")
    save(figure, "hearing", "example")


if __name__ == "__main__":
    begin("hearing")
    worlds()
    kinds()
    example()
