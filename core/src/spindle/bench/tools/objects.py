"""Foreign objects: the owner's list against what came out, where else to look, and whether power may follow."""

from __future__ import annotations

from typing import Any, Final

from spindle.bench.objects import SAFE, SPOTS, judge_search
from spindle.bench.tools.fields import Field, Inputs, flag, rows
from spindle.bench.tools.told import Number, Speaks, Told, Tool
from spindle.bench.verdict import refused
from spindle.words.bench import Mains
from spindle.words.chances import percent

FIELDS: Final[tuple[Field, ...]] = (
    rows(
        "expected",
        "What the owner misses",
        (Field("what", "What", "text"), Field("count", "How many", "number", low=1.0, high=40.0), flag("iron", "A magnet holds it")),
    ),
    rows(
        "found",
        "What came out",
        (
            Field("what", "What", "text"),
            Field("count", "How many", "number", low=1.0, high=40.0),
            flag("iron", "A magnet holds it"),
            Field("place", "Where it was", "choice", choices=tuple((k, s.name) for k, s in SPOTS.items()), optional=True),
            Field("size", "Size", "quantity", "length", low=0.5, high=150.0, optional=True),
        ),
    ),
    *(
        Field(place, f"Looked at: {spot.name}", "number", low=0.0, high=9.0, optional=True, hint="How often, with a light, turned.")
        for place, spot in SPOTS.items()
    ),
)


_HELD: Final = f"Power stays out until it is under {percent(SAFE)}, or somebody lifts the hold by name: what is loose breaks a lens."


def _run(inputs: Inputs) -> Told:
    expected, found = (_counts(inputs[name]) for name in ("expected", "found"))
    iron = {_key(r["what"]) for name in ("expected", "found") for r in inputs[name] if r["iron"]}
    search = judge_search(expected, found, iron, {place: round(inputs[place] or 0) for place in SPOTS})
    at_lens = any(r["place"] == "pickup" for r in inputs["found"])
    names = ", then ".join(SPOTS[p].name.lower() for p in search.look_next[:2])
    says = f"One more is inside with {percent(search.chance)}." if expected or found else "Nothing is missed, and nothing was found."
    return Told(
        f"{says} {'Power may follow.' if search.is_safe else f'Look next at: {names}.'}",
        reasons=()
        if search.is_safe
        else (refused(f"Power stays out until it is under {percent(SAFE)}, or somebody lifts the hold by name: what is loose breaks a lens."),),
        numbers=tuple(Number(thing, percent(p)) for thing, p in search.by_thing.items()),
        notes=("Look at the lens before a disc goes in: what lay there may have bent it.",) if at_lens else (),
        picture={"kind": "spots", "spots": [{"name": s.name, "looked": round(inputs[p] or 0), "next": p == search.look_next[0]} for p, s in SPOTS.items()]},
        speaks=_speaks(inputs),
        may_power=search.is_safe if expected or found else None,
        mains=Mains.OUT,
    )


def _speaks(inputs: Inputs) -> tuple[Speaks, ...]:
    """Something that came out is an answer, and so is nothing once every place was looked at."""
    if inputs["found"]:
        return (Speaks("object_search", {"found": 1.0, "nothing": 0.0}),)
    return (Speaks("object_search", {"found": 0.0, "nothing": 1.0}),) if all(inputs[p] for p in SPOTS) else ()


def _key(what: str) -> str:
    return " ".join(what.lower().split())


def _counts(told: list[dict[str, Any]]) -> dict[str, int]:
    counts: dict[str, int] = {}
    for row in told:
        counts[_key(row["what"])] = counts.get(_key(row["what"]), 0) + round(row["count"])
    return counts


OBJECTS: Final = Tool(
    "objects", "Things inside", "What was missed against what came out, and the chance that one more is there.", FIELDS, _run, ("object_search",)
)
