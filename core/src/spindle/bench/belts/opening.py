"""Whether a belt opens the tray, with a disc in and empty; slack or glazed; what a stopgap does. Forces in N, hardness in Shore A.

Rubber by the neo-Hookean law (L. R. G. Treloar, *The Physics of Rubber Elasticity*, 1975, ch. 5), its modulus from hardness by A. N. Gent's formula
(*Rubber Chem. Technol.* 31, 1958, 896), the pull by Euler's belt equation.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from spindle.bench.belts.geometry import Belt

GRAVITY_FACTOR: Final = 0.0981
"""Gent's formula is in kgf/cm2: this makes it MPa."""
MOTOR_MOST_N: Final = 3.5
"""Pull at which a small loading motor stalls, at a pulley of 6 mm: 10 N mm of torque."""
DISC_MM: Final = 1.2
"""A disc between puck and hub holds them apart by its own thickness."""
INERTIA: Final = 28.0
"""Of a 120 mm disc, kg mm2: 15.5 g, m (r1^2 + r2^2) / 2."""


def modulus(shore: float) -> float:
    """Return Young's modulus in MPa from Shore A hardness."""
    return float(_modulus(np.asarray(shore)))


def _modulus(shore: np.ndarray) -> np.ndarray:
    return np.asarray(GRAVITY_FACTOR * (56.0 + 7.66 * shore) / (0.137505 * (254.0 - 2.54 * shore)))


def tension(strain: float, section_mm: float, shore: float, relax: float, *, area_mm2: float | None = None) -> float:
    """Return the force in each run of a stretched belt at rest; 0 if it hangs."""
    if strain <= 0.0:
        return 0.0
    stretch = 1.0 + strain
    return modulus(shore) / 3.0 * (stretch - stretch**-2) * (section_mm**2 if area_mm2 is None else area_mm2) * relax


def pull(rest_n: float, mu: float, wrap: float) -> float:
    """Return the most that a belt pulls before it slips: both runs together keep their tension (Euler, with the sum of tensions constant)."""
    return 2.0 * rest_n * math.tanh(mu * wrap / 2.0)


@dataclass(frozen=True, slots=True)
class Rubber:
    """Ranges that nobody measures at a bench: each is drawn evenly.

    Attributes
    ----------
    shore : hardness; loading belts are made at 50 to 68
    relax : share of the tension that is left after weeks
    mu : grip, by surface: clean, glazed, or revived with a conditioner
    """

    shore: tuple[float, float] = (50.0, 68.0)
    relax: tuple[float, float] = (0.65, 0.9)
    mu: tuple[float, float] = (0.55, 0.9)


CLEAN: Final = Rubber()
GLAZED_RUBBER: Final = Rubber(mu=(0.22, 0.45))
REVIVED: Final = Rubber(mu=(0.47, 0.77))
REVIVED_LATER: Final = Rubber(mu=(0.36, 0.62))
"""After 60 days most of a conditioner has gone again."""


@dataclass(frozen=True, slots=True)
class Loader:
    """What the belt has to move: ranges again, drawn evenly. The sheet's own numbers narrow them.

    Attributes
    ----------
    ratio : tray's pull for a newton at the belt, before losses
    eta : what gears and rails leave of it
    grip_n, g0_mm : force of puck and hub when they touch, and the gap at which it has fallen to a quarter
    gap_mm : the gap when it is clamped empty
    lever : tray's force for a newton at the puck
    rail_n : friction of the rails
    """

    ratio: tuple[float, float] = (26.0, 36.0)
    eta: tuple[float, float] = (0.45, 0.65)
    grip_n: float = 13.0
    gap_mm: tuple[float, float] = (0.2, 0.5)
    g0_mm: tuple[float, float] = (1.5, 3.0)
    lever: tuple[float, float] = (0.35, 0.5)
    rail_n: float = 0.45


@dataclass(frozen=True, slots=True)
class Opens:
    """The chances that the tray opens, with a disc in and empty: empty is the hard case, puck and hub stick together."""

    loaded: float
    empty: float
    pattern: float
    """Chance of the complaint itself: opens with a disc, not empty."""


def draw(
    rubber: Rubber, loader: Loader, belt: Belt, n: int, rng: np.random.Generator, *, spacer_mm: float = 0.0, strain_u: float = 0.0
) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """Return ``n`` drawn pulls at the tray and what it takes to open it loaded and empty, in N, each of shape (n,).

    Parameters
    ----------
    spacer_mm : float
        What was laid between puck and hub.
    strain_u : float
        Standard uncertainty of the belt's strain.
    """

    def even(low_high: tuple[float, float]) -> np.ndarray:
        return rng.uniform(*low_high, n)

    wrap = belt.pulleys.wrap(belt.section_mm)
    area = belt.section_mm**2 if belt.area_mm2 is None else belt.area_mm2
    stretch = 1.0 + np.maximum(belt.strain + strain_u * rng.standard_normal(n), 0.0)
    rest = _modulus(even(rubber.shore)) / 3.0 * (stretch - stretch**-2) * area * even(rubber.relax)
    at_tray = np.minimum(2.0 * rest * np.tanh(even(rubber.mu) * wrap / 2.0), MOTOR_MOST_N) * even(loader.ratio) * even(loader.eta)
    gap, g0, lever = even(loader.gap_mm) + spacer_mm, even(loader.g0_mm), even(loader.lever)
    need_empty = lever * loader.grip_n / (1.0 + gap / g0) ** 2 + loader.rail_n
    need_loaded = lever * loader.grip_n / (1.0 + (gap + DISC_MM) / g0) ** 2 + loader.rail_n
    return at_tray, need_loaded, need_empty


