"""The fault models that ship with the product, by loader family."""

from __future__ import annotations

from types import MappingProxyType
from typing import Final

from spindle.faults.lid import LID
from spindle.faults.slot import SLOT
from spindle.faults.tray import TRAY

MODELS: Final = MappingProxyType({m.family: m for m in (TRAY, SLOT, LID)})
