"""The fault models that ship with the product, by loader family."""

from __future__ import annotations

from types import MappingProxyType
from typing import Final

from spindle.faults.reading import read_family

MODELS: Final = MappingProxyType({name: read_family(name) for name in ("tray", "slot", "lid")})
