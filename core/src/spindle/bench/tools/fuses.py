"""Which fuse may go in; whether power may follow; why the old one blew. And the owner's supply, before it is plugged in."""

from __future__ import annotations

from typing import Any, Final

from spindle.bench.fuse import CAUSES, SIGNS, Candidate, FuseVerdict, Place, power_after, rank_fuses, why_blown
from spindle.bench.quantity import said
from spindle.bench.supply import Supply, judge_supply
from spindle.bench.tools.fields import Field, Inputs, choice, flag, quantity, rows
from spindle.bench.tools.told import Number, Speaks, Start, Told, Tool
from spindle.bench.verdict import Verdict
from spindle.drives.full_sheet import FullSheet
from spindle.drives.fuse import parse_fuse
from spindle.errors import InputsError, SheetError
from spindle.words.bench import Mains
from spindle.words.chances import percent

FUSE_FIELDS: Final[tuple[Field, ...]] = (
    Field("rating", "The sheet asks for", "text", hint="Current and speed: 1.5 A fast."),
    quantity("supply", "Volts behind it", "voltage", low=0.0, high=400.0),
    quantity("gap", "Gap between the pads", "length", low=0.0, high=60.0, optional=True),
    quantity("span", "Pads from end to end", "length", low=0.0, high=80.0, optional=True),
    quantity("pad", "Width of the pads", "length", low=0.0, high=30.0, optional=True),
    rows(
        "candidates",
        "Fuses at hand",
        (
            Field("marking", "What is printed on it", "text", optional=True),
            quantity("ohm", "Reads across", "resistance", low=0.0, optional=True, may_be_open=True),
            quantity("length", "Body length", "length", low=0.0, high=80.0, optional=True),
            quantity("width", "Body width", "length", low=0.0, high=30.0, optional=True),
            flag("leads", "Has leads"),
            flag("used", "Taken from another board"),
        ),
    ),
)


def _fuse(inputs: Inputs) -> Told:
    try:
        parse_fuse(inputs["rating"], place="/rating")
    except SheetError as error:
        raise InputsError([("/rating", error.message)]) from error
    place = Place(inputs["rating"], inputs["supply"], inputs["gap"], inputs["span"], inputs["pad"])
    candidates = [
        Candidate(f"{n}", r["marking"] or "", r["length"], r["width"], bool(r["leads"]), not r["used"], r["ohm"]) for n, r in enumerate(inputs["candidates"], 1)
    ]
    ranked = rank_fuses(candidates, place)
    if not ranked:
        return Told(f"Wanted: {place.rating}, at least {place.supply_v:g} V.", picture=_pads(place, None))
    best = ranked[0]
    named = f"Fuse {best.candidate.id}, {best.candidate.marking or 'unmarked'}"
    headline = {
        Verdict.ALLOWED: f"{named}: fit it.",
        Verdict.TRIAL_ONLY: f"{named}: for a trial only, out again before closing.",
        Verdict.REFUSED: f"None of them may go in. Wanted: {place.rating}, at least {place.supply_v:g} V.",
    }[best.verdict]
    return Told(
        headline,
        best.verdict,
        best.reasons,
        numbers=tuple(Number(f"{f.candidate.id}  {f.candidate.marking or 'unmarked'}", _said(f)) for f in ranked),
        notes=("First find why the old one blew: a fuse that blew once blows for a reason.",),
        cautions=("short",),
        picture=_pads(place, best.candidate),
        may_power=None,
    )


def _said(found: FuseVerdict) -> str:
    return f"{found.verdict.said}{': ' + ' '.join(r.text for r in found.reasons) if found.reasons else ''}"


def _pads(place: Place, candidate: Candidate | None) -> dict[str, Any]:
    body = None if candidate is None else candidate.length_mm
    return {"kind": "pads", "gap": place.gap_mm, "span": place.span_mm, "pad": place.pad_mm, "body": body, "width": candidate.width_mm if candidate else None}


def _fuses(full: FullSheet) -> list[Start]:
    found = []
    for row in full.rows("fuses"):
        given: dict[str, Any] = {"rating": row["rating"]}
        for name, column in (("supply", "volt"), ("gap", "gap_mm"), ("span", "span_mm"), ("pad", "pad_mm")):
            if row.get(column) is not None:
                given[name] = f"{row[column]:g} {'V' if name == 'supply' else 'mm'}"
        found.append(Start(str(row["name"]), given))
    return found


FUSE: Final = Tool("fuse", "Fuse", "Which one may go in: rating, speed, volts and body, all reasons said.", FUSE_FIELDS, _fuse, (), _fuses, "fuse")

BLOWN_FIELDS: Final[tuple[Field, ...]] = (
    Field("rating", "The fuse", "text", hint="Current and speed: 1.5 A fast."),
    quantity("supply", "Volts behind it", "voltage", low=0.5, high=400.0),
    quantity(
        "ohm", "Fed side to ground, fuse out", "resistance", low=0.0, optional=True, may_be_open=True, hint="Both ways round, the lower; ten seconds each."
    ),
    *(flag(sign, ask) for sign, ask in SIGNS.items() if sign != "ohms_low"),
)


