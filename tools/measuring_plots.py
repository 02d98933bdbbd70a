"""The plots of docs/measuring.md, from the calculators themselves. Run by tools/study_measuring."""

from __future__ import annotations

import numpy as np
from matplotlib import pyplot as plt
from plots import EMBER, INK, VERDIGRIS, begin, save
from spindle.bench.belts.geometry import Belt
from spindle.bench.belts.opening import CLEAN, GLAZED_RUBBER, Loader, opens
from spindle.bench.trimming.turning import Aim
from spindle.study.measuring.parts import PULLEYS
from spindle.study.measuring.trimmers import Hands, SimulatedTrimmer, set_by_the_law


def trimmer() -> None:
    """Draw five ways of a trimmer into its band."""
    rng = np.random.default_rng(4)
    figure, panel = plt.subplots(figsize=(7, 3.2))
    panel.axhspan(-1, 1, color=VERDIGRIS, alpha=0.15)
    for _ in range(5):
        unit = SimulatedTrimmer(rng, Hands(), powered=False)
        _, stops = set_by_the_law(unit, Aim())
        panel.plot(range(len(stops)), [unit.trimmer.z(s.value) for s in stops], "o-", color=INK, markersize=4)
    panel.set_xlabel("turn")
    panel.set_ylabel("half bands from the middle")
    save(figure, "measuring", "trimmer")


def belt() -> None:
    """Draw the chance of opening over strain."""
    strains = np.linspace(0.0, 0.13, 40)
    figure, panel = plt.subplots(figsize=(7, 3.2))
    for rubber, colour, name in ((CLEAN, VERDIGRIS, "clean"), (GLAZED_RUBBER, EMBER, "glazed")):
        found = [opens(Belt(PULLEYS.path(1.2) / (1 + e), 1.2, PULLEYS), rubber, Loader(), np.random.default_rng(1), n=8000) for e in strains]
        panel.plot(100 * strains, [o.loaded for o in found], color=colour, linestyle="--", label=f"{name}, with a disc")
        panel.plot(100 * strains, [o.empty for o in found], color=colour, label=f"{name}, empty")
    panel.axvspan(8, 12, color=INK, alpha=0.07)
    panel.set_xlabel("stretched, percent (8 to 12: what to buy)")
    panel.set_ylabel("chance that it opens")
    panel.legend(frameon=False)
    save(figure, "measuring", "belt")


if __name__ == "__main__":
    begin("measuring")
    trimmer()
    belt()
