"""How a drive sheet begins: bare, with its loader family and what it plays; or from a likeness, of which nothing was seen yet."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace

from spindle.drives.full_sheet import DEFAULT, FullSheet, Provenance
from spindle.drives.sheet import DriveSheet
from spindle.drives.tables import Confidence, Origin


@dataclass(frozen=True, slots=True)
class Name:
    """What a unit and its drive are called."""

    maker: str
    console: str
    revision: str
    variant: str


def bare_sheet(name: Name, family: str, classes: Iterable[str]) -> FullSheet:
    """Return a sheet of which nothing is known but what lies on the counter; pairing unknown is treated as a paired board.

    Raises
    ------
    SheetError
        If a disc class is none, or there is none.
    """
    unseen = Provenance(Origin.SHOP, Confidence.DOUBTFUL, "begun at the counter, nothing seen yet")
    drive = DriveSheet(name.variant, family, classes=frozenset(classes))
    return FullSheet(name.maker, name.console, name.revision, drive, sources={DEFAULT: unseen})


def likeness(of: FullSheet, name: Name) -> FullSheet:
    """Return a sheet that begins as a copy of another: every value says that it was copied and not seen.

    What a shop has counted on the other drive (times to play, how often a fault comes) is not copied.
    """
    said = f"copied from {of.drive.variant}, not seen"
    mark = {"origin": Origin.HEARSAY.value, "confidence": Confidence.DOUBTFUL.value, "said": said}
    return FullSheet(
        name.maker,
        name.console,
        name.revision,
        replace(of.drive, variant=name.variant, reference_times={}, prior_factors={}),
        of.looks,
        {table: tuple({**row, **mark} for row in rows) for table, rows in of.tables.items()},
        {DEFAULT: Provenance(Origin.HEARSAY, Confidence.DOUBTFUL, said)},
    )
