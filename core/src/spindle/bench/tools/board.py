"""A shim under a worn rail, and a capacitor kit against a board."""

from __future__ import annotations

from dataclasses import replace
from typing import Any, Final

from spindle.bench.capacitors import MATCH, Capacitor, Fitting, may_power, plan
from spindle.bench.shim import TOLERANCE_DEG, best_shim
from spindle.bench.tools.fields import Field, Inputs, flag, quantity, rows
from spindle.bench.tools.told import Number, Start, Told, Tool
from spindle.bench.verdict import Reason, Verdict, refused
from spindle.drives.full_sheet import FullSheet

SHIM_FIELDS: Final[tuple[Field, ...]] = (
    Field("wear", "Wear, from the fixed end to the worn one", "quantities", "length", low=0.0, high=3.0, hint="At three places, evenly apart."),
    quantity("base", "From the worn rail to the other", "length", low=5.0, high=120.0),
    Field("stock", "Pieces at hand", "quantities", "length", low=0.01, high=3.0),
    *(flag(f"nm{nm}", f"It reads with {nm} nm") for nm in TOLERANCE_DEG),
    *(
        quantity(f"lean{nm}", f"With {nm} nm it may lean at most, by the sheet", "angle", low=0.05, high=3.0, optional=True, hint=f"Left out: {bears:g}°.")
        for nm, bears in TOLERANCE_DEG.items()
    ),
)


def _shim(inputs: Inputs) -> Told:
    nm = [nm for nm in TOLERANCE_DEG if inputs[f"nm{nm}"]]
    bears = {one: usual if inputs[f"lean{one}"] is None else inputs[f"lean{one}"] for one, usual in TOLERANCE_DEG.items()}
    found = best_shim(inputs["wear"], inputs["base"], inputs["stock"], nm, tolerances=bears)
    pieces = " + ".join(f"{p:g} mm" for p in found.pieces_mm)
    headline = f"{f'Lay {pieces} under the worn end. ' if found.pieces_mm else ''}{found.text}"
    return Told(
        headline,
        Verdict.TRIAL_ONLY if found.pieces_mm else None,
        (Reason(Verdict.TRIAL_ONLY, "A stopgap, and a workaround that the owner is told of."),) if found.pieces_mm else (),
        numbers=(
            Number("Leans now", f"{found.worst_before:.2f}° at worst"),
            Number("Leans then", f"{found.worst_after:.2f}° at worst"),
            Number("It may lean", f"{found.tolerance_deg:.2f}°"),
        ),
        picture={"kind": "tilt", "before": list(found.before_deg), "after": list(found.after_deg), "tolerance": found.tolerance_deg},
    )


def _rails(full: FullSheet) -> list[Start]:
    given: dict[str, Any] = {f"nm{nm}": nm in full.drive.wavelengths_nm for nm in TOLERANCE_DEG}
    own = {f"lean{r['nm']}": f"{r['most_deg']:g}°" for r in full.rows("tilt")}
    return [Start("Rails", given | own)]


SHIM: Final = Tool("shim", "Wear shim", "From wear to lean, and the pieces at hand that make it lean least.", SHIM_FIELDS, _shim, (), _rails)

_CAPACITOR: Final[tuple[Field, ...]] = (
    Field("name", "Which", "text"),
    quantity("uf", "Capacitance", "capacitance", low=0.0001, high=100_000.0),
    quantity("volt", "Volts", "voltage", low=1.0, high=450.0),
    flag("bipolar", "No polarity"),
    Field("degrees", "Made for °C", "number", low=40, high=200, optional=True),
    flag("low_esr", "Low ESR"),
    quantity("height", "Height", "length", low=0.5, high=120.0, optional=True),
    quantity("diameter", "Diameter", "length", low=0.5, high=80.0, optional=True),
)
CAPACITOR_FIELDS: Final[tuple[Field, ...]] = (
    rows("places", "Places on the board", (*_CAPACITOR, flag("seen_once", "Polarity seen as fitted"), flag("seen_again", "Seen again, in a pass of its own"))),
    rows("kit", "The kit", _CAPACITOR),
)
USUAL_DEGREES: Final = 85.0


def _capacitors(inputs: Inputs) -> Told:
    places, kit = ([_capacitor(r) for r in inputs[name]] for name in ("places", "kit"))
    found = plan(places, kit)
    fittings = [replace(f, polarity_seen=_seen(r)) for f, r in zip(found.fittings, inputs["places"], strict=True)]
    fitted = sum(f.part is not None for f in fittings)
    may, why = may_power(fittings)
    headline = f"{fitted} of {len(places)} places have their part." if places else "Say which places the board has."
    return Told(
        f"{headline} {why if fitted == len(places) and places else ''}".strip(),
        Verdict.REFUSED if found.short else None,
        tuple(refused(s) for s in found.short),
        numbers=tuple(Number(f.place.name, _said(f)) for f in fittings),
        notes=tuple(f"Left over: {p.name}, {p.uf:g} µF {p.volt:g} V." for p in found.spare),
        cautions=("polarity", "solder", "charge"),
        picture={"kind": "capacitors", "places": [_drawn(f) for f in fittings], "match": MATCH},
        may_power=False if not may or found.short else None,
    )


def _capacitor(r: Inputs) -> Capacitor:
    return Capacitor(r["name"], r["uf"], r["volt"], not r["bipolar"], r["degrees"] or USUAL_DEGREES, bool(r["low_esr"]), r["height"], r["diameter"])


def _seen(r: Inputs) -> int:
    """How often its polarity was looked at; the second look is none without the first."""
    return int(bool(r["seen_once"])) + int(bool(r["seen_once"] and r["seen_again"]))


def _said(f: Fitting) -> str:
    want = f"{f.place.uf:g} µF {f.place.volt:g} V"
    return f"{want}: {f.part.name}{f' ({f.remark})' if f.remark else ''}" if f.part else f"{want}: none"


def _drawn(f: Fitting) -> dict[str, Any]:
    return {"name": f.place.name, "part": f.part.name if f.part else None, "polar": f.place.polar, "seen": f.polarity_seen, "diameter": f.place.diameter_mm}


def _places(full: FullSheet) -> list[Start]:
    found = []
    for row in full.rows("capacitors"):
        given: dict[str, Any] = {"name": row["name"], "uf": f"{row['uf']:g} uF", "volt": f"{row['volt']:g} V"}
        given |= {k: row[k] for k in ("bipolar", "low_esr", "degrees") if row.get(k) is not None}
        given |= {k: f"{row[f'{k}_mm']:g} mm" for k in ("height", "diameter") if row.get(f"{k}_mm") is not None}
        found.append(given)
    return [Start("The board", {"places": found})] if found else []


CAPACITORS: Final = Tool(
    "capacitors",
    "Capacitors",
    "The kit against the board, what is short and why, polarity seen twice.",
    CAPACITOR_FIELDS,
    _capacitors,
    (),
    _places,
    "electrolytics",
)
