"""The procedures that ship with the product, by loader family and repair."""

from __future__ import annotations

from types import MappingProxyType
from typing import Final

from spindle.repairs import slot
from spindle.repairs.procedure import Procedure

PROCEDURES: Final = MappingProxyType({"slot": slot.PROCEDURES})


def procedure_for(family: str, repair: str) -> Procedure:
    """Return how a repair is done in a loader family.

    Raises
    ------
    KeyError
        If there is none; a test makes sure that every repair of every model has one.
    """
    return PROCEDURES[family][repair]
