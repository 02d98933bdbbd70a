"""Reading drive sheets, the fault model cut to one, and what fits where."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from apps.drives.models import BODY, Layer, Saying, Sheet
from spindle.diagnosis.given.compiled import CompiledModel, compile_model
from spindle.drives.full_sheet import FullSheet, Provenance
from spindle.drives.key import Reading, Variant, read_key
from spindle.drives.levels import LEVELS
from spindle.drives.matching import Match, PartType, Statement, Verdict, match
from spindle.drives.tables import TABLES, Confidence, Origin
from spindle.errors import CaseError, InvalidError, NotFoundError
from spindle.formats.drive_facts import read_drive
from spindle.formats.sheet_file import FORMAT, VERSION, read_sheet
from spindle.formats.table_rows import write_csv
from spindle.learning import layer as learning


def current_sheets() -> list[Sheet]:
    """Return the newest version of every sheet that is in use."""
    return list(Sheet.objects.filter(is_current=True, is_retired=False))


def sheet(pk: int) -> Sheet:
    """Return one sheet, or raise NotFoundError."""
    found = Sheet.objects.filter(pk=pk).first()
    if found is None:
        raise NotFoundError(f"There is no drive sheet number {pk}.")
    return found


def sheet_of(variant: str, version: int | None = None) -> Sheet:
    """Return the sheet of a variant, the current one unless a version is asked for, or raise NotFoundError."""
    which = {"is_current": True} if version is None else {"version": version}
    found = Sheet.objects.select_related("by").filter(variant=variant, **which).first()
    if found is None:
        raise NotFoundError(f"There is no sheet of a drive {variant}{'' if version is None else f' in version {version}'}.")
    return found


def versions_of(variant: str) -> list[Sheet]:
    """Return every version of a variant's sheet, newest first."""
    return list(Sheet.objects.select_related("by").filter(variant=variant).order_by("-version"))


@dataclass(frozen=True)
class SheetDetail:
    """A version of a sheet with every version of its variant, newest first, and as the rules read it."""

    sheet: Sheet
    versions: list[Sheet]
    unit: FullSheet


def sheet_detail(found: Sheet) -> SheetDetail:
    """Return a version of a sheet with everything that is shown of it."""
    return SheetDetail(found, versions_of(found.variant), full_sheet(found.pk))


def document_of(found: Sheet) -> dict[str, Any]:
    """Return a sheet as the JSON object of the sheet format."""
    return {
        "format": FORMAT,
        "version": VERSION,
        "maker": found.maker,
        "console": found.console,
        "revision": found.revision,
        "drive": found.facts,
        "looks": found.looks,
        "tables": found.tables,
        "sources": found.sources,
    }


@lru_cache(maxsize=512)
def _full(pk: int) -> FullSheet:
    # a version of a sheet never changes, so it may be kept
    return read_sheet(document_of(Sheet.objects.get(pk=pk)))


def full_sheet(pk: int) -> FullSheet:
    """Return a version of a sheet as the rules read it."""
    return _full(pk)


@lru_cache(maxsize=512)
def _called(pk: int) -> Sheet:
    return Sheet.objects.defer(*BODY).get(pk=pk)


def named_sheet(pk: int) -> Sheet:
    """Return a version of a sheet by what it is called; whether it is the current one, or retired, is asked of the database."""
    return _called(pk)


@lru_cache(maxsize=512)
def _named(pk: int) -> frozenset[tuple[str, str]]:
    unit = _full(pk)
    return frozenset((level, code) for level in LEVELS for code in unit.codes(level))


def current_named() -> dict[str, frozenset[tuple[str, str]]]:
    """Return the (level, code) of everything that the current sheet of each variant names."""
    return {variant: _named(pk) for pk, variant in Sheet.objects.filter(is_current=True).values_list("pk", "variant")}


def current_full() -> dict[str, FullSheet]:
    """Return the current sheet of every variant as the rules read it."""
    return {variant: _full(pk) for pk, variant in Sheet.objects.filter(is_current=True).values_list("pk", "variant")}


def table_csv(variant: str, table: str) -> str:
    """Return one table of the current sheet as CSV, or raise NotFoundError."""
    if table not in TABLES:
        raise NotFoundError(f"There is no table {table!r}; there are {', '.join(TABLES)}.")
    return write_csv(TABLES[table], full_sheet(sheet_of(variant).pk).rows(table))


@lru_cache(maxsize=256)
def _compiled(pk: int) -> CompiledModel:
    return compile_model(read_drive(Sheet.objects.get(pk=pk).facts, "/drive"))


def model_of(pk: int) -> CompiledModel:
    """Return the shipped fault model cut to the drive of that sheet version, whatever was learnt."""
    return _compiled(pk)


def layer_in_use() -> Layer | None:
    """Return what closed jobs taught, as far as it is in use; None if the shipped models stand alone. One small query."""
    return Layer.objects.filter(is_used=True).first()


def layer_number() -> int:
    """Return the number of the layer in use; 0 if none is. Whatever is kept of a diagnosis rests on it."""
    return Layer.objects.filter(is_used=True).values_list("number", flat=True).first() or 0


