"""The trimmer assistant: where it stands, what to turn next, and what it has cost so far."""

from __future__ import annotations

import math
from typing import Any, Final

from spindle.bench.quantity import KINDS, said
from spindle.bench.reading import usual_spread
from spindle.bench.tools.fields import Field, Inputs, choice, quantity, rows
from spindle.bench.tools.told import Number, Speaks, Start, Told, Tool
from spindle.bench.trimming.creeping import Creep, creep_step, months_left, reads, reserve, worn
from spindle.bench.trimming.stops import Stop, Trimmer
from spindle.bench.trimming.turning import ALARMS, Next, Step, next_step
from spindle.drives.full_sheet import FullSheet
from spindle.drives.tables import Row
from spindle.words.bench import Mains

_WAYS: Final = (("less", "less is more drive"), ("more", "more is more drive"), ("unknown", "not known"))
_SIGN: Final = {"less": -1, "more": 1, "unknown": 0}
_TURNS: Final = (("raises", "clockwise raises it"), ("lowers", "clockwise lowers it"), ("unknown", "not known"))
_SCHOOLS: Final = (("book", "To the book's value"), ("creep", "Up from less drive until it reads"))

FIELDS: Final[tuple[Field, ...]] = (
    Field("name", "Which trimmer", "text", optional=True),
    choice("school", "How", _SCHOOLS, start="book"),
    choice("quantity", "Read in", (("resistance", "Ohms, mains out"), ("voltage", "Volts, running")), start="resistance"),
    quantity("low", "Band from", "*", low=0.0),
    quantity("high", "Band to", "*", low=0.0),
    rows(
        "stops",
        "Stops",
        (
            Field("turned_deg", "Turned, clockwise counts up", "number", low=-360.0, high=360.0, optional=True, hint="In degrees, seen from the front."),
            Field("looks", "Read", "quantities", "*"),
            Field("after_tap", "After a tap", "quantities", "*", optional=True),
            Field("passes", "Discs that read", "number", low=0, high=100, optional=True),
            Field("tries", "of", "number", low=0, high=100, optional=True),
        ),
    ),
    quantity("strong", "Strong limit", "*", low=0.0, optional=True, hint="Beyond it the laser ages in hours. Without it the band's own end is the limit."),
    choice("drive", "Of the reading", _WAYS, start="unknown"),
    choice("clockwise", "Seen from the front", _TURNS, start="unknown"),
    quantity("u", "Meter is sure to", "*", low=0.0, optional=True, hint="Left out: 0.5 % of the reading."),
    Field("rate", "Wear, half bands a month", "number", low=0.0, high=10.0, optional=True, hint="From the sheet; without it no stopgap gets a date."),
)
U_SHARE: Final = 0.005


def _trimmer(inputs: Inputs) -> Trimmer:
    kind = inputs["quantity"]
    u = inputs["u"] if inputs["u"] else U_SHARE * (inputs["low"] + inputs["high"]) / 2.0
    sign = _SIGN[inputs["drive"]]
    turn = {"raises": 1, "lowers": -1, "unknown": 0}[inputs["clockwise"]]
    return Trimmer(inputs["low"], inputs["high"], kind, sign, turn, inputs["strong"] if sign else None, kind == "voltage", u)


def _stops(inputs: Inputs) -> list[Stop]:
    found = []
    for row in inputs["stops"]:
        tries = int(row["tries"] or 0)
        found.append(Stop(float(row["turned_deg"] or 0.0), tuple(row["looks"]), tuple(row["after_tap"] or ()), min(int(row["passes"] or 0), tries), tries))
    return found


