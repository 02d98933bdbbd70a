"""The procedures that ship with the product, by loader family and repair; read from the TOML files beside this module."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from types import MappingProxyType
from typing import Any, Final

from spindle.errors import ModelError
from spindle.faults.model import Repair
from spindle.repairs.procedure import OPENING_IDS, Procedure, Step
from spindle.shipped import read_toml
from spindle.words.bench import Depth, Mains


def _step(entry: Mapping[str, Any]) -> Step:
    cautions, opens, clears = (tuple(entry.get(key, ())) for key in ("cautions", "opens", "clears"))
    return Step(entry["id"], entry["text"], Mains(entry["mains"]), cautions, entry.get("reads_fuse", False), opens=opens, clears=clears)


def _procedure(entry: Mapping[str, Any]) -> Procedure:
    ids = [*OPENING_IDS, "trial", *(s["id"] for s in entry["steps"])]
    if len(set(ids)) < len(ids):
        raise ModelError(f"the procedure {entry['repair']!r} has two steps of one id")
    lists = {key: tuple(entry[key]) for key in ("tools", "transfers") if key in entry}
    return Procedure(**{**entry, **lists, "depth": Depth[entry["depth"].upper()], "steps": tuple(_step(s) for s in entry["steps"])})


def _family(name: str) -> Mapping[str, Procedure]:
    entries = (*read_toml("spindle.repairs", "shared")["procedures"], *read_toml("spindle.repairs", name)["procedures"])
    return {p.repair: p for p in map(_procedure, entries)}


PROCEDURES: Final[Mapping[str, Mapping[str, Procedure]]] = MappingProxyType({name: _family(name) for name in ("tray", "slot", "lid")})


def procedure_for(family: str, repair: str) -> Procedure:
    """Return how a repair is done in a loader family.

    Raises
    ------
    KeyError
        If there is none; a test makes sure that every repair of every model has one.
    """
    return PROCEDURES[family][repair]


def procedure_on(family: str, repair: Repair) -> Procedure:
    """Return how a repair is done on one drive: opened as deep as the part lies there by its sheet."""
    usual = procedure_for(family, repair.id)
    return replace(usual, depth=max(usual.depth, repair.depth))
