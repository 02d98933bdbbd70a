"""What every plot of the docs shares: our colours, and how it is saved so that the same figures give the same file."""

from __future__ import annotations

from pathlib import Path

import matplotlib as mpl
from matplotlib import pyplot as plt

DOCS = Path(__file__).resolve().parents[1] / "docs"
INK, EMBER, VERDIGRIS, BRASS = "#1c2b2a", "#b8480f", "#1d6f63", "#8b6a12"


def begin(salt: str) -> None:
    """Set what every plot looks like."""
    mpl.rcParams.update({"svg.hashsalt": salt, "axes.spines.top": False, "axes.spines.right": False, "font.size": 9})


def save(figure: plt.Figure, folder: str, name: str) -> None:
    """Write a plot into a folder of the docs."""
    figure.tight_layout()
    figure.savefig(DOCS / folder / f"{name}.svg", metadata={"Date": None})
