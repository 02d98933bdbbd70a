"""The whole drive sheet of one variant: the facts for the rules, what the eye sees, the tables, and where each value comes from."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Final

from spindle.drives.fuse import parse_fuse
from spindle.drives.levels import LEVELS
from spindle.drives.sheet import DriveSheet, Pairing
from spindle.drives.tables import Confidence, Origin, Row


@dataclass(frozen=True, slots=True)
class Provenance:
    """Where a value comes from, how sure it is, and whose it is."""

    origin: Origin = Origin.SHOP
    confidence: Confidence = Confidence.FAIR
    said: str = ""

    @property
    def is_confirmed(self) -> bool:
        """True if a maker's document or the shop's own work stands behind it, and nobody doubts it."""
        return self.origin in (Origin.MAKER, Origin.SHOP) and self.confidence is not Confidence.DOUBTFUL


DEFAULT: Final = "*"
"""The key of ``sources`` that stands for every fact with none of its own."""


@dataclass(frozen=True, slots=True)
class FullSheet:
    """Everything that the shop knows about one drive variant."""

    maker: str
    console: str
    revision: str
    drive: DriveSheet
    looks: Mapping[str, str] = field(default_factory=dict)
    """Feature id -> value id, for the identification key."""
    tables: Mapping[str, tuple[Row, ...]] = field(default_factory=dict)
    sources: Mapping[str, Provenance] = field(default_factory=lambda: {DEFAULT: Provenance()})
    """Fact of the drive, "looks", or :data:`DEFAULT` -> where it comes from."""

    def source_of(self, fact: str) -> Provenance:
        """Return where a fact comes from."""
        return self.sources.get(fact) or self.sources[DEFAULT]

    def rows(self, table: str, level: str | None = None) -> tuple[Row, ...]:
        """Return the rows of a table, those of one level if it is given."""
        found = self.tables.get(table, ())
        return found if level is None else tuple(r for r in found if r["level"] == level)

    def codes(self, level: str) -> Mapping[str, Provenance]:
        """Return the codes that this drive has at a level, each with where that comes from; a whole drive's code is its variant."""
        if level == "drive":
            return {self.drive.variant: Provenance(Origin.SHOP, Confidence.SURE)}
        return {str(r["code"]): source_of(r) for r in self.rows("assemblies", level)}

    @property
    def key_carrier(self) -> str:
        """The level that carries the pairing: "board", "chip", or "". What is unknown is treated as a paired board."""
        return {Pairing.NONE: "", Pairing.CHIP: "chip"}.get(self.drive.pairing, "board")

    @property
    def pieces(self) -> tuple[str, ...]:
        """The levels that this drive comes apart into, as far as the sheet names them, whole and deck first."""
        named = {str(r["level"]) for r in self.rows("assemblies")}
        return tuple(v for v in LEVELS if v in named)


def source_of(row: Row) -> Provenance:
    """Return where a row comes from."""
    return Provenance(Origin(str(row["origin"])), Confidence(str(row["confidence"])), str(row["said"] or ""))


@dataclass(frozen=True, slots=True)
class Gap:
    """A fact that the sheet states and whose values no table holds."""

    table: str
    text: str


def gaps(sheet: FullSheet) -> tuple[Gap, ...]:
    """Return what a complete sheet would hold and this one does not: the bench will need it and has to find it out."""
    drive, tray, lid = sheet.drive, sheet.drive.family == "tray", sheet.drive.family == "lid"
    lids = sum("lid" in str(r["name"]).lower() for r in sheet.rows("switches"))
    trimmed = {nm for r in sheet.rows("trimmers") for nm in str(r["nm"]).split(" and ")}
    missing = [
        (not sheet.rows("assemblies"), "assemblies", "No sub-assembly has a code: nothing can be matched."),
        (drive.has_trimmer and not sheet.rows("trimmers"), "trimmers", "The pickup has a trimmer, and no band is known."),
        (bool(trimmed - {str(nm) for nm in drive.wavelengths_nm}), "trimmers", "A trimmer is for a wavelength that the drive does not read."),
        (sheet.looks.get("lenses") == ("one" if drive.two_lenses else "two"), "", "The key and the facts differ on how many lenses it has."),
        (not drive.has_trimmer and bool(trimmed), "trimmers", "The facts say there is no trimmer, the table has one."),
        (bool(drive.fuse_rating) and not sheet.rows("fuses"), "fuses", "The board has a fuse; its form and place are not known."),
        (tray and drive.has_belt and not sheet.rows("belts"), "belts", "It has a belt, and its length is not known."),
        (drive.has_electrolytics and not sheet.rows("capacitors"), "capacitors", "It has electrolytic capacitors, and none is listed."),
        (lid and lids < drive.lid_switches, "switches", "Fewer lid switches are listed than it has."),
        (drive.has_alignment and not sheet.rows("test_points"), "test_points", "Bias and gain are set at test points, and none is listed."),
        (not sheet.rows("transfers", "pickup"), "transfers", "What moves over to a new pickup is not known."),
        (drive.pairing is Pairing.UNKNOWN, "", "Whether the board is paired is not known: it is treated as paired."),
        (not sheet.source_of("pairing").is_confirmed, "", "The pairing rule is somebody's claim."),
    ]
    return tuple(Gap(table, text) for is_missing, table, text in missing if is_missing)


def check_figures(sheet: FullSheet) -> None:
    """Refuse a sheet with a figure that nothing could ever be measured against: it is told when it is saved, not at the bench.

    Raises
    ------
    SheetError
        If the fuse rating is none: no fuse could ever be fitted.
    """
    if sheet.drive.fuse_rating:
        parse_fuse(sheet.drive.fuse_rating, place="/drive/fuse_rating")
