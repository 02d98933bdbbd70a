"""Changing drive sheets and what is said to fit: one function per change, each once per idempotency key."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

from apps.drives.models import Saying, Sheet
from apps.drives.selectors import full_sheet, sheet_of
from apps.refusals import StaleWriteError
from apps.writing.once import Command, lock, once
from spindle.drives.full_sheet import FullSheet, check_figures
from spindle.drives.levels import LEVELS
from spindle.drives.matching import Verdict
from spindle.drives.tables import TABLES
from spindle.errors import CaseError, InvalidError, SheetError
from spindle.formats.sheet_file import MAX_BYTES, decode, parse_json, read_sheet, write_sheet
from spindle.formats.table_rows import read_csv
from spindle.words.duty import Duty
from spindle.words.health import FUNCTIONS


def save_sheet(command: Command, full: FullSheet, *, based_on: int | None, why: str = "") -> Sheet:
    """Save a sheet as the next version of its variant; jobs keep the version that they have. What is the same makes no version.

    Parameters
    ----------
    based_on : the version that the writer saw; 0 for a variant that has no sheet yet; None lays it over whatever is current, as a
        file does: the same file with the same key is the same write, whatever came of it

    Raises
    ------
    StaleWriteError
        If the sheet has a newer version.
    InvalidError
        If it would change the loader family, on which the jobs of this variant rest.
    SheetError
        If a figure is none: a fuse rating without current and speed.
    """
    check_figures(full)
    variant = full.drive.variant
    document = write_sheet(full)
    with once(command, Duty.SHEETS, "sheet", {"document": document, "based_on": based_on, "why": why}) as write:
        if write.is_replay:
            name, version = write.result.rsplit("/", 1)
            return sheet_of(name, int(version))
        lock(f"sheet:{variant}")
        now = Sheet.objects.filter(variant=variant, is_current=True).first()
        newest = now.version if now else 0
        _check_base(variant, now, newest if based_on is None else based_on, full)
        if now is not None and write_sheet(full_sheet(now.pk)) == document:
            write.result = f"{variant}/{now.version}"
            return now
        Sheet.objects.filter(variant=variant, is_current=True).update(is_current=False)
        saved = Sheet.objects.create(
            maker=full.maker,
            console=full.console,
            revision=full.revision,
            variant=variant,
            version=newest + 1,
            facts=document["drive"],
            looks=document["looks"],
            tables=document["tables"],
            sources=document["sources"],
            why=why,
            by=command.user,
            at=write.at,
        )
        write.result = f"{variant}/{saved.version}"
    return saved


def _check_base(variant: str, now: Sheet | None, based_on: int, full: FullSheet) -> None:
    version = now.version if now else 0
    if version != based_on:
        raise StaleWriteError(
            f"The sheet of {variant} is at version {version}, yours was made from version {based_on}. Nothing was changed: "
            "load the newer one beside yours, then save again.",
            version=version,
            changed=[] if now is None else [{"by": _name(now), "at": now.at.isoformat() if now.at else "", "text": now.why or "changed"}],
        )  # fmt: skip
    if now is not None and now.facts["family"] != full.drive.family:
        raise InvalidError("/drive/family", f"{variant} is a {now.facts['family']} drive, and its jobs rest on that. Give the other drive a name of its own.")


def _name(found: Sheet) -> str:
    return found.by.shown_name if found.by else ""


def import_file(command: Command, read: Callable[[int], bytes]) -> Sheet:
    """Save a sheet from a file: a new variant, or the next version of one that is here.

    Raises
    ------
    SheetError
        With the place of the first mistake; nothing is changed then.
    """
    full = read_sheet(parse_json(read(MAX_BYTES + 1)))
    return save_sheet(command, full, based_on=None, why="From a file")


def import_csv(command: Command, variant: str, table: str, read: Callable[[int], bytes]) -> Sheet:
    """Replace one table of a sheet by a CSV file, as a new version.

    Raises
    ------
    InvalidError
        With line and column of the first mistake; nothing is changed then.
    """
    if table not in TABLES:
        raise InvalidError("table", f"There is no table {table!r}; there are {', '.join(TABLES)}.")
    try:
        rows = read_csv(TABLES[table], decode(read(MAX_BYTES + 1)))
    except (CaseError, SheetError) as error:
        raise InvalidError(error.place, error.message) from error
    now = sheet_of(variant)
    full = replace(full_sheet(now.pk), tables={**full_sheet(now.pk).tables, table: rows})
    return save_sheet(command, read_sheet(write_sheet(full)), based_on=None, why=f"{TABLES[table].title} from a CSV file")


@dataclass(frozen=True)
class Said:
    """What somebody says about a kind of part and a drive variant."""

    level: str
    code: str
    variant: str
    verdict: str
    reason: str
    origin: str
    confidence: str
    said: str
    works: tuple[str, ...] = ()
    """Functions in which it works, where it fits in part."""


def say(command: Command, said: Said) -> Saying:
    """Write down whether a kind of part fits a variant. It is shown everywhere from then on, with who said so and when.

    Raises
    ------
    NotFoundError
        If the variant has no sheet.
    InvalidError
        If a seller's claim or hearsay has nobody behind it, or what fits in part does not say in what.
    """
    sheet_of(said.variant)
    if said.level not in LEVELS:
        raise InvalidError("level", f"There is no level {said.level!r}; there are {', '.join(LEVELS)}.")
    if (said.verdict == Verdict.PART) != bool(said.works) or not set(said.works) <= set(FUNCTIONS):
        raise InvalidError("works", f"In which functions does it work? Only what fits in part has some: {', '.join(FUNCTIONS)}.")
    if said.origin in ("seller", "hearsay") and not said.said:
        raise InvalidError("said", "Whose claim is it? Write down who said so.")
    with once(command, Duty.SHEETS, "say", vars(said)) as write:
        if write.is_replay:
            return Saying.objects.get(pk=int(write.result))
        saying = Saying.objects.create(**{**vars(said), "works": list(said.works)}, by=command.user, at=write.at)
        write.result = str(saying.pk)
    return saying
