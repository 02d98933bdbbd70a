"""A reading at two points, in its state, against a limit in its own."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from typing import Final

from spindle.bench.quantity import plus_minus, said
from spindle.bench.reading import Accuracy, Can, Interval, Limit, Measured, can_tell, is_creeping, measure, repeats_needed, soft_weights, usual_spread
from spindle.bench.tools.fields import Field, Inputs, choice, quantity, read_inputs
from spindle.bench.tools.told import Number, Speaks, Start, Told, Tool
from spindle.bench.tools.trimmers import bands_of
from spindle.drives.tables import Row
from spindle.errors import InputsError, InvalidError
from spindle.words.bench import Mains
from spindle.words.chances import percent

_MAINS: Final = (("out", "Mains out"), ("standby", "Standby"), ("running", "Running"))
_READ_WITH: Final = {"out": Mains.OUT, "running": Mains.LIVE}
_DISC: Final = (("any", "Disc in or out"), ("in", "Disc in"), ("out", "No disc"))
_SWITCH: Final = (("any", "Switch either way"), ("held", "Switch held"), ("free", "Switch free"))
_QUANTITIES: Final = (("voltage", "Volts"), ("resistance", "Ohms"), ("current", "Amps"))
MISSING: Final = 0.25
"""Under a quarter of the band's low end a supply is missing, not weak; a sheet's own value goes first."""
CLOSED_OHM: Final = 2.0
"""A fuse or a line under this is closed; an open one reads thousands."""
COIL_OHM: Final = 50.0
"""Focus and tracking coils have a few ohms; an open one has none of them."""

_Regions = Mapping[str, Sequence[str]]
_BANDED: Final[Mapping[str, _Regions]] = {
    # question -> answer -> the regions of the value that are its own; a region that no answer has is no answer
    "supply_reading": {"in_band": ["in"], "sags": ["missing", "below"]},
    "board_supply": {"in_band": ["in"], "missing": ["missing"], "sags": ["below"]},
    "trimmer_reading": {"in_band": ["in"], "out_of_band": ["missing", "below", "above"]},
    "level_reading": {"in_band": ["in"], "low": ["missing", "below"], "high": ["above"]},
    "bias_reading": {"in_band": ["in"], "out_of_band": ["missing", "below", "above"]},
    "gain_reading": {"in_band": ["in"], "out_of_band": ["missing", "below", "above"]},
    "caps_ripple": {"in_limit": ["missing", "below", "in"], "high": ["above"]},
    "spindle_current": {"normal": ["below", "in"], "high": ["above"], "none": ["missing"]},
}
_FIXED: Final[Mapping[str, Mapping[str, Sequence[Interval]]]] = {
    "fuse_test": {"closed": [(-math.inf, CLOSED_OHM)], "open": [(CLOSED_OHM, math.inf)]},
    "coil_reading": {"good": [(-math.inf, COIL_OHM)], "open": [(COIL_OHM, math.inf)]},
    "button_line": {"works": [(-math.inf, COIL_OHM)], "fails": [(COIL_OHM, math.inf)]},
    "switch_line": {"closes": [(-math.inf, COIL_OHM)], "open": [(COIL_OHM, math.inf)]},
}
"""Ohms that need no sheet. A closed contact and a coil are told from an open one by any meter."""


def regions_of(question: str) -> Mapping[str, Sequence[str]]:
    """Return which regions of the value are each answer's own: ``missing``, ``below``, ``in`` and ``above`` its band."""
    return _BANDED[question]


_LID: Final = (("any", "Lid either way"), ("open", "Lid open"), ("shut", "Lid shut"))
_FLEX: Final = (("any", "Flex either way"), ("in", "Flex in"), ("out", "Flex out"))
_STATISTIC: Final = (("steady", "Steady"), ("lowest", "Lowest while it starts"), ("peak to peak", "Peak to peak"))
_STATE: Final = {"mains": _MAINS, "disc": _DISC, "switch": _SWITCH, "lid": _LID, "flex": _FLEX, "statistic": _STATISTIC}
"""In which state something is read, and what of it: each of them as it is now, and as the limit wants it."""


def _differs(inputs: Inputs) -> list[str]:
    """Return in what it was read in another state than the limit's, in words. What the limit does not say, or nobody said now, differs in nothing."""
    found = []
    for name, names in _STATE.items():
        mine, its = inputs[name], inputs[f"limit_{name}"]
        if mine is not None and its not in (None, "any", mine):
            found.append(f"{dict(names)[mine].lower()}, the limit is for {dict(names)[its].lower()}")
    return found


