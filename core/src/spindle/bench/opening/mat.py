"""What lies on the mat: which steps are open, which screws are out, missing, another's or explained, and what is left before the unit is shut."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from enum import StrEnum
from types import MappingProxyType
from typing import Final

from spindle.bench.opening.order import way_back
from spindle.bench.opening.steps import Group, Kind, Opening, OpeningStep


class PlaceState(StrEnum):
    """What is true of one screw's place."""

    IN = "in"
    OUT = "out"
    MISSING = "missing"
    """It was not there when the unit came in."""
    REPLACED = "replaced"
    """Another screw is in it, that may be."""
    EXPLAINED = "explained"
    """It stays empty, and somebody said why."""


@dataclass(frozen=True, slots=True)
class Odd:
    """A place with a state of its own, why, and what went in instead."""

    state: PlaceState
    why: str = ""
    text: str = ""


@dataclass(frozen=True)
class Mat:
    """The mat of a job: ``open`` are ids of steps in the order in which they were done, ``odd`` the places whose screw is not simply its own."""

    open: tuple[str, ...] = ()
    odd: Mapping[str, Odd] = field(default_factory=dict)
    side: str = ""
    """The side that lies up, as far as the last step said; "" if nobody knows."""

    def with_open(self, steps: tuple[str, ...], side: str = "") -> Mat:
        """Return the mat with these steps done as well; ``side`` is the one that then lies up."""
        return replace(self, open=(*self.open, *(s for s in steps if s not in self.open)), side=side or self.side)

    def without(self, step: str, side: str = "") -> Mat:
        """Return the mat with one step put back."""
        return replace(self, open=tuple(s for s in self.open if s != step), side=side or self.side)

    def with_odd(self, place: str, odd: Odd | None) -> Mat:
        """Return the mat with what is said of one place; None: it has its own screw."""
        kept = {p: o for p, o in self.odd.items() if p != place}
        return replace(self, odd={**kept, place: odd} if odd else kept)


def state_of_place(mat: Mat, opening: Opening, place: str) -> PlaceState:
    """Return the state of a place: what is said of it, or what its step makes of it."""
    odd = mat.odd.get(place)
    if odd is not None and odd.state is not PlaceState.REPLACED:
        return odd.state
    step = opening.step_of.get(place)
    if step is not None and step.id in mat.open:
        return PlaceState.OUT
    return PlaceState.REPLACED if odd is not None else PlaceState.IN


def lies_out(mat: Mat, opening: Opening) -> dict[str, int]:
    """Return how many screws of each group lie on the mat, by the group's id."""
    counts = {g.id: sum(state_of_place(mat, opening, p) is PlaceState.OUT for p in g.places) for g in opening.groups.values() if not g.captive}
    return {group: n for group, n in counts.items() if n}


def left_open(mat: Mat, opening: Opening) -> tuple[str, ...]:
    """Return what has to be put back before the unit is shut, in the order in which it goes back."""
    known = [s for s in mat.open if s in opening.steps]
    lost = [f"{s.partition(':')[2]} (no longer in the sheet)" for s in mat.open if s not in opening.steps]
    return (*lost, *(f"{m.step.name}{_screws(m.step)}" for m in way_back(opening, known, side=mat.side).moves))


def _screws(step: OpeningStep) -> str:
    n = sum(g.count for g in step.groups)
    return f" ({n} screws)" if n > 1 else ""


_LATCHES: Final = MappingProxyType(
    {
        "lift bar": "bar down flat along its whole width",
        "slide bar": "slide bar home at both ends",
        "press tab": "both tabs have clicked",
        "friction": "pushed home, straight, no wiggling",
        "plug": "pushed home by its housing",
        "solder": "nothing bare, nothing under tension",
        "coax plug": "pressed on dead centre until it snaps",
        "blind-mate": "pressed until it sits flush",
    }
)
"""Latch -> what is looked at when it goes back."""


def checks_back(step: OpeningStep, mat: Mat) -> tuple[str, ...]:
    """Return what is looked at as a step is put back: each a thing that was found undone at a second opening."""
    found = [f"Hook on first: {step.tether}"] if step.tether else []
    for plug in step.plugs:
        mark = ", mark hidden at both ends" if plug.tracks else ""
        found.append(f"{plug.name}: {_LATCHES[plug.latch]}{mark}")
    found += [_screw_check(g, mat) for g in step.groups]
    if step.route:
        found.append(f"Route: {step.route}")
    if step.way_round:
        found.append(f"Which way round: {step.way_round}")
    if step.kind in (Kind.TAPE, Kind.GLUE):
        found.append("Stuck down again, no edge up")
    if step.kind is Kind.FLAP:
        found.append("Flap down")
    return tuple(found)


def _screw_check(group: Group, mat: Mat) -> str:
    odd = [mat.odd[p] for p in group.places if p in mat.odd]
    gone = sum(o.state in (PlaceState.MISSING, PlaceState.EXPLAINED) for o in odd)
    note = f"; {gone} stay empty" if gone else ""
    return f"{group.count - gone} × {group.screw.text}: {group.name}{note}"


def looks_first(step: OpeningStep) -> tuple[str, ...]:
    """Return what a hand has to know before it does a step, in plain words."""
    found = [f"Hidden under {step.under}"] if step.under else []
    found += [f"{g.name.capitalize()}: hidden under {g.under}" for g in step.groups if g.under]
    found += [f"Not this: {step.decoy}"] if step.decoy else []
    found += [f"{g.count} × {g.screw.text}: {g.name}{' (stay in their holes)' if g.captive else ''}" for g in step.groups]
    found += [f"{p.name} ({p.latch}): {p.lets_go}" for p in step.plugs]
    found += [step.how] if step.how else []
    found += [f"Still hangs on it: {step.tether}"] if step.tether else []
    found += [f"Falls out if turned over: {step.falls}"] if step.falls else []
    found += ["Breaks easily"] if step.fragile else []
    return tuple(found)
