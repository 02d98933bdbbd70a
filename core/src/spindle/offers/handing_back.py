"""What is told to the owner when a unit goes home: the cause as far as it is known, and how such a drive is kept well."""

from __future__ import annotations

from dataclasses import dataclass
from types import MappingProxyType
from typing import Final

from spindle.diagnosis.belief.posterior import Belief
from spindle.diagnosis.given.case import Change, Trial, TrialResult
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.faults.model import LEAK, NOTHING
from spindle.offers.ends import ENDS, UNREPAIRED
from spindle.words.health import Health
from spindle.words.known import KNOWN_BY, Known

_SURE: Final = ((0.95, "nearly certain"), (0.8, "very likely"), (0.5, "likely"))
"""Least probability -> how sure that is, in an owner's words."""
NAMED_FROM: Final = _SURE[-1][0]
"""A cause is named from an even chance on: below it a name would be a guess on paper."""
_OFF: Final = "Turn the console off with its button and wait for the disc to stop before the plug is pulled."
CARE: Final = MappingProxyType(
    {
        "slot": ("Push no disc: offer it and let the drive take it.", _OFF, "Keep the vents free and the discs clean; no coins or cards near the slot."),
        "tray": (
            "Lay the disc flat and let the tray close by its button, not by a push.",
            _OFF,
            "Keep the vents free and the discs clean; nothing under the tray.",
        ),
        "lid": (
            "Press the disc onto the hub until it clicks, and lift it by its rim.",
            _OFF,
            "Close the lid gently; keep the lens dry, and leave it to the bench.",
        ),
    }
)
"""What keeps a drive well, by its loader family."""


@dataclass(frozen=True, slots=True)
class Cause:
    """The cause as it is told: in words, and how sure it is; ``p`` is 0 where no cause is named."""

    text: str
    p: float = 0.0
    sureness: str = ""


def likeliest_end(belief: Belief, model: CompiledModel) -> str:
    """Return the end that fits what was found, where nothing is repaired."""
    return "nothing_wrong" if model.sound[int(belief.p.argmax())] else UNREPAIRED


def confirmed_cause(fault: str, by: Known, model: CompiledModel) -> Cause:
    """Return the cause that the bench has confirmed, as it is told."""
    if fault == LEAK:
        return Cause(f"Something that is not on our list, {KNOWN_BY[by]}.", sureness="confirmed")
    return Cause(f"{model.faults[model.fault_index[fault]].name}: {KNOWN_BY[by]}.", sureness="confirmed")


def cause_of(belief: Belief, model: CompiledModel, end: str = "") -> Cause:
    """Return the cause that is told: that of the end, where nothing was repaired; else the likeliest fault, if it is likely enough to be named."""
    if end and ENDS[end].cause:
        return Cause(ENDS[end].cause)
    top = int(belief.p.argmax())
    fault, p = model.faults[top], float(belief.p[top])
    if fault.id == LEAK:
        return Cause("Cause unknown: nothing on our list fits well.")
    if p >= NAMED_FROM and fault.id == NOTHING:
        return Cause(ENDS["nothing_wrong"].cause, p, next(words for least, words in _SURE if p >= least))
    if p < NAMED_FROM:
        return Cause("Cause not found for certain.")
    return Cause(f"{fault.name}.", p, next(words for least, words in _SURE if p >= least))


_CAME_OF_IT: Final = MappingProxyType(
    {
        TrialResult.CLEAN: "It has worked since.",
        TrialResult.CHANGED: "Part of the trouble was gone after it.",
        TrialResult.NO_CHANGE: "It made no difference, so we looked further.",
        TrialResult.WORSE: "It was worse after that, so we looked further.",
    }
)
_PART: Final = MappingProxyType({Health.NEW: "a new part", Health.PROVEN: "a used part that we had seen working", Health.UNKNOWN: "a used part"})


def told_trial(trial: Trial, model: CompiledModel) -> str:
    """Return what was done in a trial and what came of it, as an owner reads it."""
    done = " and ".join(_told_change(c, model) for c in trial.changes)
    return f"We did this: {done}. {_CAME_OF_IT[trial.result]}"


def _told_change(change: Change, model: CompiledModel) -> str:
    repair = model.repairs[model.repair_index[change.repair]]
    name = repair.name[0].lower() + repair.name[1:]
    return f"{name}, with {_PART[change.health]}" if repair.uses_item else name
