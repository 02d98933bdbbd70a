"""The JSON schemas of the formats of drive and console sheets, derived from the declarations that the reader itself follows."""

from __future__ import annotations

from typing import Any, Final

from spindle.drives.features import FEATURES
from spindle.drives.full_sheet import DEFAULT
from spindle.drives.tables import CONSOLE_TABLES, TABLES, Column, Confidence, Origin, Table
from spindle.formats import console_file
from spindle.formats.sheet_file import FACTS, FORMAT, MAX_NAME, VERSION
from spindle.formats.table_rows import MAX_CELL, MAX_ROWS
from spindle.words.bounds import CONTENT_HASH

_NO_FORMULA: Final = r"^[^=+\-@\s]"
_NAME: Final = {"type": "string", "minLength": 1, "maxLength": MAX_NAME, "pattern": _NO_FORMULA}


def sheet_schema() -> dict[str, Any]:
    """Return the schema (draft 2020-12). What it cannot say (pairs in order, rows named once, the fuse of the facts among the fuses), the reader checks."""
    properties = {
        "format": {"const": FORMAT},
        "version": {"const": VERSION},
        "maker": _NAME,
        "console": _NAME,
        "revision": _NAME,
        "drive": {"$ref": "case.schema.json#/$defs/drive"},
        "looks": _object({f.id: {"enum": list(f.values)} for f in FEATURES.values()}, required=[]),
        "tables": _object({t.id: _table(t) for t in TABLES.values()}, required=[]),
        "sources": _object({name: {"$ref": "#/$defs/source"} for name in (DEFAULT, "looks", *FACTS)}, required=[]),
    }
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": f"Tidy Spindle drive sheet, version {VERSION}",
        **_object(properties, required=["format", "version", "maker", "console", "revision", "drive"]),
        "$defs": {
            "source": _object(
                {"origin": {"enum": list(Origin)}, "confidence": {"enum": list(Confidence)}, "said": {"type": "string"}}, required=["origin", "confidence"]
            )
        },
    }


def console_schema() -> dict[str, Any]:
    """Return the schema of a console's sheet (draft 2020-12). What it cannot say (which step a row names, circles), the reader checks."""
    properties = {
        "format": {"const": console_file.FORMAT},
        "version": {"const": console_file.VERSION},
        "maker": _NAME,
        "console": _NAME,
        "revision": _NAME,
        "tables": _object({t.id: _table(t) for t in CONSOLE_TABLES.values()}, required=[]),
    }
    title = f"Tidy Spindle console sheet, version {console_file.VERSION}"
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": title,
        **_object(properties, required=["format", "version", "maker", "console", "revision"]),
    }


def _object(properties: dict[str, Any], *, required: list[str]) -> dict[str, Any]:
    return {"type": "object", "additionalProperties": False, "required": required, "properties": properties}


def _table(table: Table) -> dict[str, Any]:
    required = [c.id for c in table.columns if not c.optional and c.kind != "flag"]
    items = _object({c.id: _cell(c) for c in table.columns}, required=required)
    if table.bands:
        items |= _bands(table.bands)
    return {"type": "array", "maxItems": MAX_ROWS, "description": table.about, "items": items}


def _bands(bands: tuple[tuple[str, str], ...]) -> dict[str, Any]:
    """Return what says that a row has one band at least, and none by half."""
    whole = [{"required": list(pair), "properties": {end: {"type": "number"} for end in pair}} for pair in bands]
    none = [{"properties": {end: {"type": "null"} for end in pair}} for pair in bands]
    return {"anyOf": whole, "allOf": [{"anyOf": [one, other]} for one, other in zip(whole, none, strict=True)]}


def _cell(column: Column) -> dict[str, Any]:
    title = f"{column.name}, {column.unit}" if column.unit else column.name
    if column.choices:
        kind: dict[str, Any] = {"enum": [*column.choices, *([None] if column.optional else [])]}
    elif column.kind == "flag":
        kind = {"type": "boolean"}
    elif column.kind == "picture":
        kind = {"type": ["string", "null"] if column.optional else "string", "maxLength": 64, "pattern": CONTENT_HASH}
    elif column.kind == "text":
        kind = {"type": ["string", "null"] if column.optional else "string", "minLength": 1, "maxLength": MAX_CELL, "pattern": _NO_FORMULA}
    else:
        number = "integer" if column.kind == "count" else "number"
        kind = {"type": [number, "null"] if column.optional else number, "minimum": column.low, "maximum": column.high}
    return {"title": title, **kind}
