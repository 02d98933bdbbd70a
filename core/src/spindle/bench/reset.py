"""The mechanism's rest position, part by part, and how a train that stands out of step comes home: two ways, each with its risk."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from types import MappingProxyType
from typing import Final

from spindle.errors import InvalidError


class Stands(StrEnum):
    """How a part of the train stands."""

    RIGHT = "right"
    OFF = "off"
    BROKEN = "broken"
    """Broken, bent or not there."""


@dataclass(frozen=True, slots=True)
class TrainPart:
    """A part that is looked at: how it stands at rest, and what is seen when it does not."""

    name: str
    right: str
    wrong: str


TRAINS: Final[Mapping[str, Mapping[str, TrainPart]]] = MappingProxyType(
    {
        "slot": {
            "gears": TrainPart("Gears", "mark to mark, no gap", "marks a tooth apart"),
            "slider": TrainPart("Slider", "hard at its stop", "part of the way"),
            "arms": TrainPart("Arms", "both folded, springs on", "one stands out"),
            "flap": TrainPart("Flap", "down", "up: a disc meets it"),
        },
        "tray": {
            "gears": TrainPart("Gears", "mark to mark, no gap", "marks a tooth apart"),
            "rack": TrainPart("Tray’s rack", "first tooth in the marked gap", "a tooth early or late"),
            "lift": TrainPart("Lift", "home at its stop", "half way: the tray will not lock"),
            "lever": TrainPart("Lever", "against the lift’s pin", "beside the pin"),
        },
    }
)
"""By loader family. A lid has no train."""


@dataclass(frozen=True, slots=True)
class ResetWay:
    """One way to bring a train home."""

    name: str
    how: str
    risk: str


LIFT_GEAR: Final = ResetWay(
    "Lift the marked gear",
    "Lift the one gear that the sheet marks: the springs run the train home. Set it down mark to mark.",
    "It spares the motor’s thin wires; a gear that is set down a tooth off stands as before.",
)
MOTOR_OFF: Final = ResetWay(
    "Take the motor off",
    "Motor’s screws out, hold it by its body, let the springs run the train home, see every mark, motor back.",
    "It is easier to see; the wires break where they meet the motor, and a screw falls into the train.",
)
PROOF: Final = "Ten cycles empty and ten with a disc, in and out, before the roof goes on."


@dataclass(frozen=True, slots=True)
class ResetAdvice:
    """What stands wrong, what to do first, and the ways in the order in which they are advised."""

    off: tuple[str, ...]
    broken: tuple[str, ...]
    first: tuple[str, ...]
    ways: tuple[ResetWay, ...]

    @property
    def is_home(self) -> bool:
        """True if everything stands as it should."""
        return not (self.off or self.broken)


def judge_train(family: str, stands: Mapping[str, Stands], *, has_disc: bool, can_lift: bool) -> ResetAdvice:
    """Return what to do with a train, by how each part stands.

    A disc comes out first, by turning the train and never by a pull; what is broken is replaced before anything is brought home; the gear is lifted
    where it can be, since wires that thin are not made for bending.

    Raises
    ------
    InvalidError
        If the family has no train, or a part was not looked at.
    """
    if family not in TRAINS:
        raise InvalidError("family", f"A {family} loader has no train to reset; those that have one are {', '.join(TRAINS)}.")
    parts = TRAINS[family]
    unseen = [p.name for k, p in parts.items() if k not in stands]
    if unseen:
        raise InvalidError("stands", f"Look at {', '.join(unseen).lower()} as well: one part alone does not say that the train is home.")
    off, broken = (tuple(p.name for k, p in parts.items() if stands[k] is state) for state in (Stands.OFF, Stands.BROKEN))
    first = []
    if has_disc and (off or broken):
        first.append("Disc out first: turn the train by hand, never pull.")
    if broken:
        first.append(f"Replace before it is brought home: {', '.join(broken).lower()}. What is missing lies in the unit still.")
    ways = () if not off else (LIFT_GEAR, MOTOR_OFF) if can_lift else (MOTOR_OFF, LIFT_GEAR)
    return ResetAdvice(off, broken, tuple(first), ways)