FIELDS: Final[tuple[Field, ...]] = (
    Field("points", "Between", "text", optional=True, hint="The two points as the sheet names them."),
    choice("quantity", "What is read", _QUANTITIES, start="voltage"),
    Field("values", "Read", "quantities", "*", may_be_open=True, hint="As the meter shows it, unit included. OL for open. Three times is a reading."),
    choice("mains", "Mains now", _MAINS, start="out", each_time=True),
    choice("disc", "Disc now", _DISC, start="any", each_time=True),
    choice("switch", "Switch now", _SWITCH, start="any", each_time=True),
    choice("lid", "Lid now", _LID, optional=True),
    choice("flex", "Flex now", _FLEX, optional=True),
    choice("statistic", "What of it", _STATISTIC, optional=True),
    quantity("low", "Limit from", "*", optional=True),
    quantity("high", "Limit to", "*", optional=True),
    quantity("missing", "Missing under", "*", optional=True, hint="Left out: a quarter of the limit's low end."),
    *(choice(f"limit_{name}", "The limit is for", names, optional=True) for name, names in _STATE.items()),
    Field("source", "Where the limit is from", "text", optional=True),
    quantity("leads", "Tips touched together", "resistance", low=0.0, high=3.0, optional=True, hint="Under ten ohms they count."),
    Field("pct", "Meter: percent of the value", "number", low=0.0, high=20.0, optional=True, start=None),
    Field("digits", "Meter: last digits", "number", low=0.0, high=100.0, optional=True),
    quantity("resolution", "Meter: last digit is", "*", low=0.0, optional=True),
)


def _limit(inputs: Inputs) -> Limit | None:
    low, high = inputs["low"], inputs["high"]
    if low is None and high is None:
        return None
    if low is not None and high is not None and low >= high:
        raise InputsError([("/high", f"A band from {said(low, inputs['quantity'])} to {said(high, inputs['quantity'])} is none.")])
    if inputs["missing"] is not None and (low is None or inputs["missing"] > low):
        begins = "has no low end here" if low is None else f"begins at {said(low, inputs['quantity'])}"
        raise InputsError([("/missing", f"What is missing lies under the limit, which {begins}.")])
    return Limit(-math.inf if low is None else low, math.inf if high is None else high, inputs["source"] or "", inputs["missing"])


def _accuracy(inputs: Inputs) -> Accuracy:
    usual = Accuracy()
    return Accuracy(
        usual.pct if inputs["pct"] is None else inputs["pct"], usual.digits if inputs["digits"] is None else inputs["digits"], inputs["resolution"] or 0.0
    )


def _run(inputs: Inputs) -> Told:
    kind, accuracy, limit = inputs["quantity"], _accuracy(inputs), _limit(inputs)
    values = inputs["values"]
    found = measure(values, kind, accuracy, leads_ohm=inputs["leads"])
    wrong = _differs(inputs) if limit else []
    can = can_tell(found.u, limit) if limit and not found.is_open else Can.TELL
    return Told(
        headline=_headline(found, limit, wrong, can, kind),
        numbers=_numbers(found, limit, kind),
        notes=tuple(_notes(found, values, limit, can, accuracy, inputs, wrong)),
        cautions=("laser", "spinning") if inputs["mains"] == "running" else (),
        picture={
            "kind": "band",
            "value": _finite(found.value),
            "u": found.u,
            "low": _finite(limit.low) if limit else None,
            "high": _finite(limit.high) if limit else None,
        }
        | {"unit": kind, "values": [_finite(v) for v in values]},
        speaks=() if wrong else tuple(_speaks(found, limit)),
        mains=_READ_WITH.get(inputs["mains"], Mains.ANY),
    )


def value_read(given: object) -> float | None:
    """Return what a kept reading amounts to, in the working unit of its quantity; None for an overload, or where it cannot be read any more."""
    try:
        inputs = read_inputs(FIELDS, given)
        return _finite(measure(inputs["values"], inputs["quantity"], _accuracy(inputs), leads_ohm=inputs["leads"]).value)
    except (InputsError, InvalidError):
        return None


def _finite(x: float) -> float | None:
    return x if math.isfinite(x) else None


def _headline(found: Measured, limit: Limit | None, wrong: Sequence[str], can: str, kind: str) -> str:
    value = "Open" if found.is_open else plus_minus(found.value, found.u, kind)
    if limit is None:
        return f"{value}. No limit stands beside it."
    if wrong:
        return f"{value}, read in another state than its limit's: kept, and weighs nothing."
    share = soft_weights(found.value, found.u, _regions(limit))
    inside = share["in"]
    if found.is_open:
        return "Open, where the limit asks for a number."
    if can == Can.NOT and 0.05 < inside < 0.95:
        return f"{value}: the meter cannot tell whether that is inside."
    if inside >= 0.95:
        return f"{value}: inside the limit."
    if inside <= 0.05:
        return f"{value}: {'under' if share['above'] < 0.5 else 'over'} the limit."
    return f"{value}: at the edge, inside with {percent(inside)}."


