"""The same points over time: whether something moved, against limits of their own once there are enough of them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from spindle.bench.quantity import said

ENOUGH: Final = 15
"""Readings from which a chart has limits of its own: fewer give limits that are mostly luck."""
RUN: Final = 10
"""So many on one side of the median in a row is a shift: 8 % false in twenty readings, finds a shift of two spreads in 96 %."""
PER_RANGE: Final = 1.128
"""Mean moving range of two over the standard deviation, for normal values (d2; W. A. Shewhart's charts, as in ISO 7870-2)."""
SIGMAS: Final = 4.0


@dataclass(frozen=True, slots=True)
class RunChart:
    """What a row of readings in one state says; ``low`` and ``high`` are None until there are enough."""

    median: float
    low: float | None
    high: float | None
    out: tuple[int, ...]
    """Places outside the chart's own limits."""
    shifted: bool
    """True if ten in a row lie on one side of the median of those before them."""
    count: int = 0

    def says(self, kind: str) -> str:
        """Return it in a sentence."""
        usual = f"{self.count} read before, {said(self.median, kind)} in the middle"
        if self.low is None or self.high is None:
            return f"{usual}. From {ENOUGH} on they have limits of their own."
        moved = " The last ten lie on one side: something has shifted." if self.shifted else ""
        strays = f" {len(self.out)} lie outside." if self.out else ""
        return f"{usual}, {said(self.low, kind)} to {said(self.high, kind)} usual.{strays}{moved}"


def run_chart(values: Sequence[float]) -> RunChart:
    """Return the chart of readings in the order in which they were made; at least one."""
    found = np.asarray(values, dtype=float)
    median = float(np.median(found))
    if len(found) < ENOUGH:
        return RunChart(median, None, None, (), shifted=False, count=len(found))
    reach = SIGMAS * float(np.abs(np.diff(found)).mean()) / PER_RANGE
    out = tuple(int(i) for i in np.flatnonzero(np.abs(found - median) > reach))
    last = np.sign(found[-RUN:] - np.median(found[:-RUN])) if len(found) > RUN else np.zeros(1)
    return RunChart(median, median - reach, median + reach, out, shifted=bool(np.all(last == last[0]) and last[0] != 0), count=len(found))
