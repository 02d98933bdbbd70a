"""A number with its unit, as a technician types it or a meter sends it: read whole, or refused with what was expected and what came."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from functools import cache, lru_cache
from typing import Any, Final

from spindle.errors import InvalidError

_NUMBER: Final = re.compile(r"^\s*(?P<number>[+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+)(?:[eE][+-]?\d{1,3})?)\s*(?P<unit>[A-Za-z\u00b5\u03bc\u03a9\u2126°%\"]{0,12})\s*$")
"""One number, one unit. A decimal comma is a point; a thousands mark is neither, and refused."""
_OPEN: Final = re.compile(r"^\s*[+-]?(?:o\.?l\.?|0l|open|overload|∞|inf(?:inity)?|9[.,]9e\+?3[67])\s*(?P<unit>[A-Za-z\u03a9\u2126]*)\s*$", re.IGNORECASE)
"""What meters show or send where a circuit is open or the range too small."""
_WORDS: Final = {"\u03a9": "ohm", "\u2126": "ohm", "\u03bc": "\u00b5", '"': "inch", "%": "percent"}
_SAID: Final = {
    "vdc": "V",
    "vac": "V",
    "mvdc": "mV",
    "mvac": "mV",
    "adc": "A",
    "madc": "mA",
    "ohms": "ohm",
    "kohms": "kohm",
    "r": "ohm",
    "k": "kohm",
    "meg": "Mohm",
    "mfd": "uF",
    "mf": "uF",
    "g": "gf",
    "kg": "kgf",
}
"""As it is said or printed at the bench: "4k7" is not, "mF" on an old part is a microfarad, and a spring balance in grams means force."""


@dataclass(frozen=True, slots=True)
class Kind:
    """A kind of quantity, the unit that the calculators work in, and how it is said."""

    id: str
    unit: str
    shown: str
    name: str


KINDS: Final = {
    k.id: k
    for k in (
        Kind("voltage", "V", "V", "volts"),
        Kind("current", "A", "A", "amps"),
        Kind("resistance", "ohm", "Ω", "ohms"),
        Kind("capacitance", "uF", "µF", "a capacitance"),
        Kind("length", "mm", "mm", "a length"),
        Kind("force", "N", "N", "a force"),
        Kind("angle", "degree", "°", "an angle"),
        Kind("share", "percent", "%", "a share"),
        Kind("hardness", "", "Shore A", "Shore A hardness"),
    )
}


@cache
def _registry() -> Any:
    import pint  # noqa: PLC0415 -- half a second that only those who measure pay

    return pint.UnitRegistry(cache_folder=None)


@lru_cache(maxsize=256)
def factor(unit: str, kind: str) -> float | None:
    """Return what a value in ``unit`` is multiplied by to be in the working unit of ``kind``; None if it is another quantity or no unit."""
    for said, word in _WORDS.items():
        unit = unit.replace(said, word)
    if kind == "hardness":
        return 1.0 if unit.lower() in ("", "shore", "sha", "a") else None
    named = _SAID.get(unit.lower(), unit) if kind in ("voltage", "current", "resistance", "capacitance", "force") else unit
    registry = _registry()
    try:
        return float(registry.Quantity(1.0, named).to(KINDS[kind].unit).magnitude)
    except Exception:  # the library has a tree of its own for what is no unit, and for another dimension
        return None


def read_quantity(text: str, kind: str, *, place: str, default_unit: str = "") -> float:
    """Return a quantity in the working unit of its kind (V, A, ohm, uF, mm, N, degree, percent, Shore A); ``inf`` for an overload of a resistance.

    Parameters
    ----------
    text : str
        A number with its unit: "12.34 mV", "4,7 kΩ", "OL".
    default_unit : str
        Taken where the text bears none; empty where a unit has to be said.

    Raises
    ------
    InvalidError
        If it is no number, not finite, bears no unit, or the unit of another quantity.

    Examples
    --------
    >>> read_quantity("1,25 kohm", "resistance", place="/ohms")
    1250.0
    """
    wanted = KINDS[kind]
    if kind == "resistance" and _OPEN.match(text):
        return math.inf
    found = _NUMBER.match(text)
    if found is None:
        raise InvalidError(place, f"{text!r} is no number with a unit: write {wanted.name}, as '12.5 {wanted.shown}'.")
    unit = found["unit"] or default_unit
    if not unit and kind != "hardness":
        raise InvalidError(place, f"{text!r} has no unit: write {wanted.name}, as '{found['number']} {wanted.shown}'.")
    times = factor(unit, kind)
    if times is None:
        raise InvalidError(place, f"{text!r} is not {wanted.name}: expected {wanted.shown}, got {unit!r}.")
    value = float(found["number"].replace(",", ".")) * times
    if not math.isfinite(value):
        raise InvalidError(place, f"{text!r} is not a finite number.")
    return float(f"{value:.12g}")  # a factor of a thousand leaves no dust that a verdict could trip over


def said(value: float, kind: str) -> str:
    """Return a quantity as it is read aloud, in the prefix that keeps it between 1 and 1000; ohms never in milliohms, which are read as megohms.

    Examples
    --------
    >>> said(4700.0, "resistance"), said(0.0123, "voltage"), said(0.5, "resistance")
    ('4.7 kΩ', '12.3 mV', '0.5 Ω')
    """
    shown = KINDS[kind].shown
    if math.isinf(value):
        return "open"
    if kind in ("resistance", "voltage", "current") and value != 0:
        for prefix, size in (("M", 1e6), ("k", 1e3), ("", 1.0), ("m", 1e-3)):
            if abs(value) >= size * 0.99995 and not (prefix == "m" and kind == "resistance"):
                return f"{value / size:.4g} {prefix}{shown}"
    return f"{value:.4g}{'' if shown in ('°', '%') else ' '}{shown}"


def plus_minus(value: float, u: float, kind: str) -> str:
    """Return a quantity with the reach of 19 times out of 20, both in one unit, to two places of the doubt.

    Examples
    --------
    >>> plus_minus(11.58, 0.0683, "voltage"), plus_minus(4712.0, 25.0, "resistance")
    ('11.58 ± 0.14 V', '4.712 ± 0.050 kΩ')
    """
    if not math.isfinite(value) or u <= 0:
        return said(value, kind)
    unit = said(value, kind).split(" ")[-1] if KINDS[kind].shown not in ("°", "%") else KINDS[kind].shown
    size = {"M": 1e6, "k": 1e3, "m": 1e-3}.get(unit[0], 1.0) if unit != KINDS[kind].shown and kind in ("resistance", "voltage", "current") else 1.0
    reach = 2.0 * u / size
    places = max(0, 1 - math.floor(math.log10(reach)))
    return f"{value / size:.{places}f} ± {reach:.{places}f} {unit}"
