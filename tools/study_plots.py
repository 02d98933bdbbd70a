"""The plots of docs/study.md from docs/study/*.json. Run by tools/study."""

from __future__ import annotations

import json

from matplotlib import pyplot as plt
from plots import DOCS, EMBER, INK, VERDIGRIS, begin, save

STUDY = DOCS / "study"
QUIET = "#5b6b69"
NAMES = {
    "oracle": "knowing the fault",
    "planner": "the advice",
    "information_first": "information, then p/c",
    "depth_blind": "depth-blind advice",
    "flow_chart": "flow chart",
    "no_tests": "p/c without tests",
    "drive_first": "whole drive first",
    "clean_first": "clean first",
    "pickup_first": "pickup first",
    "cheapest_first": "cheapest first",
}
WORLDS = ("matched", "chain", "priors", "rows", "repairs", "slips", "perturbed")


def _read(name: str) -> dict[str, dict[str, dict[str, dict[str, float]]]]:
    found: dict[str, dict[str, dict[str, dict[str, float]]]] = json.loads((STUDY / f"{name}.json").read_text(encoding="utf-8"))["families"]
    return found


def costs() -> None:
    """Draw the mean cost of every policy, a panel for each loader family."""
    families = _read("matched")
    figure, panels = plt.subplots(1, len(families), figsize=(11, 3.6), sharey=True)
    for panel, (family, found) in zip(panels, families.items(), strict=True):
        for n, name in enumerate(NAMES):
            own = found["policies"][name]
            panel.barh(n, own["mean_eur"], xerr=2 * own["se_eur"], color=INK if name == "planner" else QUIET, ecolor=EMBER, height=0.7)
        panel.set_title(f"{family} load", loc="left")
        panel.set_xlabel("euro a unit, ± 2 SE")
    panels[0].set_yticks(range(len(NAMES)), list(NAMES.values()))
    panels[0].invert_yaxis()
    save(figure, "study", "costs")


def worlds() -> None:
    """Draw what knowing the fault, the advice and the flow chart cost in every world."""
    figure, panels = plt.subplots(1, 3, figsize=(11, 3.2), sharey=True)
    for panel, family in zip(panels, _read("matched"), strict=True):
        for n, (name, colour) in enumerate((("oracle", VERDIGRIS), ("planner", INK), ("flow_chart", QUIET))):
            heights = [_read(w)[family]["policies"][name]["mean_eur"] for w in WORLDS]
            panel.bar([x + 0.28 * n for x in range(len(WORLDS))], heights, width=0.26, color=colour, label=NAMES[name])
        panel.set_title(f"{family} load", loc="left")
        panel.set_xticks([x + 0.28 for x in range(len(WORLDS))], WORLDS, rotation=30)
    panels[0].set_ylabel("euro a unit")
    panels[0].legend(frameon=False)
    save(figure, "study", "worlds")


if __name__ == "__main__":
    begin("study")
    costs()
    worlds()
