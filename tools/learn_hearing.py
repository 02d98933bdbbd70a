"""Learn the ear anew: the layer and its confidence, written where the core reads them.   python tools/learn_hearing.py [--clips N] [--seed S]"""

from __future__ import annotations

import argparse
import os
from pathlib import Path

os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

from spindle.study.sound.learning import curves, learn  # after the number of threads is set

HEARING = Path(__file__).parents[1] / "core/src/spindle/sound/hearing"
HEAD = "# Written by `python tools/learn_hearing.py`: offset, slope of the score's log odds, slope of the log of the length.\n[curves]\n"


def main() -> None:
    """Learn on seeds from S on, and the confidence on half as many after them."""
    parser = argparse.ArgumentParser()
    parser.add_argument("--clips", type=int, default=2000)
    parser.add_argument("--seed", type=int, default=1_000_000)
    asked = parser.parse_args()
    layer = learn(asked.clips, asked.seed)
    (HEARING / "layer.npz").write_bytes(layer.packed())
    after = asked.seed + asked.clips
    found = curves(layer, range(after, after + asked.clips // 2))
    (HEARING / "confidence.toml").write_text(HEAD + "".join(f"{kind} = [{a}, {b}, {c}]\n" for kind, (a, b, c) in found.items()), encoding="utf-8")


if __name__ == "__main__":
    main()
