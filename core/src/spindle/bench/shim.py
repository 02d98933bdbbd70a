"""A shim under a worn rail: how far the pickup leans along its way, and which of the pieces at hand makes it lean least. A stopgap."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations_with_replacement
from typing import Final

from spindle.errors import InvalidError

TOLERANCE_DEG: Final = {405: 0.60, 650: 0.45, 780: 0.64}
"""Lean at which coma reaches 0.035 waves, by wavelength in nm: it grows with cover thickness, the cube of the aperture and 1 / wavelength (J. Braat,
*Appl. Opt.* 36, 1997). The thin cover spares the short wave. A sheet's own values go first."""
MOST_PIECES: Final = 2
HALVED: Final = 0.5


@dataclass(frozen=True, slots=True)
class Shim:
    """What a shim does.

    Attributes
    ----------
    pieces_mm : the pieces to lay under, thinnest first; empty if none helps
    before_deg, after_deg : lean at each place
    enough : it is inside the tolerance after
    text : the verdict
    """

    pieces_mm: tuple[float, ...]
    before_deg: tuple[float, ...]
    after_deg: tuple[float, ...]
    tolerance_deg: float
    enough: bool
    text: str

    @property
    def worst_before(self) -> float:
        """The worst lean as it is."""
        return max(abs(t) for t in self.before_deg)

    @property
    def worst_after(self) -> float:
        """The worst lean with the shim."""
        return max(abs(t) for t in self.after_deg)


def tilts(wear_mm: Sequence[float], base_mm: float, lift_mm: float) -> tuple[float, ...]:
    """Return the lean in degrees at each place: ``atan((w - lift) / base)``; the lift grows from 0 at the fixed end to the whole under the shim.

    Parameters
    ----------
    wear_mm : sequence of float
        Depth of wear at evenly spaced places, from the rail's fixed end to the end where the shim goes.
    base_mm : float
        Distance from the worn rail to the other one.
    """
    last = max(len(wear_mm) - 1, 1)
    return tuple(math.degrees(math.atan((w - lift_mm * i / last) / base_mm)) for i, w in enumerate(wear_mm))


def best_shim(
    wear_mm: Sequence[float], base_mm: float, stock_mm: Sequence[float], wavelengths_nm: Sequence[int], *, tolerances: Mapping[int, float] = TOLERANCE_DEG
) -> Shim:
    """Return the pieces from stock, at most two, that leave the least worst lean; ties go to the thinner.

    Raises
    ------
    InvalidError
        If wear is below zero, the base is none, or no wavelength is known.
    """
    if any(w < 0 for w in wear_mm) or len(wear_mm) < 2:
        raise InvalidError("/wear", "Wear is a depth at two places or more, from 0 mm.")
    if base_mm <= 0:
        raise InvalidError("/base", f"The distance between the rails has to be more than 0 mm, got {base_mm:g}.")
    known = [tolerances[nm] for nm in wavelengths_nm if nm in tolerances]
    if not known:
        raise InvalidError("/wavelengths", f"No tolerance is known for {', '.join(f'{nm} nm' for nm in wavelengths_nm) or 'no wavelength'}.")
    tolerance = min(known)
    before = tilts(wear_mm, base_mm, 0.0)
    sizes = sorted({s for s in stock_mm if s > 0})
    ways: list[tuple[float, ...]] = [()] + [c for k in range(1, MOST_PIECES + 1) for c in combinations_with_replacement(sizes, k)]
    best = min(ways, key=lambda way: (round(_worst(tilts(wear_mm, base_mm, sum(way))), 9), sum(way), len(way)))
    after = tilts(wear_mm, base_mm, sum(best))
    enough = _worst(after) <= tolerance
    return Shim(best, before, after, tolerance, enough, _verdict(before, after, best, tolerance))


def _worst(leans: Sequence[float]) -> float:
    return max(abs(t) for t in leans)


def _verdict(before: Sequence[float], after: Sequence[float], pieces: Sequence[float], tolerance: float) -> str:
    if _worst(before) <= tolerance:
        return "It leans less than it may: the wear is not why it does not read."
    if not pieces:
        return "No piece at hand makes it lean less: rail or deck."
    if _worst(after) <= tolerance:
        return "Inside what it may lean. A stopgap: what wore goes on wearing."
    if _worst(after) > HALVED * _worst(before):
        return "Not even half of the lean goes: rail or deck."
    return "Less than half of the lean is left, and still more than it may: rail or deck; the shim shows at most whether that is it."
