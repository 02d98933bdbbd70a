"""A belt's loop from what can be measured, how far it is stretched on its pulleys, and which one to buy. Lengths in mm."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from spindle.errors import InvalidError

SECTION: Final = 0.1
"""Another section by more than a tenth does not sit in the groove."""
DOUBT: Final = 0.25
"""Beyond a quarter no loading belt is stretched: a number is wrong."""
BUY: Final = (0.08, 0.12)
AIM: Final = 0.10
"""Strain to buy for: under it too little is left as rubber relaxes, over it the motor's bearing pays."""


def loop_from_flat(flat_mm: float, section_mm: float) -> float:
    """Return the loop's length on its middle line, laid flat and pressed: two straights and two half circles."""
    return 2.0 * flat_mm - (4.0 - math.pi) * section_mm


def loop_from_pins(span_mm: float, pin_mm: float, section_mm: float) -> float:
    """Return the loop's length, pulled straight over two equal pins whose middles are ``span_mm`` apart."""
    return 2.0 * span_mm + math.pi * (pin_mm + section_mm)


def loop_from_oval(widest_mm: float, narrowest_mm: float, section_mm: float) -> float:
    """Return the loop's length, lying free as an oval of two inner diameters (S. Ramanujan's ellipse, *Quart. J. Math.* 45, 1914)."""
    a, b = (widest_mm + section_mm) / 2.0, (narrowest_mm + section_mm) / 2.0
    return math.pi * (3.0 * (a + b) - math.sqrt((3.0 * a + b) * (a + 3.0 * b)))


@dataclass(frozen=True, slots=True)
class Pulleys:
    """Two pulleys: diameters at the bottom of the groove, and the distance of their middles, in mm."""

    motor_mm: float
    gear_mm: float
    centres_mm: float

    def radii(self, section_mm: float) -> tuple[float, float]:
        """Return the radii of the belt's middle line, the smaller one first."""
        r = sorted(((self.motor_mm + section_mm) / 2.0, (self.gear_mm + section_mm) / 2.0))
        return r[0], r[1]

    def path(self, section_mm: float) -> float:
        """Return the length of an open belt around both.

        Raises
        ------
        InvalidError
            If they would touch.
        """
        small, large = self.radii(section_mm)
        c, gap = self.centres_mm, large - small
        if c <= small + large:
            raise InvalidError("/centres", f"The pulleys would touch: middles {c:g} mm apart, radii {small:.3g} and {large:.3g} mm.")
        return 2.0 * math.sqrt(c * c - gap * gap) + math.pi * (small + large) + 2.0 * gap * math.asin(gap / c)

    def wrap(self, section_mm: float) -> float:
        """Return the angle that the belt lies on the motor pulley, in radian."""
        small, large = self.radii(section_mm)
        turn = 2.0 * math.asin((large - small) / self.centres_mm)
        return math.pi - turn if self.motor_mm <= self.gear_mm else math.pi + turn


@dataclass(frozen=True, slots=True)
class Belt:
    """A belt on its pulleys. ``area_mm2`` where it is not square."""

    loop_mm: float
    section_mm: float
    pulleys: Pulleys
    area_mm2: float | None = None

    @property
    def strain(self) -> float:
        """How far it is stretched: below 0 it hangs."""
        return self.pulleys.path(self.section_mm) / self.loop_mm - 1.0


@dataclass(frozen=True, slots=True)
class Size:
    """A belt to buy or to take: how far it would be stretched, and why it is or is not the one."""

    id: str
    loop_mm: float
    section_mm: float
    strain: float
    fits: bool
    text: str


def size_to_buy(pulleys: Pulleys, section_mm: float, *, sheet_mm: float | None = None) -> tuple[float, float, float]:
    """Return the loop to ask for and the shortest and longest that do, in mm; the sheet's own length goes first where it has one."""
    path = pulleys.path(section_mm)
    shortest, longest = path / (1.0 + BUY[1]), path / (1.0 + BUY[0])
    if sheet_mm is not None:
        return sheet_mm, min(shortest, sheet_mm), max(longest, sheet_mm)
    return path / (1.0 + AIM), shortest, longest


def nearest(pulleys: Pulleys, candidates: Sequence[tuple[str, float, float]], section_mm: float, *, sheet_mm: float | None = None) -> tuple[Size, ...]:
    """Return the belts at hand, the one to take first: (id, loop_mm, section_mm) each, by how near they come to the length to buy."""
    aim, low, high = size_to_buy(pulleys, section_mm, sheet_mm=sheet_mm)
    found = []
    for name, loop, section in candidates:
        strain = pulleys.path(section) / loop - 1.0
        wrong = abs(section - section_mm) > SECTION * section_mm
        fits = not wrong and low - 1e-9 <= loop <= high + 1e-9
        text = (
            f"section {section:g} mm, the groove is for {section_mm:g} mm"
            if wrong
            else "hangs on the pulleys"
            if strain <= 0
            else f"stretched {100 * strain:.1f} %, {'as it should be' if fits else 'too loose' if loop > high else 'too tight'}"
        )
        found.append(Size(name, loop, section, strain, fits, text))
    return tuple(sorted(found, key=lambda s: (not s.fits, abs(s.section_mm - section_mm) > SECTION * section_mm, abs(s.loop_mm - aim))))
