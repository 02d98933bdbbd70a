"""What a calculator asks, declared once: the same for a form, a file and the command."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any, Final

from spindle.bench.quantity import KINDS, read_quantity, said
from spindle.errors import InputsError, InvalidError

MOST_ROWS: Final = 160
MOST_LOOKS: Final = 24
MOST_TEXT: Final = 120


@dataclass(frozen=True, slots=True)
class Field:
    """One thing that is asked.

    Attributes
    ----------
    kind : quantity, quantities (several of one thing), number, choice, flag, text or rows
    quantity : of a quantity, its kind (:data:`spindle.bench.quantity.KINDS`); ``*`` for the one that the field "quantity" names
    low, high : bounds in the working unit; a value outside is refused, with both said
    choices : of a choice, (id, name) each; of a flag, what yes and no are called, where they are called otherwise
    columns : of rows, the fields of each
    optional : it may be left out
    """

    id: str
    name: str
    kind: str = "quantity"
    quantity: str = ""
    low: float = -math.inf
    high: float = math.inf
    choices: tuple[tuple[str, str], ...] = ()
    columns: tuple[Field, ...] = ()
    optional: bool = False
    hint: str = ""
    may_be_open: bool = False
    """An overload is an answer: the circuit may be open."""
    each_time: bool = False
    """It is asked each time, also where a sheet has said what it usually is: the state in which something is read."""
    start: Any = None
    """What stands there before anybody has typed."""

    @property
    def unit(self) -> str:
        """The unit that is shown beside it."""
        return KINDS[self.quantity].shown if self.quantity in KINDS else ""


Inputs = Mapping[str, Any]


def read_inputs(fields: Sequence[Field], given: object, *, place: str = "") -> dict[str, Any]:
    """Return what was given, in working units; what was left out is None, or no rows.

    Raises
    ------
    InputsError
        With every field that is wrong: where, what was expected, what came. Nothing is taken if one is.
    """
    if not isinstance(given, Mapping):
        raise InputsError([(place or "/", f"Expected fields by their names, got {type(given).__name__}.")])
    faults: list[tuple[str, str]] = []
    known = {f.id for f in fields}
    for name in given:
        if name not in known:
            faults.append((f"{place}/{name}", f"There is no such field; known: {', '.join(sorted(known))}."))
    found: dict[str, Any] = {}
    for declared in fields:
        field = _resolved(declared, given.get("quantity"))
        try:
            found[field.id] = _read(field, given.get(field.id), f"{place}/{field.id}")
        except InvalidError as error:
            faults.append((str(error.params["place"]), error.message))
        except InputsError as error:
            faults.extend(error.faults)
    if faults:
        raise InputsError(faults)
    return found


def _resolved(field: Field, kind: Any) -> Field:
    """Return a field whose quantity another field names, with it; volts where that one is wrong, which is said at its own place."""
    named = kind if isinstance(kind, str) and kind in KINDS else "voltage"
    if field.quantity == "*":
        return replace(field, quantity=named)
    return replace(field, columns=tuple(_resolved(c, named) for c in field.columns)) if field.columns else field


def _read(field: Field, value: Any, place: str) -> Any:
    if value is None or (isinstance(value, str) and not value.strip()):
        if field.kind in ("rows", "quantities"):
            return ()
        if field.optional:
            return None
        raise InvalidError(place, f"{field.name} is missing.")
    return _READERS[field.kind](field, value, place)


def _quantity(field: Field, value: Any, place: str) -> float:
    text = f"{value}" if isinstance(value, int | float) and not isinstance(value, bool) else value
    if not isinstance(text, str):
        raise InvalidError(place, f"{field.name}: expected a quantity as text, got {type(value).__name__}.")
    found = read_quantity(text, field.quantity, place=place)
    if math.isinf(found):
        if field.may_be_open:
            return found
        raise InvalidError(place, f"{field.name}: an overload is no value here. Is the circuit open, or are these the wrong points?")
    if not field.low <= found <= field.high:
        low, high = (said(x, field.quantity) if math.isfinite(x) else "" for x in (field.low, field.high))
        between = f"from {low} to {high}" if low and high else f"at least {low}" if low else f"at most {high}"
        raise InvalidError(place, f"{field.name} is {said(found, field.quantity)}: expected {between}. Check the unit and the decimal point.")
    return found


def _quantities(field: Field, value: Any, place: str) -> tuple[float, ...]:
    if not isinstance(value, list | tuple) or len(value) > MOST_LOOKS:
        raise InvalidError(place, f"{field.name}: expected a list of at most {MOST_LOOKS} readings.")
    return tuple(_quantity(field, one, f"{place}/{n}") for n, one in enumerate(value))


def _number(field: Field, value: Any, place: str) -> float:
    try:
        found = float(str(value).replace(",", "."))
    except ValueError:
        found = math.nan
    if isinstance(value, bool) or not math.isfinite(found):
        raise InvalidError(place, f"{field.name}: expected a number, got {value!r}.")
    if not field.low <= found <= field.high:
        raise InvalidError(place, f"{field.name}: expected {field.low:g} to {field.high:g}, got {found:g}.")
    return found


def _choice(field: Field, value: Any, place: str) -> str:
    if not isinstance(value, str) or value not in dict(field.choices):
        raise InvalidError(place, f"{field.name}: expected {', '.join(c for c, _ in field.choices)}; got {value!r}.")
    return value


def _flag(field: Field, value: Any, place: str) -> bool:
    if not isinstance(value, bool):
        raise InvalidError(place, f"{field.name}: expected true or false, got {value!r}.")
    return value


def _text(field: Field, value: Any, place: str) -> str:
    if not isinstance(value, str) or len(value) > MOST_TEXT or "\0" in value:
        raise InvalidError(place, f"{field.name}: expected a text of at most {MOST_TEXT} characters.")
    return value.strip()


def _rows(field: Field, value: Any, place: str) -> tuple[dict[str, Any], ...]:
    if not isinstance(value, list | tuple):
        raise InvalidError(place, f"{field.name}: expected a list, got {type(value).__name__}.")
    if len(value) > MOST_ROWS:
        raise InvalidError(place, f"{field.name}: at most {MOST_ROWS} rows, got {len(value)}.")
    faults: list[tuple[str, str]] = []
    rows = []
    for n, row in enumerate(value):
        try:
            rows.append(read_inputs(field.columns, row, place=f"{place}/{n}"))
        except InputsError as error:
            faults.extend(error.faults)
    if faults:
        raise InputsError(faults)
    return tuple(rows)


_READERS: Final = {"quantity": _quantity, "quantities": _quantities, "number": _number, "choice": _choice, "flag": _flag, "text": _text, "rows": _rows}


def quantity(name: str, shown: str, kind: str, **more: Any) -> Field:
    """Return a field of a quantity."""
    return Field(name, shown, "quantity", kind, **more)


def choice(name: str, shown: str, choices: Sequence[tuple[str, str]], **more: Any) -> Field:
    """Return a field that takes one of a few."""
    return Field(name, shown, "choice", choices=tuple(choices), **more)


def flag(name: str, shown: str, **more: Any) -> Field:
    """Return a field that is so, not so, or not said."""
    return Field(name, shown, "flag", optional=True, **more)


def rows(name: str, shown: str, columns: Sequence[Field], **more: Any) -> Field:
    """Return a field of as many rows as there are."""
    return Field(name, shown, "rows", columns=tuple(columns), optional=True, **more)
