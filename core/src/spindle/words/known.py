"""By what a cause is known, once a unit works again."""

from __future__ import annotations

from enum import StrEnum
from types import MappingProxyType
from typing import Final


class Known(StrEnum):
    """By what a cause is known."""

    SEEN = "seen"
    MEASURED = "measured"
    FAULT_FOLLOWED = "fault_followed"
    NOT_KNOWN = "not_known"


KNOWN_BY: Final = MappingProxyType(
    {Known.SEEN: "seen with the eye on the part", Known.MEASURED: "measured on the part", Known.FAULT_FOLLOWED: "the old part put back brought the fault back"}
)
