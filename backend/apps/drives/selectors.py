"""Reading drive sheets, and the fault model cut to one."""

from __future__ import annotations

from collections.abc import Mapping
from functools import lru_cache

from apps.drives.models import Sheet
from apps.errors import InvalidError, NotFoundError
from spindle.casefile.drive import read_drive
from spindle.diagnosis.compiled import CompiledModel, compile_model
from spindle.drives.key import Reading, Variant, read_key
from spindle.errors import CaseError


def current_sheets() -> list[Sheet]:
    """Return the newest version of every sheet."""
    return list(Sheet.objects.filter(is_current=True))


def sheet(pk: int) -> Sheet:
    """Return one sheet, or raise NotFoundError."""
    found = Sheet.objects.filter(pk=pk).first()
    if found is None:
        raise NotFoundError(f"There is no drive sheet number {pk}.")
    return found


@lru_cache(maxsize=256)
def _compiled(pk: int) -> CompiledModel:
    # a version of a sheet never changes, so its model may be kept
    return compile_model(read_drive(Sheet.objects.get(pk=pk).facts, "/drive"))


def model_of(pk: int) -> CompiledModel:
    """Return the fault model cut to the drive of that sheet version."""
    return _compiled(pk)


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
    sheets = {s.variant: s for s in current_sheets()}
    try:
        return read_key(tuple(Variant(name, s.looks) for name, s in sheets.items()), answers), sheets
    except CaseError as error:
        raise InvalidError(error.place, error.message) from error
