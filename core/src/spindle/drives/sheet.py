"""The drive sheet: what the shop knows about one drive variant, as far as the rules need it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from types import MappingProxyType
from typing import Final

from spindle.errors import SheetError


class Pairing(StrEnum):
    """What the console accepts only from its own drive."""

    NONE = "none"
    BOARD = "board"
    CHIP = "chip"
    UNKNOWN = "unknown"


CLASS_WAVELENGTH_NM: Final = MappingProxyType({"game_bd": 405, "film_bd": 405, "game_dvd": 650, "film_dvd": 650, "music_cd": 780})
"""Reading wavelength of each disc class in nm: physics, the same for every maker."""


@dataclass(frozen=True, slots=True)
class PartPrice:
    """What one repair's part costs at this drive, and how long it takes to come."""

    price_eur: float
    wait_days: float


@dataclass(frozen=True, slots=True)
class DriveSheet:
    """Facts of one drive variant.

    ``classes`` are the disc classes that the model supports; every other class is no evidence on it (trap T13).
    """

    variant: str
    family: str
    pairing: Pairing = Pairing.UNKNOWN
    classes: frozenset[str] = frozenset()
    has_trimmer: bool = True
    fuse_rating: str = ""
    """Rating and speed as the sheet gives it ("1.5 A fast"); empty if the drive board bears no fuse."""
    prior_factors: Mapping[str, float] = field(default_factory=dict)
    """How much likelier than usual a fault is on this variant, by the shop's own count."""
    prices: Mapping[str, PartPrice] = field(default_factory=dict)

    def __post_init__(self) -> None:
        for name in sorted(self.classes):
            if name not in CLASS_WAVELENGTH_NM:
                raise SheetError("/classes", f"{name!r} is no disc class; known: {', '.join(CLASS_WAVELENGTH_NM)}")
        if not self.classes:
            raise SheetError("/classes", "name at least one disc class that the drive reads")

    @property
    def wavelengths_nm(self) -> frozenset[int]:
        """Wavelengths of the diodes that the supported classes need, in nm."""
        return frozenset(CLASS_WAVELENGTH_NM[c] for c in self.classes)

    @property
    def game_nm(self) -> int:
        """Wavelength of the console's own game disc in nm: the shortest that it has."""
        return min(self.wavelengths_nm)

    @property
    def features(self) -> frozenset[str]:
        """The features that faults, questions and repairs of a model may need."""
        found = {f"nm{nm}" for nm in self.wavelengths_nm} | {f"class:{c}" for c in self.classes}
        found |= {"paired"} if self.pairing in (Pairing.BOARD, Pairing.CHIP) else set()
        found |= {"trimmer"} if self.has_trimmer else set()
        found |= {"fuse"} if self.fuse_rating else set()
        return frozenset(found)
