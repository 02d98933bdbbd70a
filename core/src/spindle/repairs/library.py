"""The procedures that ship with the product, by loader family and repair."""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType
from typing import Final

from spindle.repairs import lid, shared, slot, tray
from spindle.repairs.procedure import Procedure

PROCEDURES: Final[Mapping[str, Mapping[str, Procedure]]] = MappingProxyType(
    {family: {p.repair: p for p in (*shared.PROCEDURES, *own.PROCEDURES)} for family, own in (("tray", tray), ("slot", slot), ("lid", lid))}
)


def procedure_for(family: str, repair: str) -> Procedure:
    """Return how a repair is done in a loader family.

    Raises
    ------
    KeyError
        If there is none; a test makes sure that every repair of every model has one.
    """
    return PROCEDURES[family][repair]