def _run(inputs: Inputs) -> Told:
    trimmer, stops = _trimmer(inputs), _stops(inputs)
    creep = creep_step(trimmer, stops) if inputs["school"] == "creep" else None
    step = next_step(trimmer, stops)
    alarms = creep.alarms if creep else step.alarms
    may_power = step.may_power
    return Told(
        headline=_creep_words(creep, trimmer, stops, inputs["rate"]) if creep else _words(step, trimmer),
        numbers=(*_numbers(trimmer, stops), *_way_back(step.back_deg)),
        notes=(*(ALARMS[a] for a in alarms), *_school_notes(trimmer, stops, inputs["school"])),
        cautions=("laser", "static") if trimmer.is_powered and may_power else ("static",),
        picture=_picture(trimmer, stops, creep.turn_deg if creep else step.turn_deg),
        speaks=_speaks(trimmer, stops),
        may_power=may_power,
        mains=Mains.LIVE if trimmer.is_powered else Mains.OUT,
        next_rows=_next_rows(creep.what if creep else step.what.value, creep.turn_deg if creep else step.turn_deg, stops),
    )


def _next_rows(what: str, turn_deg: float, stops: list[Stop]) -> dict[str, dict[str, Any]]:
    """Return the stop that comes next: as found, or after the turn that is advised."""
    if not stops:
        return {"stops": {"turned_deg": 0}}
    return {"stops": {"turned_deg": round(turn_deg)}} if what == Next.TURN else {}


def _way_back(deg: float) -> tuple[Number, ...]:
    """The one step back to as found, as soon as there is a way back."""
    return (Number("Back to as found", _turn_words(deg)),) if abs(deg) >= 1 else ()


def _turn_words(deg: float) -> str:
    return f"Turn {abs(deg):.0f}° {'clockwise' if deg > 0 else 'anticlockwise'}, seen from the front"


def _words(step: Step, trimmer: Trimmer) -> str:
    if step.what is Next.TURN:
        lead = "" if step.predicted is None else f", to about {said(trimmer.reading(step.predicted), trimmer.kind)}"
        return f"{_turn_words(step.turn_deg)}{lead}."
    back = f" Back to as found: {_turn_words(step.back_deg).lower()}." if abs(step.back_deg) >= 1 else ""
    return {
        Next.LOOK: "Read it three times, tips held still.",
        Next.TAP: "It stands right. Tap the board, and read three times more.",
        Next.DONE: "Set: it stands in the band and a tap did not move it.",
        Next.STOP: f"Stop. Power off.{back}",
    }[step.what]


def _creep_words(creep: Creep, trimmer: Trimmer, stops: list[Stop], rate: float | None) -> str:
    if creep.what == "reads":
        z = trimmer.z(stops[-1].value)
        left = worn(reserve(trimmer, z))
        if left in ("ample", "fair"):
            return f"It reads here, with {left} reserve to the strong limit. Leave it."
        months = months_left(z, trimmer.z_limit, rate)
        until = f" As a stopgap for about {months:.0f} months." if months is not None else " A stopgap without a date: the sheet gives no rate."
        return f"It reads here, with {left} reserve: the pickup is worn. Replace it.{until}"
    return {
        "look": "Read it three times, tips held still.",
        "tap": "Tap the board, and read three times more.",
        "try": f"Offer {creep.tries} discs, one after the other, and count.",
        "turn": f"{_turn_words(creep.turn_deg)}{', back towards as found. Power off' if creep.going_back else ''}.",
        "back": "Nothing read up to the limit, and it stands as found again. It is not the drive: look elsewhere, or replace the pickup.",
        "refused": "Refused: as found it stands above its band and fails. More drive only burns what is left. Replace the pickup.",
        "stop": "Stop. Power off, and back to as found.",
    }[creep.what]


def _numbers(trimmer: Trimmer, stops: list[Stop]) -> tuple[Number, ...]:
    kind = trimmer.kind
    limit = (
        said(trimmer.reading(trimmer.z_limit), kind)
        if trimmer.strong is not None
        else "the band's own ends: the sheet gives none, or not which way the drive rises"
    )
    shown = [Number("Band", f"{said(trimmer.low, kind)} to {said(trimmer.high, kind)}"), Number("Strong limit", limit)]
    if stops and stops[0].looks:
        shown.append(Number("As found", said(stops[0].value, kind)))
        shown.append(Number("Now", said(stops[-1].value, kind)))
        shown.append(Number("Turned in all", f"{sum(s.turned_deg for s in stops):+.0f}° in {len(stops) - 1} {'turn' if len(stops) == 2 else 'turns'}"))
    shown += [Number(f"Stop {n}", f"{said(s.value, kind)}: {s.passes} of {s.tries} discs read") for n, s in enumerate(stops) if s.tries and s.looks]
    return tuple(shown)


