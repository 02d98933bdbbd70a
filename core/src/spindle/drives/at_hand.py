"""What a drive sheet says of the very step or question that is at hand: points, bands, rating, screws, how a plug lets go, how long to wait."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from types import MappingProxyType
from typing import Any, Final

from spindle.drives.full_sheet import FullSheet, source_of
from spindle.drives.tables import Row
from spindle.shipped import read_toml


@dataclass(frozen=True, slots=True)
class Said:
    """One value as the sheet has it, and whether a maker's document or the shop's own work stands behind it."""

    text: str
    is_confirmed: bool


@dataclass(frozen=True, slots=True)
class AtHand:
    """What the sheet says of a step or question. Where it ``asks`` for something and nothing is said, the sheet lacks it."""

    asks: tuple[str, ...] = ()
    said: tuple[Said, ...] = ()

    @property
    def lacks(self) -> bool:
        """True if the sheet should say something here and does not."""
        return bool(self.asks) and not self.said


_WAITS: Final = MappingProxyType(
    {"plug": "after the plug is pulled", "cleaner": "until cleaner is dry", "warm": "until it is warm", "cool": "until it is cold again"}
)


def _number(value: Any) -> str:
    return f"{value:g}" if isinstance(value, int | float) else str(value)


def _points(row: Row) -> str:
    state = ", ".join(
        [str(row["mains"]), *([f"disc {row['disc']}"] if row["disc"] != "any" else []), *([f"switch {row['switch']}"] if row["switch"] != "any" else [])]
    )
    return f"{row['points']}: {_number(row['low'])} to {_number(row['high'])} {row['unit']} ({state})"


def _trimmer(row: Row) -> str:
    place = f", {row['place']}" if row.get("place") else ""
    bands = [f"{_number(row['low_ohm'])} to {_number(row['high_ohm'])} Ω, mains out"] if row.get("low_ohm") is not None else []
    if row.get("low_volt") is not None:
        between = f" between {row['points']}" if row.get("points") else ""
        bands.append(f"{_number(row['low_volt'])} to {_number(row['high_volt'])} V running{between}")
    return f"{row['name']} trimmer ({row['nm']} nm): {'; '.join(bands)}; more light by {row['more_light']}{place}"


def _half_built(row: Row) -> str:
    held = f"; held by hand: {row['held']}" if row.get("held") else ""
    cannot = f"; not here: {row['cannot']}" if row.get("cannot") else ""
    return f"{str(row['at']).capitalize()}: {row['needs_on']}{held}. Can be tried: {row['runs']}{cannot}"


_IN_WORDS: Final[Mapping[str, Callable[[Row], str]]] = MappingProxyType(
    {
        "waits": lambda r: f"{_number(r['minutes'])} min {_WAITS[str(r['what'])]}",
        "screws": lambda r: f"{r['count']} × {r['head']}, {_number(r['thread_mm'])} × {_number(r['length_mm'])} mm: {r['place']}",
        "connectors": lambda r: f"{r['name']} ({r['latch']}): {r['lets_go']}",
        "trimmers": _trimmer,
        "test_points": _points,
        "transfers": lambda r: f"{r['what']}: {r['how']}" if r.get("how") else str(r["what"]),
        "fuses": lambda r: f"{r['name']}: {r['rating']}, {r['form']}, {r['place']}",
        "belts": lambda r: f"{r['name']}: {_number(r['length_mm'])} mm around, {_number(r['section_mm'])} mm {r['form']}",
        "switches": lambda r: f"{r['name']}, {r['place']}: {r['at_rest']} at rest",
        "half_built": _half_built,
        "notes": lambda r: f"{r['what']}: {r['value']}",
    }
)


@dataclass(frozen=True, slots=True)
class _Want:
    table: str
    where: Mapping[str, str]
    """Column -> what it has to be."""


def _want(text: str) -> _Want:
    """Read ``table column=a value, column=value``."""
    table, _, rest = text.partition(" ")
    return _Want(table, dict(part.split("=", 1) for part in rest.split(", ") if part))


def _read(kind: str) -> Mapping[str, tuple[_Want, ...]]:
    return MappingProxyType({k: tuple(map(_want, v)) for k, v in read_toml("spindle.drives", "at_hand")[kind].items()})


STEPS: Final = _read("steps")
QUESTIONS: Final = _read("questions")
"""What each step or question speaks of, by its id."""


def at_step(step: str, full: FullSheet) -> AtHand:
    """Return what a drive's sheet says of a step."""
    return _said(STEPS.get(step, ()), full)


def at_question(question: str, full: FullSheet) -> AtHand:
    """Return what a drive's sheet says of a question."""
    return _said(QUESTIONS.get(question, ()), full)


def _said(wants: tuple[_Want, ...], full: FullSheet) -> AtHand:
    rows = [(w.table, r) for w in wants for r in full.rows(w.table) if all(str(r[c]) == v for c, v in w.where.items())]
    return AtHand(tuple(dict.fromkeys(w.table for w in wants)), tuple(Said(_IN_WORDS[t](r), source_of(r).is_confirmed) for t, r in rows))
