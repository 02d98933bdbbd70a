"""The plots of docs/record.md, from what tools/study_day has measured. Run by it."""

from __future__ import annotations

import json

from matplotlib import pyplot as plt
from plots import BRASS, DOCS, EMBER, INK, VERDIGRIS, begin, save

ORDERS = json.loads((DOCS / "day" / "orders.json").read_text(encoding="utf-8"))["found"]
PROMISES = json.loads((DOCS / "day" / "promises.json").read_text(encoding="utf-8"))["found"]
LEARNING = json.loads((DOCS / "day" / "learning.json").read_text(encoding="utf-8"))["found"]
SHOWN = {"promise": ("by promise", INK), "chosen": ("as chosen", VERDIGRIS), "a bench each": ("a bench for each: cannot be had", BRASS)}


def orders() -> None:
    """Draw what lateness costs over how much work is in the house."""
    figure, panel = plt.subplots(figsize=(7, 3))
    sizes = [int(n) for n in ORDERS["jobs"]]
    for rule, (name, colour) in SHOWN.items():
        panel.plot(sizes, [ORDERS["jobs"][str(n)]["rules"][rule]["late_eur"] for n in sizes], "o-", color=colour, label=name)
    panel.set_xlabel("jobs for one bench")
    panel.set_ylabel("lateness, euro")
    panel.set_ylim(bottom=0)
    panel.legend(frameon=False)
    save(figure, "day", "orders")


def promises() -> None:
    """Draw how often days that were named were kept, against what was said."""
    figure, panel = plt.subplots(figsize=(7, 3))
    panel.plot([0, 1], [0, 1], "--", color=INK, alpha=0.4)
    for (name, found), colour in zip(PROMISES.items(), (VERDIGRIS, EMBER), strict=True):
        rows = found["promises"]["rows"]
        panel.plot([0.5, 0.9], [found["half"], found["nine"]], "s", color=colour, label=f"{name}: half, nine in ten")
        panel.plot([r["said"] for r in rows], [r["kept"] for r in rows], "o-", color=colour, alpha=0.6, label=f"{name}: promises")
    panel.set_xlabel("said")
    panel.set_ylabel("kept")
    panel.legend(frameon=False)
    save(figure, "day", "promises")


def learning() -> None:
    """Draw what learning saves at naming the cause, over how many jobs have closed."""
    figure, panel = plt.subplots(figsize=(7, 3))
    panel.axhline(0.0, color=INK, alpha=0.4)
    panel.axhline(0.05, color=INK, alpha=0.4, linestyle=":")
    for world, colour in (("like the shipped model", EMBER), ("that differs", VERDIGRIS)):
        for what, style in (("nat better on new jobs, after n", "o--"), ("the same, used only once judged better", "o-")):
            told = LEARNING[world][what]
            is_judged = style == "o-"
            name = f"{world}{'' if is_judged else ', always used'}"
            panel.plot([int(n) for n in told], [told[n]["mean"] for n in told], style, color=colour, alpha=1.0 if is_judged else 0.5, label=name)
    panel.set_xlabel("closed jobs")
    panel.set_ylabel("nat a new job")
    panel.legend(frameon=False)
    save(figure, "day", "learning")


if __name__ == "__main__":
    begin("day")
    orders()
    promises()
    learning()
