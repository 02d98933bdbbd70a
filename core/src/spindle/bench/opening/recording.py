"""A unit that no sheet knows is recorded while it is opened: each step after the one before, and from that the rows of a sheet's draft."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from types import MappingProxyType
from typing import Any, Final

from spindle.bench.opening.steps import INSIDE, NOTHING, OUTSIDE, Opening, read_opening
from spindle.drives.tables import CONSOLE_TABLES, TABLES, Row, Table
from spindle.errors import NotNowError

LEAST_MIN: Final = 0.2
MOST_MIN: Final = 15.0
"""Bounds of what one step can have taken: the time between two of them may have had a cup of tea in it."""

NONE: Final[Mapping[str, str]] = MappingProxyType({})
Recorded = Mapping[str, Any]
"""One step as it was recorded: whose sheet it is for ("whose"), its cells, and of its screws and plug what was seen ("count", "length_mm", …, "latch")."""


def draft_tables(recorded: Sequence[Recorded], whose: str, source: str, pictures: Mapping[str, str] = NONE) -> dict[str, list[dict[str, Any]]]:
    """Return the rows of a draft for one sheet, a drive's or a console's, in the order in which the steps were recorded.

    Parameters
    ----------
    pictures : id of a step -> hash of the picture that was taken of it
    """
    own = [r for r in recorded if r["whose"] == whose]
    made = {"origin": "shop", "confidence": "fair", "said": source}
    opening, screws, plugs = [], [], []
    for n, r in enumerate(own):
        name = r["step"]
        takes = name if r["count"] or r["latch"] else ""
        row = {k: v for k, v in r["cells"].items() if v} | {"step": name, "kind": r["kind"], "minutes": r["minutes"]}
        row |= {"after": own[n - 1]["step"]} if n else {}
        row |= {"picture": picture} if (picture := pictures.get(f"{whose}:{name}")) else {}
        opening.append({**row, **({"takes": takes} if takes else {}), **made})
        level = {"level": r["cells"].get("frees") or "drive"} if whose == INSIDE else {}
        if r["count"]:
            size = {"head": r["head"] or "not noted", "thread_mm": r["thread_mm"], "length_mm": r["length_mm"]}
            screws.append({**level, "place": name, "count": r["count"], **size, **made})
        elif r["latch"]:
            plugs.append({**level, "name": name, "latch": r["latch"], "lets_go": r["cells"].get("how") or "as noted at the step", **made})
    found = {"opening": opening, "screws": screws, "connectors": plugs}
    return {name: rows for name, rows in found.items() if rows}


def recorded_opening(recorded: Sequence[Recorded]) -> Opening:
    """Return how a unit is opened by what was recorded of it so far."""
    if not recorded:
        return NOTHING
    inside, outside = (_filled(draft_tables(recorded, w, "recorded"), known) for w, known in ((INSIDE, TABLES), (OUTSIDE, CONSOLE_TABLES)))
    return read_opening(inside, outside)


def _filled(tables: Mapping[str, Sequence[Row]], known: Mapping[str, Table]) -> dict[str, tuple[Row, ...]]:
    return {name: tuple({c.id: row.get(c.id) for c in known[name].columns} for row in rows) for name, rows in tables.items()}


def with_draft(tables: Mapping[str, tuple[Row, ...]], draft: Mapping[str, tuple[Row, ...]], source: str) -> dict[str, tuple[Row, ...]]:
    """Return a sheet's tables with the draft's rows after its own. What the same source has written before is replaced, so that it stands there once.

    Raises
    ------
    NotNowError
        If the sheet has an opening order from elsewhere.
    """
    if any(r.get("said") != source for r in tables.get("opening", ())):
        raise NotNowError("The sheet has an opening order by now: put that right instead.", reason="has_order")
    kept = {name: tuple(r for r in rows if r.get("said") != source) for name, rows in tables.items()}
    return {**kept, **{name: (*kept.get(name, ()), *rows) for name, rows in draft.items()}}


def minutes_since(seconds: float) -> float:
    """Return how long a step took, by the time since the one before, as a sheet writes it."""
    return round(min(max(seconds / 60.0, LEAST_MIN), MOST_MIN), 1)
