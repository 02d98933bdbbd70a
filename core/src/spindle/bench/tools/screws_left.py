"""Screws that are left over when the unit is shut: which places probably hold the wrong one, or none."""

from __future__ import annotations

from typing import Any, Final

from spindle.bench.screws import Screw, Slip, wrong_places
from spindle.bench.tools.fields import Field, Inputs, quantity, rows
from spindle.bench.tools.told import Number, Start, Told, Tool
from spindle.drives.full_sheet import FullSheet
from spindle.errors import InputsError, InvalidError

FIELDS: Final[tuple[Field, ...]] = (
    rows(
        "groups",
        "Screws by what they hold",
        (
            Field("name", "Place", "text"),
            Field("count", "Places", "number", low=1.0, high=40.0),
            quantity("length", "Length", "length", low=0.5, high=60.0),
            quantity("thread", "Thread", "length", low=0.5, high=8.0),
            Field("head", "Head", "text", optional=True),
            Field("colour", "Colour", "text", optional=True),
            quantity("room", "Room under it", "length", low=0.5, high=80.0, optional=True),
            Field("left", "Left over", "number", low=0.0, high=40.0, optional=True),
            Field("missing", "Missing from the start", "number", low=0.0, high=40.0, optional=True),
        ),
    ),
)
SHOWN: Final = 5
"""Groups that are worth a look: after these the chance is in the rest of the unit."""


def _run(inputs: Inputs) -> Told:
    told = inputs["groups"]
    groups = [(Screw(g["length"], g["thread"], g["head"] or "", g["colour"] or "", g["room"]), round(g["count"])) for g in told]
    left, missing = ([round(g[name] or 0) for g in told] for name in ("left", "missing"))
    if not sum(left):
        return Told("Nothing is left over: every screw that came out went in somewhere. Counts alone show fewer than half of the mix-ups.")
    try:
        slips = wrong_places(groups, left, missing)
    except InvalidError as error:
        raise InputsError([("/groups", error.message)]) from error
    shown = slips[:SHOWN]
    return Told(
        f"Open {told[shown[0].place]['name']} first." if shown else "No place stands out.",
        numbers=tuple(Number(told[s.place]["name"], _said(s, told)) for s in shown),
        notes=("Long in short goes first: its tip is where it should not be.",) if any(s.is_danger for s in shown) else (),
        picture={"kind": "screws", "groups": [_drawn(n, g, slips) for n, g in enumerate(told)]},
    )


def _said(slip: Slip, told: list[dict[str, Any]]) -> str:
    what = "empty" if slip.screw is None else f"with a screw of “{told[slip.screw]['name']}”"
    return f"{slip.expected:.1f} of {round(told[slip.place]['count'])} places {what}{', too long' if slip.is_danger else ''}"


def _drawn(n: int, group: dict[str, Any], slips: tuple[Slip, ...]) -> dict[str, Any]:
    count = round(group["count"])
    wrong = min(sum(s.expected for s in slips if s.place == n), count)
    return {"name": group["name"], "length": group["length"], "thread": group["thread"], "count": count, "wrong": round(wrong, 2)}


def _prefill(full: FullSheet) -> list[Start]:
    found = []
    for row in full.rows("screws"):
        given: dict[str, Any] = {"name": row["place"], "count": row["count"], "length": f"{row['length_mm']:g} mm", "thread": f"{row['thread_mm']:g} mm"}
        given |= {k: row[k] for k in ("head", "colour") if row.get(k)}
        found.append(given | ({"room": f"{row['depth_mm']:g} mm"} if row.get("depth_mm") else {}))
    return [Start("Screws of the drive", {"groups": found})] if found else []


SCREWS: Final = Tool("screws", "Screws left over", "Which places probably got the wrong one, by what is left.", FIELDS, _run, (), _prefill)
