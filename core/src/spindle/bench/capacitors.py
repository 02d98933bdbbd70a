"""A kit of capacitors against a board's places: which goes where, what is left, and what is refused. Never fewer volts."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from scipy.optimize import linear_sum_assignment

MOST_TIMES: Final = 1.5
"""More than one and a half times the capacitance loads the regulator at switching on, and shifts a filter."""
MATCH: Final = 0.02
"""Like for like: nominal values differ by rounding only."""


@dataclass(frozen=True, slots=True)
class Capacitor:
    """A place on the board as it wants to be filled, or a part of the kit as it is printed. None where nobody knows."""

    name: str
    uf: float
    volt: float
    polar: bool = True
    degrees: float = 85.0
    low_esr: bool = False
    height_mm: float | None = None
    diameter_mm: float | None = None


@dataclass(frozen=True, slots=True)
class Fitting:
    """One place with its part, or with why it has none."""

    place: Capacitor
    part: Capacitor | None
    remark: str = ""
    polarity_seen: int = 0


@dataclass(frozen=True, slots=True)
class Plan:
    """The whole board.

    Attributes
    ----------
    fittings : by place, in the board's order
    spare : parts that are left
    short : a sentence for each place without a part
    """

    fittings: tuple[Fitting, ...]
    spare: tuple[Capacitor, ...]
    short: tuple[str, ...]


def why_not(part: Capacitor, place: Capacitor) -> str:
    """Return why a part may not go into a place; empty if it may."""
    if part.volt < place.volt:
        return f"{part.volt:g} V is fewer than {place.volt:g} V"
    if part.uf < place.uf * (1.0 - MATCH):
        return f"{part.uf:g} µF is less than {place.uf:g} µF"
    if part.uf > place.uf * MOST_TIMES:
        return f"{part.uf:g} µF is over one and a half times {place.uf:g} µF"
    if part.polar and not place.polar:
        return "it has a polarity, the place has none"
    if part.degrees < place.degrees:
        return f"made for {part.degrees:g} °C, the place asks for {place.degrees:g} °C"
    if place.low_esr and not part.low_esr:
        return "the place asks for low ESR"
    for name, has, room in (("high", part.height_mm, place.height_mm), ("wide", part.diameter_mm, place.diameter_mm)):
        if has is not None and room is not None and has > room:
            return f"{has:g} mm is too {name} for {room:g} mm"
    return ""


def cost(part: Capacitor, place: Capacitor) -> float:
    """Return how unlike a fitting part is: 0 like for like; capacitance weighs more than volts to spare."""
    over_uf = max(part.uf / place.uf - 1.0 - MATCH, 0.0)
    over_v = max(part.volt / place.volt - 1.0, 0.0)
    return 4.0 * over_uf + min(over_v, 3.0) * 0.5 + (0.3 if place.polar and not part.polar else 0.0)


def plan(places: Sequence[Capacitor], kit: Sequence[Capacitor]) -> Plan:
    """Return which part goes where: as many places as can be, then as like as can be (assignment after H. W. Kuhn, 1955).

    A place that is left names what is short, and which others want the same part.
    """
    if not places:
        return Plan((), tuple(kit), ())
    allowed = np.array([[not why_not(part, place) for part in kit] for place in places]).reshape(len(places), len(kit))
    dear = np.array([[cost(part, place) if allowed[i, j] else 0.0 for j, part in enumerate(kit)] for i, place in enumerate(places)]).reshape(allowed.shape)
    none = 1.0 + float(dear.max(initial=0.0)) * (len(places) + 1)
    table = np.hstack([np.where(allowed, dear, 2.0 * none * len(places)), np.full((len(places), len(places)), none)])
    rows, columns = linear_sum_assignment(table)
    fitted = {int(r): int(c) for r, c in zip(rows, columns, strict=True) if c < len(kit) and allowed[r, c]}
    spare = tuple(part for j, part in enumerate(kit) if j not in fitted.values())
    fittings = tuple(
        Fitting(place, kit[fitted[i]], _remark(kit[fitted[i]], place)) if i in fitted else Fitting(place, None, _why_empty(i, places, kit, allowed))
        for i, place in enumerate(places)
    )
    return Plan(fittings, spare, tuple(f"{f.place.name}: {f.remark}." for f in fittings if f.part is None))


def _remark(part: Capacitor, place: Capacitor) -> str:
    said = []
    if part.uf > place.uf * (1.0 + MATCH):
        said.append(f"{part.uf:g} µF for {place.uf:g} µF")
    if part.volt > place.volt:
        said.append(f"{part.volt:g} V for {place.volt:g} V")
    if place.polar and not part.polar:
        said.append("no polarity of its own: either way round")
    return ", ".join(said)


def _why_empty(i: int, places: Sequence[Capacitor], kit: Sequence[Capacitor], allowed: np.ndarray) -> str:
    """Return why a place is left: nothing fits it, or so many places share so few parts."""
    own = np.flatnonzero(allowed[i])
    if len(own) == 0:
        near = sorted(kit, key=lambda p: abs(p.uf - places[i].uf))[:1]
        return f"nothing in the kit fits; the nearest, {near[0].name}: {why_not(near[0], places[i])}" if near else "the kit is empty"
    sharing = [p.name for k, p in enumerate(places) if allowed[k, own].any()]
    return f"{', '.join(sharing)} share {len(own)} {'part' if len(own) == 1 else 'parts'}"


class Pass:
    """Polarity is looked at twice, in two passes: in a pass of its own the eye begins anew (boards reversed 0.2 %, after one look 1.5 %)."""

    FITTED, AGAIN = 1, 2


def may_power(fittings: Sequence[Fitting]) -> tuple[bool, str]:
    """Return whether power may go on: every polarised part seen twice."""
    left = [f.place.name for f in fittings if f.part is not None and f.place.polar and f.polarity_seen < Pass.AGAIN]
    if left:
        return False, f"Look at the polarity of {', '.join(left)} once more, in a pass of its own: a reversed one may burst."
    return True, "The polarity of each was seen twice."
