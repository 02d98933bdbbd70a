"""The drive sheet as a file: versioned JSON, refused as a whole at its first mistake."""

from __future__ import annotations

import json
from dataclasses import fields
from typing import Any, Final

from spindle.bench.opening.steps import read_opening
from spindle.drives.features import FEATURES
from spindle.drives.full_sheet import DEFAULT, FullSheet, Provenance
from spindle.drives.sheet import DriveSheet
from spindle.drives.tables import Confidence, Origin
from spindle.errors import CaseError, SheetError
from spindle.formats.drive_facts import read_drive, write_drive
from spindle.formats.place import Place, is_unfit
from spindle.formats.table_rows import FORMULA_STARTS, read_tables, write_tables

FORMAT: Final = "tidy-spindle-sheet"
VERSION: Final = 1
MAX_BYTES: Final = 300_000
"""A full sheet of every table takes about 60 kB."""
MAX_DEPTH: Final = 12
"""Nothing in a sheet lies deeper than six."""
FACTS: Final = tuple(f.name for f in fields(DriveSheet) if f.name not in ("variant", "family"))
"""The facts of a drive that can have a source of their own."""
MAX_NAME: Final = 40
"""What a label and a column of a list can show."""


def parse_json(raw: bytes) -> object:
    """Return the JSON value of a file that may be hostile.

    Raises
    ------
    SheetError
        If it is too big, too deep, not UTF-8, no JSON, or names a key twice.
    """
    text = decode(raw)
    _check_depth(text)
    try:
        return json.loads(text, object_pairs_hook=_unique, parse_constant=_no_constant)
    except json.JSONDecodeError as error:
        raise SheetError(f"line {error.lineno}, column {error.colno}", f"is no JSON: {error.msg}") from error


def decode(raw: bytes, most: int = MAX_BYTES) -> str:
    """Return the text of a file that may be hostile.

    Raises
    ------
    SheetError
        If it is too big or not UTF-8.
    """
    if len(raw) > most:
        raise SheetError("/", f"the file has more than {most} bytes")
    try:
        return raw.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise SheetError(f"byte {error.start}", "the file is not UTF-8; save it as UTF-8") from error


def _check_depth(text: str) -> None:
    """Refuse deep nesting before the parser walks into it; brackets inside texts are not counted."""
    depth, in_text, is_escaped = 0, False, False
    for n, c in enumerate(text):
        if in_text:
            in_text = is_escaped or c != '"'
            is_escaped = c == "\\" and not is_escaped
        elif c == '"':
            in_text = True
        elif c in "[{":
            depth += 1
            if depth > MAX_DEPTH:
                raise SheetError(f"character {n + 1}", f"nested more than {MAX_DEPTH} deep")
        elif c in "]}":
            depth -= 1


def _unique(pairs: list[tuple[str, object]]) -> dict[str, object]:
    found: dict[str, object] = {}
    for name, value in pairs:
        if name in found:
            raise SheetError(f"/{name[:MAX_NAME]}", "this key stands twice in the same object")
        found[name] = value
    return found


def _no_constant(name: str) -> object:
    raise SheetError("/", f"{name} is no number")


def read_sheet(value: object) -> FullSheet:
    """Return the sheet of a JSON object.

    Raises
    ------
    SheetError
        With the place of the first mistake.
    """
    try:
        return _sheet(value)
    except CaseError as error:
        raise SheetError(error.place, error.message.removeprefix(f"{error.place}: ")) from error


def _sheet(value: object) -> FullSheet:
    sheet = Place(value, "", ("format", "version", "maker", "console", "revision", "drive", "looks", "tables", "sources"))
    check_head(sheet, FORMAT, VERSION)
    drive = read_drive(sheet.raw("drive"), "/drive")
    read_name(drive.variant, "/drive/variant")
    if "/" in drive.variant:
        raise CaseError("/drive/variant", "a name with “/” in it has no address; write “-” instead")
    full = FullSheet(
        read_name(sheet.text("maker"), "/maker"),
        read_name(sheet.text("console"), "/console"),
        read_name(sheet.text("revision"), "/revision"),
        drive,
        _looks(sheet),
        read_tables(sheet.pairs("tables"), "/tables"),
        _sources(sheet),
    )
    read_opening(full.tables)
    ratings = [r["rating"] for r in full.rows("fuses")]
    if ratings and drive.fuse_rating not in ratings:
        raise CaseError("/drive/fuse_rating", f"{drive.fuse_rating!r} is none of the table's fuses: {', '.join(map(str, ratings))}")
    return full


def check_head(file: Place, form: str, version: int) -> None:
    """Refuse a file of another format or version.

    Raises
    ------
    CaseError
    """
    if file.raw("format") != form:
        raise CaseError("/format", f"expected {form!r}, got {str(file.raw('format'))[:MAX_NAME]!r}")
    if file.raw("version") != version or isinstance(file.raw("version"), bool):
        raise CaseError("/version", f"this program reads version {version}, got {str(file.raw('version'))[:MAX_NAME]}")


def read_name(value: str, place: str) -> str:
    """Return a name that a label can show.

    Raises
    ------
    CaseError
    """
    is_odd = value != value.strip() or value.startswith(FORMULA_STARTS) or any(ord(c) < 32 for c in value)
    if not value or len(value) > MAX_NAME or is_odd or is_unfit(value):
        raise CaseError(place, f"expected a name of 1 to {MAX_NAME} characters, without blanks around it, that is no formula")
    return value


def _looks(sheet: Place) -> dict[str, str]:
    looks = Place(sheet.pairs("looks"), sheet.at("looks"), FEATURES)
    return {name: found for name, feature in FEATURES.items() if (found := looks.one_of(name, feature.values))}


def _sources(sheet: Place) -> dict[str, Provenance]:
    sources = Place(sheet.pairs("sources"), sheet.at("sources"), (DEFAULT, "looks", *FACTS))
    found = {}
    for name in sheet.pairs("sources"):
        one = Place(sources.raw(name), sources.at(name), ("origin", "confidence", "said"))
        found[name] = Provenance(one.choice("origin", Origin), one.choice("confidence", Confidence), one.text("said", ""))
    return {DEFAULT: Provenance()} | found


def write_sheet(sheet: FullSheet) -> dict[str, Any]:
    """Return the JSON object of a sheet; :func:`read_sheet` gives the same sheet back."""
    return {
        "format": FORMAT,
        "version": VERSION,
        "maker": sheet.maker,
        "console": sheet.console,
        "revision": sheet.revision,
        "drive": write_drive(sheet.drive),
        "looks": dict(sheet.looks),
        "tables": write_tables(sheet.tables),
        "sources": {name: {"origin": s.origin.value, "confidence": s.confidence.value, "said": s.said} for name, s in sheet.sources.items()},
    }
