"""Changing drive sheets and what is said to fit: one function per change, each once per idempotency key."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace

from apps.drives.consoles import Named, console_of, console_sheet, current_console
from apps.drives.models import Console, Saying, Sheet
from apps.drives.selectors import full_sheet, sheet_of
from apps.refusals import StaleWriteError
from apps.writing.once import Command, Once, lock, once
from apps.writing.traces import trace
from spindle.drives.beginning import Name, bare_sheet, likeness
from spindle.drives.console_sheet import ConsoleSheet
from spindle.drives.full_sheet import FullSheet, check_figures
from spindle.drives.levels import LEVELS
from spindle.drives.matching import Verdict
from spindle.drives.tables import CONSOLE_TABLES, TABLES, Row, Table
from spindle.errors import CaseError, InvalidError, SheetError
from spindle.formats.console_file import read_console, write_console
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
    with once(command, Duty.SHEETS, "sheet", {"document": write_sheet(full), "based_on": based_on, "why": why}) as write:
        return _replayed(write) if write.is_replay else _save(command, write, full, based_on, why)


def _replayed(write: Once) -> Sheet:
    name, version = write.result.rsplit("/", 1)
    return sheet_of(name, int(version))


def _save(command: Command, write: Once, full: FullSheet, based_on: int | None, why: str) -> Sheet:
    variant, document = full.drive.variant, write_sheet(full)
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
        is_retired=now is not None and now.is_retired,
    )
    write.result = f"{variant}/{saved.version}"
    return saved


@dataclass(frozen=True)
class Beginning:
    """A drive that has no sheet yet. ``like`` is the variant that it resembles; without one, ``family`` and ``classes`` are known alone."""

    maker: str
    console: str
    revision: str
    variant: str
    family: str = ""
    classes: tuple[str, ...] = ()
    like: str = ""


def begin_sheet(command: Command, told: Beginning) -> Sheet:
    """Begin a sheet. Whoever may take a unit in may do it: a unit whose drive nobody knows must not be sent away.

    Raises
    ------
    NotFoundError
        If there is no sheet to be like.
    InvalidError
        If a name is missing, or the variant has a sheet already.
    SheetError
        If family or disc classes are none.
    """
    maker, console = told.maker.strip(), told.console.strip()
    for place, value in (("maker", maker), ("console", console)):
        if not value:
            raise InvalidError(place, f"Write the {place} as it stands on the unit.")
    why = f"Begun like {told.like}" if told.like else "Begun at the counter"
    with once(command, Duty.TAKE_IN, "begin_sheet", vars(told)) as write:
        if write.is_replay:
            return _replayed(write)
        lock("sheets begun")
        named = told.variant.strip() or _unnamed()
        if Sheet.objects.filter(variant=named).exists():
            raise InvalidError("variant", f"{named} has a sheet already. Take the unit in with that one, or give this drive another name.")
        name = Name(maker, console, told.revision.strip() or "?", named)
        full = likeness(full_sheet(sheet_of(told.like).pk), name) if told.like else bare_sheet(name, told.family, told.classes)
        checked = read_sheet(write_sheet(full))
        check_figures(checked)
        return _save(command, write, checked, 0, why)


def _unnamed() -> str:
    taken = Sheet.objects.filter(variant__startswith="unnamed-").values_list("variant", flat=True)
    numbers = [int(v.removeprefix("unnamed-")) for v in taken if v.removeprefix("unnamed-").isdigit()]
    return f"unnamed-{max(numbers, default=0) + 1}"


def save_console(command: Command, sheet: ConsoleSheet, *, based_on: int | None, why: str = "") -> Console:
    """Save a console's sheet as its next version. What is the same makes no version.

    Parameters
    ----------
    based_on : the version that the writer saw; 0 for a console that has no sheet yet; None lays it over whatever is current, as a file does

    Raises
    ------
    StaleWriteError
        If it has a newer version.
    """
    document, named = write_console(sheet), (sheet.maker, sheet.console, sheet.revision)
    with once(command, Duty.SHEETS, "console", {"document": document, "based_on": based_on, "why": why}) as write:
        if write.is_replay:
            return Console.objects.get(pk=int(write.result))
        lock(f"console:{'/'.join(named)}")
        now = current_console(named)
        version = now.version if now else 0
        if based_on not in (None, version):
            raise StaleWriteError(
                f"The sheet of {' '.join(named)} is at version {version}, yours was made from version {based_on}. Nothing was changed.",
                version=version,
                changed=[{"by": now.by.shown_name, "at": now.at.isoformat(), "text": now.why or "changed"}] if now else [],
            )
        if now is None or now.tables != document["tables"]:
            Console.objects.filter(maker=sheet.maker, console=sheet.console, revision=sheet.revision, is_current=True).update(is_current=False)
            own = {"maker": sheet.maker, "console": sheet.console, "revision": sheet.revision, "tables": document["tables"]}
            now = Console.objects.create(**own, version=version + 1, why=why, by=command.user, at=write.at)
        write.result = str(now.pk)
    return now


def import_console(command: Command, read: Callable[[int], bytes]) -> Console:
    """Save a console's sheet from a file: a new console, or the next version of one that is here.

    Raises
    ------
    SheetError
        With the place of the first mistake; nothing is changed then.
    """
    return save_console(command, read_console(parse_json(read(MAX_BYTES + 1))), based_on=None, why="From a file")


def retire_sheet(command: Command, variant: str, *, is_retired: bool) -> Sheet:
    """Take a sheet out of use, or back into it. Jobs that have it keep it.

    Raises
    ------
    NotAllowedError, NotFoundError, KeyReusedError
    """
    found = sheet_of(variant)
    with once(command, Duty.SHEETS, "retire_sheet", {"variant": variant, "is_retired": is_retired}) as write:
        if not write.is_replay and found.is_retired is not is_retired:
            trace(f"sheet {variant}", {"is_retired": found.is_retired}, {"is_retired": is_retired}, by_id=command.user.pk, at=write.at)
            Sheet.objects.filter(variant=variant).update(is_retired=is_retired)
    return sheet_of(variant)


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
    rows = _rows_of(table, TABLES, read)
    now = sheet_of(variant)
    full = replace(full_sheet(now.pk), tables={**full_sheet(now.pk).tables, table: rows})
    return save_sheet(command, read_sheet(write_sheet(full)), based_on=None, why=f"{TABLES[table].title} from a CSV file")


def import_console_csv(command: Command, named: Named, table: str, read: Callable[[int], bytes]) -> Console:
    """Replace one table of a console's sheet by a CSV file, as a new version.

    Raises
    ------
    NotFoundError
        If the console has no sheet yet.
    InvalidError
        With line and column of the first mistake; nothing is changed then.
    """
    rows = _rows_of(table, CONSOLE_TABLES, read)
    own = console_sheet(console_of(named).pk)
    whole = write_console(replace(own, tables={**own.tables, table: rows}))
    return save_console(command, read_console(whole), based_on=None, why=f"{CONSOLE_TABLES[table].title} from a CSV file")


def _rows_of(table: str, tables: Mapping[str, Table], read: Callable[[int], bytes]) -> tuple[Row, ...]:
    if table not in tables:
        raise InvalidError("table", f"There is no table {table!r}; there are {', '.join(tables)}.")
    try:
        return read_csv(tables[table], decode(read(MAX_BYTES + 1)))
    except (CaseError, SheetError) as error:
        raise InvalidError(error.place, error.message) from error


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