def _regions(limit: Limit) -> dict[str, list[Interval]]:
    usual = MISSING * limit.low if math.isfinite(limit.low) and limit.low > 0 else -math.inf
    edge = usual if limit.missing is None else limit.missing
    return {"missing": [(-math.inf, edge)], "below": [(edge, limit.low)], "in": [(limit.low, limit.high)], "above": [(limit.high, math.inf)]}


def _speaks(found: Measured, limit: Limit | None) -> Sequence[Speaks]:
    said_of: list[Speaks] = []
    if limit is not None:
        share = soft_weights(found.value, found.u, _regions(limit))
        for question, answers in _BANDED.items():
            weights = {answer: sum(share[r] for r in regions) for answer, regions in answers.items()}
            told = sum(weights.values())
            if told > 0.5:  # more likely than not one of its answers: over a supply's band is none of "in band" and "sags"
                said_of.append(Speaks(question, {a: w / told for a, w in weights.items()}))
    if found.kind == "resistance":
        said_of += [Speaks(question, soft_weights(found.value, found.u, own)) for question, own in _FIXED.items()]
    return said_of


def _numbers(found: Measured, limit: Limit | None, kind: str) -> tuple[Number, ...]:
    shown = [Number("Value, 19 times of 20", plus_minus(found.value, found.u, kind)), Number("Repeats", str(found.n))]
    if limit is not None:
        shown.append(
            Number(
                "Limit", f"{said(limit.low, kind) if math.isfinite(limit.low) else 'any'} to {said(limit.high, kind) if math.isfinite(limit.high) else 'any'}"
            )
        )
        shown += [Number("Limit from", limit.source)] if limit.source else []
    return tuple(shown)


def _notes(found: Measured, values: Sequence[float], limit: Limit | None, can: str, accuracy: Accuracy, inputs: Inputs, wrong: Sequence[str]) -> Sequence[str]:  # noqa: PLR0917 -- what a note may be about
    kind = inputs["quantity"]
    notes = [f"Read with {w}." for w in wrong]
    if found.far:
        notes.append(f"Reading {found.far[0] + 1} lies far from the others: read twice more. None is dropped.")
    if is_creeping(values, usual_spread(found.value, kind)):
        notes.append("It creeps one way: something charges or warms. Wait until it stands.")
    if kind == "resistance" and not found.is_open and found.value < 10 and inputs["leads"] is None:
        notes.append("The tips were not touched together: 0.35 Ω is taken off for the leads, and it may be 0.3 Ω more or less.")
    if limit is not None and can != Can.TELL and not wrong:
        need = repeats_needed(found, accuracy, limit, leads_ohm=inputs["leads"])
        notes.append(
            "No number of repeats helps: the meter is too coarse for this band." if need is None else f"About {max(need, found.n + 1)} repeats would tell."
        )
    if inputs["pct"] is None:
        notes.append("The meter's accuracy was not said: 1 % of the value is taken.")
    return notes


_UNITS: Final = {"mV peak to peak": "mV"}


def _row(row: Row) -> Start:
    unit = _UNITS.get(str(row["unit"]), str(row["unit"]))
    kind = "voltage" if row["quantity"] in ("voltage", "level") else str(row["quantity"])
    said_of = f"{row['origin']}, {row['confidence']}"
    state = {name: row[name] for name in _STATE if row.get(name) is not None}
    given = {
        "points": row["points"],
        "quantity": kind,
        "low": f"{row['low']:g} {unit}",
        "high": f"{row['high']:g} {unit}",
        **({"missing": f"{row['missing']:g} {unit}"} if row.get("missing") is not None else {}),
        **state,
        **{f"limit_{name}": value for name, value in state.items()},
        "source": f"{row['said']} ({said_of})" if row.get("said") else f"sheet ({said_of})",
    }
    # volts at two points may be the supply's or the board's: that is for who reads them
    return Start(f"{row['points']}, {row['quantity']}, {row['mains']}", given, "level_reading" if row["quantity"] == "level" else "")


def _trimmer(row: Row) -> list[Start]:
    found = []
    for kind, low, high, _ in bands_of(row):
        mains = "out" if kind == "resistance" else "running"
        points = f"{row['name']} trimmer" if kind == "resistance" or not row.get("points") else str(row["points"])
        state = {"limit_mains": mains, "mains": mains, "disc": "any", "switch": "any"}
        given = {"points": points, "quantity": kind, "low": low, "high": high, **state, "source": f"sheet ({row['origin']}, {row['confidence']})"}
        found.append(Start(f"{row['name']} trimmer{'' if mains == 'out' else ', running'}", given, "trimmer_reading"))
    return found


READING: Final = Tool(
    "reading",
    "Reading",
    "A number at two points, in its state, against its limit.",
    FIELDS,
    _run,
    (*_BANDED, *_FIXED),
    lambda full: [*map(_row, full.rows("test_points")), *(start for row in full.rows("trimmers") for start in _trimmer(row))],
)
