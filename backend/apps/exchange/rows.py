"""A row as JSON and back: references by the name of what they mean, moments in UTC, every mistake with its place."""

from __future__ import annotations

import json
import re
from collections.abc import Iterator
from datetime import UTC, date, datetime
from typing import Any, Final

from apps.exchange.tables import BY_MODEL, Table
from django.core.exceptions import ValidationError
from django.db import models
from spindle.errors import CaseError, SpindleError
from spindle.formats.place import Place, kind_of

Name = tuple[Any, ...]
"""What a row is known by: the values of its key, references among them by their own."""
_KINDS: Final[dict[type, tuple[type, ...]]] = {
    models.BooleanField: (bool,),
    models.FloatField: (float, int),
    models.IntegerField: (int,),
    models.DateField: (str,),
    models.CharField: (str,),
    models.TextField: (str,),
}
"""What JSON value a field takes; a field of JSON takes any."""


class Names:
    """Which number each named row has here, and which name each number has: filled table by table, as somebody asks."""

    def __init__(self) -> None:
        self._numbers: dict[type[models.Model], dict[Name, int]] = {}
        self._names: dict[type[models.Model], dict[int, Name]] = {}

    def number(self, model: type[models.Model], name: Name) -> int | None:
        """Return the number of a named row; None if there is none."""
        return self._of(model)[0].get(name)

    def name(self, model: type[models.Model], number: int) -> Name:
        """Return the name of a row."""
        return self._of(model)[1][number]

    def add(self, table: Table, name: Name, number: int) -> None:
        """Say that there is a row more."""
        numbers, names = self._of(table.model)
        numbers[name], names[number] = number, name

    def _of(self, model: type[models.Model]) -> tuple[dict[Name, int], dict[int, Name]]:
        if model not in self._numbers:
            table = BY_MODEL[model]
            self._numbers[model], self._names[model] = {}, {}
            for number, *values in model._default_manager.order_by("pk").values_list("pk", *table.key).iterator(chunk_size=5_000):
                name = tuple(self._named(model, field, v) for field, v in zip(table.key, values, strict=True))
                self._numbers[model][name], self._names[model][number] = number, name
        return self._numbers[model], self._names[model]

    def _named(self, model: type[models.Model], field: str, value: Any) -> Any:
        to = model._meta.get_field(field).related_model
        return value if to is None or isinstance(to, str) else self.name(to, value)


def written(table: Table, names: Names, rows: models.QuerySet[Any] | None = None) -> Iterator[dict[str, Any]]:
    """Yield the rows of a table as they go out, oldest first."""
    columns = table.columns
    found = (table.model._default_manager.all() if rows is None else rows).order_by("pk")
    for values in found.values_list(*(c.attname for c in columns)).iterator(chunk_size=1_000):
        yield {c.name: write_value(c, v, names) for c, v in zip(columns, values, strict=True)}


def write_value(field: models.Field[Any, Any], value: Any, names: Names) -> Any:
    """Return one value as it goes out."""
    if value is None:
        return None
    if field.is_relation:
        return list(names.name(field.related_model, value))  # type: ignore[arg-type]  # our models name no other by a word
    if isinstance(value, datetime):
        return value.astimezone(UTC).isoformat()
    return value.isoformat() if isinstance(value, date) else value


def read_row(table: Table, told: dict[str, Any], place: str, names: Names) -> models.Model:
    """Return a row that is not kept yet.

    Raises
    ------
    CaseError
        If a field is missing, unknown or of another kind, out of its bounds, or names what is not there.
    """
    columns = table.columns
    row = Place(told, place, [c.name for c in columns])
    made = table.model()
    for column in columns:
        if column.name in table.later and column.name not in row:
            continue
        setattr(made, column.attname, read_value(column, row.raw(column.name), row.at(column.name), names))
    if table.tags and not re.fullmatch(table.tags, str(told["tag"])):
        raise CaseError(row.at("tag"), f"{told['tag']!r} is no tag of ours")
    if table.check is not None:
        try:
            table.check(made)
        except (SpindleError, LookupError, TypeError, ValueError, AttributeError) as error:
            raise CaseError(place, f"what it holds cannot be read: {error}") from error
    return made


def read_value(field: models.Field[Any, Any], value: Any, place: str, names: Names) -> Any:
    """Return one value as the database takes it."""
    if value is None:
        if not field.null:
            raise CaseError(place, "must not be null")
        return None
    if field.is_relation:
        return _number(field, value, place, names)
    wanted = next((kinds for kind, kinds in _KINDS.items() if isinstance(field, kind)), None)
    if wanted is not None and (not isinstance(value, wanted) or (isinstance(value, bool) and bool not in wanted)):
        raise CaseError(place, f"expected {' or '.join(k.__name__ for k in wanted)}, got {kind_of(value)}")
    try:
        read = field.to_python(value)
        field.run_validators(read)
    except (ValidationError, ValueError, OverflowError) as error:
        said = error.messages[0] if isinstance(error, ValidationError) else str(error)
        raise CaseError(place, said) from error
    if isinstance(read, datetime) and read.tzinfo is None:
        raise CaseError(place, "is a moment without its time zone; end it with “Z” or “+00:00”")
    if field.choices and read not in [c for c, _ in field.flatchoices] and not (field.blank and read == ""):
        raise CaseError(place, f"{str(read)[:60]!r} is none of {', '.join(str(c) for c, _ in field.flatchoices)}")
    return read


def _number(field: models.Field[Any, Any], value: Any, place: str, names: Names) -> int:
    if not isinstance(value, list):
        raise CaseError(place, f"expected the name that it is known by, as a list, got {kind_of(value)}")
    number = names.number(field.related_model, _as_name(value))  # type: ignore[arg-type]
    if number is None:
        raise CaseError(place, f"names {json.dumps(value, ensure_ascii=False)[:80]}, which is neither here nor before it in the archive")
    return number


def _as_name(value: list[Any]) -> Name:
    return tuple(_as_name(v) if isinstance(v, list) else v if isinstance(v, str | int) else str(v) for v in value)


def name_of(table: Table, made: models.Model, names: Names) -> Name:
    """Return what a row is known by: the values of its key."""
    fields = [made._meta.get_field(f) for f in table.key]
    told = [write_value(f, getattr(made, f.attname), names) for f in fields]  # type: ignore[union-attr, arg-type]  # columns, no relations from elsewhere
    return tuple(_as_name(v) if isinstance(v, list) else v for v in told)


def shown(table: Table, made: models.Model, names: Names) -> dict[str, Any]:
    """Return a row as it would go out."""
    return {c.name: write_value(c, getattr(made, c.attname), names) for c in table.columns}