def _blown(inputs: Inputs) -> Told:
    try:
        fuse = parse_fuse(inputs["rating"], place="/rating")
    except SheetError as error:
        raise InputsError([("/rating", error.message)]) from error
    signs = {s: inputs[s] for s in SIGNS if s != "ohms_low" and inputs[s] is not None}
    power = None if inputs["ohm"] is None else power_after(inputs["ohm"], inputs["supply"], fuse.rated_a)
    if power is not None and power.may is not None:
        signs["ohms_low"] = power.may is False
    chances = why_blown(signs)
    first = next(iter(chances))
    headline = "No power before the ohms behind the fuse are read." if power is None else power.text
    speaks: tuple[Speaks, ...] = ()
    if power is not None:
        short = 1.0 if power.may is False else 0.0 if power.may else 0.5
        speaks = (Speaks("short_test", {"none": 1.0 - short, "short": short}),)
    return Told(
        headline,
        Verdict.REFUSED if power is None or power.may is False else Verdict.TRIAL_ONLY if power.may is None else Verdict.ALLOWED,
        (),
        numbers=tuple(Number(CAUSES[c], percent(p)) for c, p in chances.items()),
        notes=(
            f"Most likely: {CAUSES[first][0].lower()}{CAUSES[first][1:]}.",
            "Of fuses that hold at first, three in ten blow again; one in twenty if current and warmth are as usual.",
        ),
        cautions=("short", "charge"),
        picture={"kind": "ohms", "ohm": None if inputs["ohm"] is None else min(inputs["ohm"], 1e9), "blow": inputs["supply"] / (2 * fuse.rated_a)},
        speaks=speaks,
        may_power=False if power is None else power.may,
        mains=Mains.ANY if power is None else Mains.OUT,
    )


def _blown_ones(full: FullSheet) -> list[Start]:
    return [Start(s.name, {k: v for k, v in s.inputs.items() if k in ("rating", "supply")}) for s in _fuses(full)]


BLOWN: Final = Tool(
    "blown", "Why it blew", "Ohms behind the fuse say whether power may follow; signs say what did it.", BLOWN_FIELDS, _blown, ("short_test",), _blown_ones
)

SUPPLY_FIELDS: Final[tuple[Field, ...]] = (
    quantity("nominal", "The unit's plate: volts", "voltage", low=1.0, high=60.0),
    quantity("amps", "The unit's plate: amps", "current", low=0.0, high=60.0),
    quantity("read", "Reads", "voltage", low=-100.0, high=100.0),
    flag("loaded", "Read under load", hint="With the unit's own load, or a resistor that draws half of its amps."),
    quantity("rated", "The supply's plate: amps", "current", low=0.0, high=100.0, optional=True),
    choice("gives", "The supply gives", (("dc", "Direct current"), ("ac", "Alternating current")), start="dc"),
    choice("wants", "The unit takes", (("dc", "Direct current"), ("ac", "Alternating current")), start="dc"),
    choice("plug", "Its plug's middle", (("plus", "Plus"), ("minus", "Minus"), ("unknown", "Not looked at")), start="unknown"),
    choice("socket", "The unit's middle", (("plus", "Plus"), ("minus", "Minus"), ("unknown", "Not known")), start="unknown"),
)
_PLUS: Final = {"plus": True, "minus": False, "unknown": None}


def _supply(inputs: Inputs) -> Told:
    supply = Supply(
        inputs["nominal"],
        inputs["amps"],
        inputs["read"],
        bool(inputs["loaded"]),
        inputs["rated"],
        inputs["gives"] == "ac",
        inputs["wants"] == "ac",
        _PLUS[inputs["plug"]],
        _PLUS[inputs["socket"]],
    )
    found = judge_supply(supply)
    headline = {
        Verdict.ALLOWED: "It is what the unit asks for.",
        Verdict.TRIAL_ONLY: "Not yet: look at what is not known.",
        Verdict.REFUSED: "Do not plug it in.",
    }[found.verdict]
    fits = {Verdict.ALLOWED: "fits", Verdict.REFUSED: "wrong"}.get(found.verdict)
    weak = found.verdict is Verdict.REFUSED and all("sags" in r.text for r in found.reasons if r.verdict is Verdict.REFUSED)
    answer = "weak" if weak else fits
    return Told(
        headline,
        found.verdict,
        found.reasons,
        numbers=(Number("Reads", said(inputs["read"], "voltage")), Number("May read", f"{said(found.low_v, 'voltage')} to {said(found.high_v, 'voltage')}")),
        cautions=("mains",),
        picture={"kind": "band", "value": inputs["read"], "u": 0.0, "low": found.low_v, "high": found.high_v, "unit": "voltage", "values": [inputs["read"]]},
        speaks=(Speaks("supply_rating", {a: float(a == answer) for a in ("fits", "weak", "wrong")}),) if answer else (),
        may_power=None if found.verdict is Verdict.ALLOWED else False,
    )


SUPPLY: Final = Tool(
    "supply", "Owner's supply", "Volts, polarity and amps against the unit's plate, before it is plugged in.", SUPPLY_FIELDS, _supply, ("supply_rating",)
)
