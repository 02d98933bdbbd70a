"""The rows of an archive as a JSON Schema, from the tables themselves."""

from __future__ import annotations

from typing import Any, Final

from apps.exchange.tables import JOB, LINE, TABLES, Table
from django.db import models
from spindle.formats.archive import FORMAT, VERSION

_TYPES: Final[tuple[tuple[type, dict[str, Any]], ...]] = (
    (models.BooleanField, {"type": "boolean"}),
    (models.FloatField, {"type": "number"}),
    (models.IntegerField, {"type": "integer"}),
    (models.DateTimeField, {"type": "string", "format": "date-time"}),
    (models.DateField, {"type": "string", "format": "date"}),
    (models.JSONField, {}),
    (models.CharField, {"type": "string"}),
    (models.TextField, {"type": "string"}),
)
_MANIFEST: Final = {
    "type": "object",
    "required": ["format", "version", "of", "made_at", "members"],
    "additionalProperties": False,
    "properties": {
        "format": {"const": FORMAT},
        "version": {"const": VERSION},
        "of": {"type": "string"},
        "made_at": {"type": "string", "format": "date-time"},
        "members": {"type": "object", "additionalProperties": {"$ref": "#/$defs/member"}},
    },
}


def schema() -> dict[str, Any]:
    """Return the schema of the manifest, with one for the rows of each table under ``$defs``."""
    member = {
        "type": "object",
        "required": ["sha256", "size"],
        "properties": {"sha256": {"type": "string"}, "size": {"type": "integer"}, "rows": {"type": "integer"}},
    }
    jobs = _of(JOB)
    jobs["properties"]["lines"] = {"type": "array", "items": _of(LINE)}
    jobs["required"].append("lines")
    defs = {"member": member, **{table.name: jobs if table is JOB else _of(table) for table in TABLES}}
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", "title": "A shop's archive", **_MANIFEST, "$defs": defs}


def _of(table: Table) -> dict[str, Any]:
    said = {column.name: _value(column) for column in table.columns}
    return {
        "type": "object",
        "title": table.says,
        "required": [name for name in said if name not in table.later],
        "additionalProperties": False,
        "properties": said,
    }


def _value(field: models.Field[Any, Any]) -> dict[str, Any]:
    told: dict[str, Any] = {"type": "array"} if field.is_relation else dict(next(t for kind, t in _TYPES if isinstance(field, kind)))
    if isinstance(field, models.CharField) and field.max_length:
        told["maxLength"] = field.max_length
    if field.choices:
        told["enum"] = [c for c, _ in field.flatchoices] + ([""] if field.blank else [])
    return {"anyOf": [told, {"type": "null"}]} if field.null and told else told