def _school_notes(trimmer: Trimmer, stops: list[Stop], school: str) -> list[str]:
    notes = []
    if stops and stops[0].looks and abs(trimmer.z(stops[0].value)) <= 1.0:
        notes.append("As found it stands in its band. That clears nothing: a worn and a healthy pickup can stand alike.")
    if school == "creep" and not trimmer.more_drive:
        notes.append("Which way the drive rises is not known: only the book's value can be set.")
    if any(reads(s) for s in stops):
        notes.append("After closing, read it again: one in fifty moves out of its band.")
    return notes


def _picture(trimmer: Trimmer, stops: list[Stop], turn_deg: float) -> dict[str, Any]:
    stood = [s for s in stops if s.looks]
    return {
        "kind": "dial",
        "unit": KINDS[trimmer.kind].shown,
        "low": trimmer.low,
        "high": trimmer.high,
        "strong": trimmer.strong,
        "stops": [{"value": s.value, "deg": sum(t.turned_deg for t in stops[: n + 1]), "passes": s.passes, "tries": s.tries} for n, s in enumerate(stood)],
        "turn_deg": turn_deg,
    }


def _speaks(trimmer: Trimmer, stops: list[Stop]) -> tuple[Speaks, ...]:
    """As found, in ohms, it answers the drive's own question about the trimmer: what was turned since is a repair, and no sign."""
    if trimmer.is_powered or not stops or not stops[0].looks:
        return ()
    z, u = trimmer.z(stops[0].value), max(trimmer.u_z, usual_spread(stops[0].value, trimmer.kind) / trimmer.half)
    inside = 0.5 * (math.erf((1 - z) / u / math.sqrt(2)) - math.erf((-1 - z) / u / math.sqrt(2)))
    return (Speaks("trimmer_reading", {"in_band": inside, "out_of_band": 1.0 - inside}),)


def bands_of(row: Row) -> list[tuple[str, str, str, str]]:
    """Return the bands that a sheet's row has for a trimmer, ohms first: the quantity, and its two ends and strong limit ("" for none) as they are typed."""
    found = []
    for quantity_, end, unit in (("resistance", "ohm", "Ω"), ("voltage", "volt", "V")):
        low, high, strong = (f"{row[c]:g} {unit}" if row.get(c) is not None else "" for c in (f"low_{end}", f"high_{end}", f"strong_{end}"))
        if low:
            found.append((quantity_, low, high, strong))
    return found


_MORE_LIGHT: Final = {"resistance": {"less resistance": "less", "more resistance": "more"}, "voltage": {"less volts": "less", "more volts": "more"}}


def _starts(row: Row) -> list[Start]:
    found: list[Start] = []
    for n, (kind, low, high, strong) in enumerate(bands_of(row)):
        given: dict[str, Any] = {"name": row["name"], "quantity": kind, "low": low, "high": high}
        given["drive"] = _MORE_LIGHT[kind].get(str(row["more_light"]), "unknown")
        if strong:
            given["strong"] = strong
        if row.get("clockwise") and n == 0:  # which way it moves is said of one reading, the first
            given["clockwise"] = {"raises it": "raises", "lowers it": "lowers"}.get(str(row["clockwise"]), "unknown")
        if row.get("wear_rate") is not None:
            given["rate"] = row["wear_rate"]
        found.append(Start(str(row["name"]) if kind == "resistance" else f"{row['name']}, running", given))
    return found


def _prefill(full: FullSheet) -> list[Start]:
    return [start for row in full.rows("trimmers") for start in _starts(row)]


TRIMMER: Final = Tool(
    "trimmer", "Trimmer", "As found first; then turn by turn, with the limit in sight, and back in one step.", FIELDS, _run, ("trimmer_reading",), _prefill
)
