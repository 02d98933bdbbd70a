"""Several trims that pull at each other: which to set next, and whether another round pays."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

import numpy as np

from spindle.bench.quantity import said
from spindle.bench.tools.fields import Field, Inputs, choice, quantity, rows
from spindle.bench.tools.told import Number, Start, Told, Tool
from spindle.bench.tools.trimmers import bands_of
from spindle.bench.trimming.alignment import Round, TurnMade, next_round
from spindle.drives.full_sheet import FullSheet
from spindle.errors import InputsError

_FAR: Final = 8.0
"""Half bands from the aim that a reading may pass on the way, where the sheet gives no strong limit."""

FIELDS: Final[tuple[Field, ...]] = (
    choice("quantity", "Read in", (("voltage", "Volts"), ("resistance", "Ohms")), start="voltage"),
    rows(
        "trims",
        "Trims, in the sheet's order",
        (
            Field("name", "Which", "text"),
            quantity("low", "Band from", "*"),
            quantity("high", "Band to", "*"),
            Field("state", "In which state", "text", optional=True),
        ),
    ),
    rows(
        "rounds",
        "Read, nothing turned",
        (Field("readings", "One a trim, in order", "quantities", "*"),),
        hint="The first before any turn, then one after each round.",
    ),
    rows(
        "turns",
        "Turns made",
        (
            Field("trim", "Which trim", "number", low=1, high=12),
            Field("deg", "Degrees, clockwise up", "number", low=-360, high=360),
            Field("before", "All before", "quantities", "*"),
            Field("after", "All after", "quantities", "*"),
        ),
    ),
)


def _run(inputs: Inputs) -> Told:
    trims = inputs["trims"]
    centre = np.array([(t["low"] + t["high"]) / 2.0 for t in trims])
    half = np.array([(t["high"] - t["low"]) / 2.0 for t in trims])
    faults = [(f"/trims/{n}/high", "The band's end has to lie above its beginning.") for n, h in enumerate(half) if h <= 0]
    faults += [
        (f"/rounds/{n}/readings", f"Expected {len(trims)} readings, got {len(r['readings'])}.")
        for n, r in enumerate(inputs["rounds"])
        if len(r["readings"]) != len(trims)
    ]
    faults += [
        (f"/turns/{n}", f"Expected trim 1 to {len(trims)} and all {len(trims)} readings before and after.")
        for n, t in enumerate(inputs["turns"])
        if not _is_whole(t, len(trims))
    ]
    if faults:
        raise InputsError(faults)
    errors = [(np.array(r["readings"]) - centre) / half for r in inputs["rounds"]]
    if not errors or not trims:
        return Told(
            "Read all of them, nothing turned, before the first turn." if trims else "Say which trims there are, in the sheet's order.",
            picture={"kind": "trims", "errors": []},
        )
    turns = [TurnMade(int(t["trim"]) - 1, t["deg"], tuple((np.array(t["after"]) - np.array(t["before"])) / half)) for t in inputs["turns"]]
    step = next_round(errors, turns, [(-_FAR, _FAR)] * len(trims))
    names = [str(t["name"]) for t in trims]
    out = [n for n, e in zip(names, errors[-1], strict=True) if abs(e) > 0.8]
    headline = _words(step, names, out, len(errors))
    return Told(
        headline,
        numbers=tuple(
            Number(n, f"{said(float(r), inputs['quantity'])}, {abs(e):.1f} half bands {'over' if e > 0 else 'under'} the middle")
            for n, r, e in zip(names, inputs["rounds"][-1]["readings"], errors[-1], strict=True)
        ),
        notes=tuple(f"{t['name']}: {t['state']}" for t in trims if t["state"]),
        cautions=("laser",),
        picture={"kind": "trims", "names": names, "errors": [[float(x) for x in e] for e in errors]},
    )


def _words(step: Round, names: Sequence[str], out: Sequence[str], rounds: int) -> str:
    if step.what == "done":
        return "Aligned: all of them stand in their bands at one reading."
    if step.what == "again":
        return f"Round {rounds}: set {', then '.join(names)}, each in its own state; then read all again, nothing turned."
    if step.what == "stop":
        return f"Stop: another round does not pay, and {', '.join(out)} will not come in. Back to as found, or another fault."
    turns = "; ".join(f"{name} {deg:+.0f}°" for name, deg in zip(names, step.turns_deg, strict=True))
    return f"They pull at each other. Turn together: {turns}. Then read all again."


def _is_whole(turn: Inputs, n: int) -> bool:
    return 1 <= turn["trim"] <= n and len(turn["before"]) == n and len(turn["after"]) == n


def _prefill(full: FullSheet) -> list[Start]:
    found = []
    for read_in, name, state in (("resistance", "All trimmers", "mains out"), ("voltage", "All trimmers, running", "running")):
        bands = [(row["name"], low, high) for row in full.rows("trimmers") for kind, low, high, _ in bands_of(row) if kind == read_in]
        trims = [{"name": trim, "low": low, "high": high, "state": state} for trim, low, high in bands]
        found += [Start(name, {"quantity": read_in, "trims": trims})] if len(trims) > 1 else []
    return found


ALIGNMENT: Final = Tool("alignment", "Alignment", "Several trims in order, each in its state; round again only where it pays.", FIELDS, _run, (), _prefill)