def opens(belt: Belt, rubber: Rubber, loader: Loader, rng: np.random.Generator, *, n: int = 4000, spacer_mm: float = 0.0) -> Opens:
    """Return the chances that the tray opens, by drawing what nobody measured.

    Raises
    ------
    InvalidError
        If the pulleys would touch.
    """
    at_tray, loaded, empty = draw(rubber, loader, belt, n, rng, spacer_mm=spacer_mm)
    return Opens(*(float(x.mean()) for x in (at_tray >= loaded, at_tray >= empty, (at_tray >= loaded) & (at_tray < empty))))


def slips_at_speed(loader: Loader, rng: np.random.Generator, *, n: int = 4000, spacer_mm: float = 0.0, alpha: float = 300.0) -> float:
    """Return the chance that a disc slips under its puck as it speeds up: ``J alpha > mu F r``.

    Parameters
    ----------
    alpha : float
        rad/s2: to 200 rad/s in two thirds of a second.
    """
    gap = rng.uniform(*loader.gap_mm, n) + DISC_MM + spacer_mm
    force = loader.grip_n / (1.0 + gap / rng.uniform(*loader.g0_mm, n)) ** 2
    torque = rng.uniform(0.2, 0.4, n) * force * rng.uniform(12.0, 14.0, n)  # pad's grip; radius of its ring in mm
    return float(np.mean(INERTIA * alpha * 1e-3 > torque))


GLAZED_SHARE: Final = 0.4
"""Of belts that come with this complaint before anything is measured: rubber relaxes in every unit, oil and shine come to some."""
STRAIN_U: Final = 0.005
"""Half a percent point either way, from a loop read by rule and thumb."""
BALANCE_U: Final = 0.08
"""A spring balance hooked to a tray, as a share."""
SHORE_U: Final = 2.0
SHINES: Final = {True: (0.75, 0.3), False: (0.25, 0.7)}
"""P(shines | glazed), P(shines | clean), and of not: a clean old belt shines too where it was wiped."""
UNDECIDED: Final = (0.1, 0.9)


@dataclass(frozen=True, slots=True)
class Cause:
    """Slack or glazed, from strain, look and, best of all, a spring balance on the tray."""

    glazed: float
    """Chance that it is the surface and not the length."""
    ask_balance: bool
    """It is not decided, and a balance was not asked."""

    @property
    def undecided(self) -> bool:
        """True if neither is likely nine times in ten."""
        return UNDECIDED[0] < self.glazed < UNDECIDED[1]


def slack_or_glazed(
    belt: Belt,
    loader: Loader,
    rng: np.random.Generator,
    *,
    shines: bool | None = None,
    pull_n: float | None = None,
    need_n: float | None = None,
    shore: float | None = None,
    n: int = 4000,
) -> Cause:
    """Return how likely glazing is, given that the tray opens with a disc and not empty: what was not measured is drawn (importance sampling).

    Parameters
    ----------
    shines : bool, optional
        Whether the surface shines.
    pull_n, need_n : float, optional
        What a spring balance on the tray reads as the belt slips, and what it takes to pull the tray open empty by hand, belt off.
    shore : float, optional
        The belt's own hardness, where somebody has a gauge: two points either way.
    """
    odds = GLAZED_SHARE / (1.0 - GLAZED_SHARE)
    if shines is not None:
        odds *= SHINES[shines][0] / SHINES[shines][1]
    glazed, clean = (r if shore is None else replace(r, shore=(shore - SHORE_U, shore + SHORE_U)) for r in (GLAZED_RUBBER, CLEAN))
    glazed_fits, clean_fits = (_fits(draw(r, loader, belt, n, rng, strain_u=STRAIN_U), (pull_n, need_n)) for r in (glazed, clean))
    odds *= glazed_fits / clean_fits
    found = Cause(odds / (1.0 + odds), ask_balance=False)
    return replace(found, ask_balance=found.undecided and pull_n is None)


def _fits(drawn: tuple[np.ndarray, np.ndarray, np.ndarray], read_n: tuple[float | None, float | None]) -> float:
    """Return how well a drawn rubber explains the complaint and the balance; never quite nothing."""
    pull, loaded, empty = drawn
    weight = ((pull >= loaded) & (pull < empty)).astype(float)
    for read, true in zip(read_n, (pull, empty), strict=True):
        if read is not None and read > 0:
            weight *= np.exp(-0.5 * ((np.log(read) - np.log(np.maximum(true, 1e-6))) / BALANCE_U) ** 2)
    return float(weight.mean()) + 1e-6
