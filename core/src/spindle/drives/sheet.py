"""The drive sheet: what the shop knows about one drive variant, as far as the rules need it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from functools import cached_property
from types import MappingProxyType
from typing import Final

from spindle.errors import SheetError


class Pairing(StrEnum):
    """What the console accepts only from its own drive."""

    NONE = "none"
    BOARD = "board"
    CHIP = "chip"
    UNKNOWN = "unknown"


CLASS_WAVELENGTH_NM: Final = MappingProxyType(
    {
        "game_bd": 405,
        "film_bd": 405,
        "game_dvd": 650,
        "film_dvd": 650,
        "layered_dvd": 650,
        "burnt_dvd": 650,
        "game_cd": 780,
        "music_cd": 780,
        "data_cd": 780,
        "burnt_cd": 780,
    }
)
"""Reading wavelength of each disc class in nm: physics, the same for every maker."""


OWN_CLASSES: Final = frozenset(c for c in CLASS_WAVELENGTH_NM if c.startswith("game_"))
"""The classes that are the console's own: a key bars these first."""

NAMED_CLASSES: Final = frozenset({"layered_dvd", "burnt_dvd", "burnt_cd"})
"""The classes that are spoken of only where a sheet names them: of every other it is said that the model never read it."""


class LevelPoint(StrEnum):
    """What the sheet's test point for light measures: three quantities that move in opposite directions with age and dirt."""

    UNKNOWN = "unknown"
    AMPLITUDE = "amplitude"
    """Of what comes back from the disc: falls with dirt and with age; in the range of megahertz, so it takes an oscilloscope."""
    MONITOR = "monitor"
    """The light that the pickup gives, by its own monitor: held constant as long as the drive can."""
    CURRENT = "current"
    """What the diode draws for it: rises with age."""


@dataclass(frozen=True, slots=True)
class PartPrice:
    """What one repair's part costs at this drive, and how long it takes to come."""

    price_eur: float
    wait_days: float


@dataclass(frozen=True, slots=True)
class ReferenceTime:
    """Time from insert to play of one disc class on healthy units of this variant, from the shop's own record."""

    mean_s: float
    sd_s: float
    n: int = 10


@dataclass(frozen=True)
class DriveSheet:
    """Facts of one drive variant. They switch parts of its loader family's fault model on and off.

    ``classes`` are the disc classes that the model supports; every other class is no evidence on it (trap T13).
    """

    variant: str
    family: str
    pairing: Pairing = Pairing.UNKNOWN
    classes: frozenset[str] = frozenset()
    has_trimmer: bool = True
    fuse_rating: str = ""
    """Rating and speed as the sheet gives it ("1.5 A fast"); empty if the drive board bears no fuse."""
    has_belt: bool = True
    """Tray drives: a belt between load motor and gears, or gears alone."""
    lid_switches: int = 1
    """Lid drives: one or two switches that must close before anything runs."""
    has_electrolytics: bool = False
    """The drive board bears electrolytic capacitors."""
    has_alignment: bool = False
    """Lid drives: bias and gain are set at test points."""
    motor_soldered: bool = False
    """Motors are soldered, not plugged: replacing one takes longer."""
    spins_first: bool = False
    """True if the disc spins before focus is searched; most drives look for focus first."""
    two_lenses: bool = False
    """The pickup has a lens for the short light and one for the others: dirt on one stops its light alone."""
    fuse_feeds_console: bool = False
    """The drive's fuse feeds more than the drive: an open one leaves the console dark."""
    foreign_reads_films: bool = False
    """A paired drive with another console's board still reads films and music."""
    switches_without_contacts: bool = False
    """Its switches are light gates or Hall sensors: no ohms at their pads, and nothing for contact cleaner."""
    board_under_deck: bool = False
    """The drive board hangs under the deck and is not reached with the cover off."""
    level_point: LevelPoint = LevelPoint.UNKNOWN
    reference_times: Mapping[str, ReferenceTime] = field(default_factory=dict)
    label_faces: Mapping[str, str] = field(default_factory=dict)
    """Position on the bench ("on its side, slot up") -> where the label side of a disc faces then (trap T23)."""
    prior_factors: Mapping[str, float] = field(default_factory=dict)
    """How much likelier than usual a fault is on this variant, by the shop's own count."""
    prices: Mapping[str, PartPrice] = field(default_factory=dict)

    def __post_init__(self) -> None:
        for name in sorted(self.classes):
            if name not in CLASS_WAVELENGTH_NM:
                raise SheetError("/classes", f"{name!r} is no disc class; known: {', '.join(CLASS_WAVELENGTH_NM)}")
        if not self.classes:
            raise SheetError("/classes", "name at least one disc class that the drive reads")
        if self.lid_switches not in (1, 2):
            raise SheetError("/lid_switches", f"a lid has 1 or 2 switches, got {self.lid_switches}")
        for name, time in self.reference_times.items():
            if name not in self.classes:
                raise SheetError(f"/reference_times/{name}", "the drive does not read this class")
            if not (time.mean_s > 0 and time.sd_s > 0 and time.n >= 2):
                raise SheetError(f"/reference_times/{name}", "needs a mean and a spread above 0 s, from at least 2 readings")

    @cached_property
    def wavelengths_nm(self) -> frozenset[int]:
        """Wavelengths of the diodes that the supported classes need, in nm."""
        return frozenset(CLASS_WAVELENGTH_NM[c] for c in self.classes)

    @property
    def game_nm(self) -> int:
        """Wavelength of the console's own game disc in nm: the shortest of its game classes, or of all where none is a game's."""
        games = [CLASS_WAVELENGTH_NM[c] for c in self.classes & OWN_CLASSES]
        return min(games or self.wavelengths_nm)

    @cached_property
    def features(self) -> frozenset[str]:
        """The features that faults, questions and repairs of a model may need."""
        found = {f"nm{nm}" for nm in self.wavelengths_nm} | {f"class:{c}" for c in self.classes} | {f"level:{self.level_point}"}
        switched = {
            "paired": self.pairing is not Pairing.NONE,
            "no_chip": self.pairing is not Pairing.CHIP,
            "unpaired": self.pairing is Pairing.NONE,
            "trimmer": self.has_trimmer,
            "fuse": bool(self.fuse_rating),
            "belt": self.has_belt,
            "lid_two": self.lid_switches == 2,
            "electrolytics": self.has_electrolytics,
            "alignment": self.has_alignment,
            "motor_soldered": self.motor_soldered,
            "spin_first": self.spins_first,
            "two_lenses": self.two_lenses,
            "fuse_console": self.fuse_feeds_console,
            "foreign_films": self.foreign_reads_films,
            "no_contacts": self.switches_without_contacts,
            "board_under": self.board_under_deck,
        }
        return frozenset(found | {name for name, is_there in switched.items() if is_there})
