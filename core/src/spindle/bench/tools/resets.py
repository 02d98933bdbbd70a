"""Whether a mechanism stands at rest, part by part against its picture, and how it is brought home."""

from __future__ import annotations

from typing import Final

from spindle.bench.reset import PROOF, TRAINS, ResetAdvice, Stands, judge_train
from spindle.bench.tools.fields import Field, Inputs, choice, flag
from spindle.bench.tools.told import Number, Speaks, Start, Told, Tool
from spindle.drives.full_sheet import FullSheet
from spindle.errors import InputsError, InvalidError
from spindle.words.bench import Mains

_STATES: Final = (("right", "As in the picture"), ("off", "Not as in the picture"), ("broken", "Broken, bent or not there"))
_PARTS: Final = {key: (part, [f for f, t in TRAINS.items() if key in t]) for train in TRAINS.values() for key, part in train.items()}
"""Part -> what it is, and the families that have it."""


def _asked(key: str) -> str:
    part, families = _PARTS[key]
    return f"{'' if len(families) > 1 else f'{families[0].capitalize()}: '}{part.name.lower() if len(families) == 1 else part.name}, {part.right}"


_OUTCOMES: Final = {"slot": ("at_rest", "out_of_step", "broken"), "tray": ("whole", "half", "gap")}
"""Loader family -> the answers of its gears' question: all is well, it stands wrong, something is broken."""
FIELDS: Final[tuple[Field, ...]] = (
    choice("family", "Loader", (("slot", "Slot"), ("tray", "Tray"))),
    *(Field(key, _asked(key), "choice", choices=_STATES, optional=True) for key in _PARTS),
    flag("disc", "A disc is inside"),
    flag("can_lift", "The marked gear can be lifted"),
)


def _run(inputs: Inputs) -> Told:
    family = inputs["family"]
    stands = {key: Stands(inputs[key]) for key in TRAINS[family] if inputs[key]}
    try:
        found = judge_train(family, stands, has_disc=inputs["disc"], can_lift=inputs["can_lift"])
    except InvalidError as error:
        raise InputsError([("/", error.message)]) from error
    return Told(
        _headline(found),
        numbers=tuple(Number(w.name, w.how) for w in found.ways),
        notes=(*found.first, *(f"{w.name}: {w.risk}" for w in found.ways), *((PROOF,) if found.ways else ())),
        cautions=("pinch",) if found.ways else (),
        picture={
            "kind": "train",
            "parts": [{"id": k, "name": p.name, "right": p.right, "wrong": p.wrong, "stands": stands[k].value} for k, p in TRAINS[family].items()],
        },
        speaks=(_speaks(family, found),),
        mains=Mains.OUT,
    )


def _headline(found: ResetAdvice) -> str:
    if found.is_home:
        return "The train is at rest: nothing to bring home."
    if found.broken:
        return f"{', '.join(found.broken)}: broken or not there. Replace it, then bring the train home."
    return f"Out of step: {', '.join(found.off).lower()}. {found.ways[0].name}."


def _speaks(family: str, found: ResetAdvice) -> Speaks:
    answers = _OUTCOMES[family]
    seen = answers[2] if found.broken else answers[1] if found.off else answers[0]
    return Speaks("gears_look", {a: float(a == seen) for a in answers})


def _prefill(full: FullSheet) -> list[Start]:
    return [Start("The train", {"family": full.drive.family}, "gears_look")] if full.drive.family in TRAINS else []


RESET: Final = Tool(
    "reset", "Mechanism at rest", "Gears, slider, levers and arms against their rest position, and two ways home.", FIELDS, _run, ("gears_look",), _prefill
)
