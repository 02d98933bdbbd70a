"""The questions of the disc classes: each is the same question, told apart by what reads the class and by a few rows of its own."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any, Final

from spindle.drives.sheet import CLASS_WAVELENGTH_NM
from spindle.errors import ModelError

OTHER: Final = "other"
"""What a foreign board does to a class that is not the console's own; see ``[classes.foreign]``."""


def classes_of(told: Mapping[str, Any]) -> Iterator[dict[str, Any]]:
    """Yield the entry of each class's question, in the order of :data:`~spindle.drives.sheet.CLASS_WAVELENGTH_NM`.

    Raises
    ------
    ModelError
        If the classes are not those that a sheet can name.
    """
    if set(told["of"]) != set(CLASS_WAVELENGTH_NM):
        raise ModelError(f"classes: told are {', '.join(told['of'])}, and a sheet knows {', '.join(CLASS_WAVELENGTH_NM)}")
    for id_, nm in CLASS_WAVELENGTH_NM.items():
        own = told["of"][id_]
        words = {"a": own["a"], "known": own["known"], "nm": nm}
        yield {
            "id": id_,
            "kind": "disc_class",
            "ask": told["ask"].format(**words),
            "how": told["how"].format(**words),
            "outcomes": [[o, label, line.format(**words)] for o, label, line in told["outcomes"]],
            "rows": _merged(told["rows"], told["by_nm"][str(nm)], told["foreign"][own.get("foreign", OTHER)], own.get("rows", ()), nm=nm),
            "bench_min": told["bench_min"],
            "temper": told["temper"],
            "mains": "live",
            "needs": f"class:{id_}",
            "fails": ["slow", "fails"],
        }


def _merged(*groups: Any, nm: int) -> list[list[Any]]:
    """Return the rows of all groups; one of the same faults, for the same feature, stands for the one before it."""
    found: dict[tuple[str, str], list[Any]] = {}
    for row in (r for rows in groups for r in rows):
        faults, percent, why, *needs = row
        found[faults.format(nm=nm), "".join(needs)] = [faults.format(nm=nm), percent, why, *needs]
    return list(found.values())