@lru_cache(maxsize=256)
def _learnt(pk: int, layer_pk: int) -> CompiledModel:
    return learning.Layer.read(Layer.objects.get(pk=layer_pk).body).over(_compiled(pk))


def model_in_use(pk: int) -> CompiledModel:
    """Return the fault model cut to the drive of that sheet version, with what closed jobs taught where that is in use: what benches reckon with."""
    return model_under(pk, Layer.objects.filter(is_used=True).values_list("pk", flat=True).first())


def model_under(pk: int, layer_pk: int | None) -> CompiledModel:
    """Return the fault model cut to the drive of that sheet version under a layer of what was learnt; None for the shipped one."""
    return _compiled(pk) if layer_pk is None else _learnt(pk, layer_pk)


def shipped_models() -> dict[str, CompiledModel]:
    """Return the shipped model of the current sheet of every variant."""
    return {variant: _compiled(pk) for pk, variant in Sheet.objects.filter(is_current=True).order_by("variant").values_list("pk", "variant")}


def family_by_variant() -> dict[str, str]:
    """Return the loader family of every drive variant."""
    return dict(Sheet.objects.values_list("variant", "facts__family"))


def key_reading(answers: Mapping[str, str]) -> tuple[Reading, dict[str, Sheet]]:
    """Return where the identification key stands after some answers, over the current sheets, and the sheets by variant.

    Raises
    ------
    InvalidError
        If an answer names an unknown feature or value.
    """
    sheets = {s.variant: s for s in Sheet.objects.filter(is_current=True, is_retired=False).defer("facts", "tables", "sources")}
    try:
        return read_key(tuple(Variant(name, s.looks) for name, s in sheets.items()), answers), sheets
    except CaseError as error:
        raise InvalidError(error.place, error.message) from error


def statements(*, variant: str | None = None, level: str | None = None, code: str | None = None) -> list[Statement]:
    """Return what was said about what fits, oldest first."""
    asked = {k: v for k, v in {"variant": variant, "level": level, "code": code}.items() if v is not None}
    return [statement_of(s) for s in Saying.objects.select_related("by").filter(**asked)]


def statement_of(said: Saying) -> Statement:
    """Return a saying as the rules read it."""
    source = Provenance(Origin(said.origin), Confidence(said.confidence), said.said)
    by = said.by.shown_name
    return Statement(said.level, said.code, said.variant, Verdict(said.verdict), source, said.reason, tuple(said.works), said.pk, by, f"{said.at:%-d %b %Y}")


@dataclass(frozen=True)
class Fit:
    """Whether one kind of part fits one drive variant."""

    level: str
    code: str
    variant: str
    match: Match


def check_level(level: str) -> None:
    """Refuse a level that does not exist.

    Raises
    ------
    NotFoundError
    """
    if level not in LEVELS:
        raise NotFoundError(f"There is no level {level!r}; there are {', '.join(LEVELS)}.")


def maker_of(level: str, code: str, sheets: Mapping[str, FullSheet]) -> FullSheet | None:
    """Return the sheet that names a part as its own, if one does."""
    return next((s for s in sheets.values() if code in s.codes(level)), None)


def fits_of_unit(unit: FullSheet, *, level: str | None = None) -> list[Fit]:
    """Return every kind of part that a sheet or a statement names, with whether it fits this unit. Two queries."""
    sheets, said = current_full(), statements()
    fits = []
    for name in [level] if level else LEVELS:
        codes = {c for s in sheets.values() for c in s.codes(name)} | {s.code for s in said if s.level == name}
        fits += [Fit(name, code, unit.drive.variant, match(unit, PartType(name, code, maker_of(name, code, sheets)), said)) for code in sorted(codes)]
    return fits


def fits_at_level(level: str) -> list[Fit]:
    """Return every drive against every kind of part of one level that a sheet or a statement names. Two queries.

    Raises
    ------
    NotFoundError
        If there is no such level.
    """
    check_level(level)
    sheets, said = current_full(), statements(level=level)
    codes = sorted({c for s in sheets.values() for c in s.codes(level)} | {s.code for s in said})
    parts = [PartType(level, code, maker_of(level, code, sheets)) for code in codes]
    return [Fit(level, p.code, variant, match(unit, p, said)) for variant, unit in sheets.items() for p in parts]


def homes_of_part(level: str, code: str) -> list[Fit]:
    """Return for every drive variant whether a kind of part fits it. Two queries.

    Raises
    ------
    NotFoundError
        If there is no such level.
    """
    check_level(level)
    sheets, said = current_full(), statements(level=level, code=code)
    part = PartType(level, code, maker_of(level, code, sheets))
    return [Fit(level, code, variant, match(unit, part, said)) for variant, unit in sheets.items()]


def named_codes(unit: FullSheet, said: Iterable[Statement], *, is_complete: bool, levels: Iterable[str] = LEVELS) -> dict[tuple[str, str], Match]:
    """Return how the kinds of parts match that this unit's sheet or a statement names; only those can ever fit it."""
    spoken: dict[tuple[str, str], list[Statement]] = {(v, c): [] for v in levels for c in unit.codes(v)}
    for statement in said:
        spoken.setdefault((statement.level, statement.code), []).append(statement)
    return {key: match(unit, PartType(*key, is_complete=is_complete), about) for key, about in spoken.items()}
