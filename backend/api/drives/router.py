"""Drive sheets, the key that tells which drive this is, and what fits where."""

from __future__ import annotations

from typing import Annotated

from api.common import READS, WRITES, Code, Key, Number, SignedIn, Variant, Word, view_before_commit
from api.drives.key_views import key_view
from api.drives.schemas import (
    BeginningIn,
    ConsoleIn,
    ConsoleNamed,
    ConsoleView,
    FitsView,
    KeyIn,
    KeyView,
    RetireIn,
    SayIn,
    SheetDetailView,
    SheetFormView,
    SheetIn,
    SheetView,
)
from api.drives.views import console_view, fits_view, sheet_detail_view, sheet_form_view, sheet_view, written_console_view
from apps.drives.consoles import console_csv, console_of, current_console
from apps.drives.consoles import document_of as document_of_console
from apps.drives.selectors import (
    current_sheets,
    document_of,
    fits_at_level,
    fits_of_unit,
    full_sheet,
    homes_of_part,
    key_reading,
    sheet_detail,
    sheet_of,
    statements,
    table_csv,
)
from apps.drives.services import (
    Beginning,
    Said,
    begin_sheet,
    import_console,
    import_console_csv,
    import_csv,
    import_file,
    retire_sheet,
    save_console,
    save_sheet,
    say,
)
from apps.writing.once import Command
from django.http import HttpResponse, JsonResponse
from ninja import File, Form, Path, Query, Router
from ninja.files import UploadedFile
from spindle.formats.console_file import read_console
from spindle.formats.sheet_file import read_sheet

router = Router(tags=["drives"])
Named = Annotated[Variant, Path()]


@router.get("/sheets", response={200: list[SheetView], **READS}, operation_id="sheets")
def sheets(request: SignedIn) -> list[SheetView]:
    """Return the current drive sheets."""
    return [sheet_view(sheet) for sheet in current_sheets()]


@router.get("/sheet-form", response={200: SheetFormView, **READS}, operation_id="sheet_form")
def sheet_form(request: SignedIn) -> SheetFormView:
    """Return the tables, levels and words that a sheet is written in."""
    return sheet_form_view()


@router.post("/sheet-files", response={200: SheetDetailView, **WRITES}, operation_id="import_sheet")
@view_before_commit
def import_sheet(request: SignedIn, key: Form[Key], file: File[UploadedFile]) -> SheetDetailView:
    """Read a sheet from a file of the open format: a new variant, or the next version of one that is here. A bad file changes nothing."""
    return sheet_detail_view(sheet_detail(import_file(Command(request.user, key), file.read)))


@router.get("/sheets/{variant}", response={200: SheetDetailView, **READS}, operation_id="sheet")
def sheet(request: SignedIn, variant: Named, version: Annotated[Number | None, Query()] = None) -> SheetDetailView:
    """Return a whole sheet, the current version unless another is asked for."""
    return sheet_detail_view(sheet_detail(sheet_of(variant, version)))


@router.post("/sheets/{variant}", response={200: SheetDetailView, **WRITES}, operation_id="save_sheet")
@view_before_commit
def save(request: SignedIn, variant: Named, body: SheetIn) -> SheetDetailView:
    """Save a sheet as its next version; jobs keep the version that they have."""
    return sheet_detail_view(sheet_detail(save_sheet(Command(request.user, body.key), read_sheet(body.document), based_on=body.based_on, why=body.why)))


@router.post("/sheets", response={200: SheetDetailView, **WRITES}, operation_id="begin_sheet")
@view_before_commit
def begin(request: SignedIn, body: BeginningIn) -> SheetDetailView:
    """Begin the sheet of a drive that has none."""
    return sheet_detail_view(sheet_detail(begin_sheet(Command(request.user, body.key), Beginning(**body.dict(exclude={"key"})))))


@router.post("/sheets/{variant}/retired", response={200: SheetDetailView, **WRITES}, operation_id="retire_sheet")
@view_before_commit
def retire(request: SignedIn, variant: Named, body: RetireIn) -> SheetDetailView:
    """Take a sheet out of use, or back into it."""
    return sheet_detail_view(sheet_detail(retire_sheet(Command(request.user, body.key), variant, is_retired=body.is_retired)))


@router.get("/sheets/{variant}/file", response={200: dict, **READS}, operation_id="sheet_file")
def export(request: SignedIn, variant: Named) -> HttpResponse:
    """Return a sheet as a file of the open format."""
    answer = JsonResponse(document_of(sheet_of(variant)), json_dumps_params={"indent": 2, "ensure_ascii": False})
    answer["Content-Disposition"] = f'attachment; filename="{_file_name(variant)}.json"'
    return answer


@router.get("/sheets/{variant}/tables/{table}", response={200: None, **READS}, operation_id="sheet_table")
def export_table(request: SignedIn, variant: Named, table: Annotated[Word, Path()]) -> HttpResponse:
    """Return one table of a sheet as CSV."""
    answer = HttpResponse(table_csv(variant, table), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="{_file_name(variant)}-{table}.csv"'
    return answer


@router.post("/sheets/{variant}/tables/{table}", response={200: SheetDetailView, **WRITES}, operation_id="import_table")
@view_before_commit
def import_table(request: SignedIn, variant: Named, table: Annotated[Word, Path()], key: Form[Key], file: File[UploadedFile]) -> SheetDetailView:
    """Replace one table of a sheet by a CSV file, as a new version. A bad file changes nothing."""
    return sheet_detail_view(sheet_detail(import_csv(Command(request.user, key), variant, table, file.read)))


@router.get("/console", response={200: ConsoleView, **READS}, operation_id="console")
def console(request: SignedIn, named: Query[ConsoleNamed]) -> ConsoleView:
    """Return what is known of a console outside its drive."""
    return console_view(named.whose, current_console(named.whose))


@router.post("/console", response={200: ConsoleView, **WRITES}, operation_id="save_console")
@view_before_commit
def keep_console(request: SignedIn, body: ConsoleIn) -> ConsoleView:
    """Save a console's sheet as its next version."""
    return written_console_view(save_console(Command(request.user, body.key), read_console(body.document), based_on=body.based_on, why=body.why))


@router.post("/console-files", response={200: ConsoleView, **WRITES}, operation_id="import_console")
@view_before_commit
def load_console(request: SignedIn, key: Form[Key], file: File[UploadedFile]) -> ConsoleView:
    """Read a console's sheet from a file of its open format. A bad file changes nothing."""
    return written_console_view(import_console(Command(request.user, key), file.read))


@router.get("/console/file", response={200: dict, **READS}, operation_id="console_file")
def export_console(request: SignedIn, named: Query[ConsoleNamed]) -> HttpResponse:
    """Return a console's sheet as a file of its open format."""
    answer = JsonResponse(document_of_console(console_of(named.whose)), json_dumps_params={"indent": 2, "ensure_ascii": False})
    answer["Content-Disposition"] = f'attachment; filename="{_file_name("-".join(named.whose[1:]))}.json"'
    return answer


@router.get("/console/tables/{table}", response={200: None, **READS}, operation_id="console_table")
def export_console_table(request: SignedIn, table: Annotated[Word, Path()], named: Query[ConsoleNamed]) -> HttpResponse:
    """Return one table of a console's sheet as CSV."""
    answer = HttpResponse(console_csv(named.whose, table), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="{_file_name("-".join(named.whose[1:]))}-{table}.csv"'
    return answer


@router.post("/console/tables/{table}", response={200: ConsoleView, **WRITES}, operation_id="import_console_table")
@view_before_commit
def import_console_table(
    request: SignedIn, table: Annotated[Word, Path()], named: Query[ConsoleNamed], key: Form[Key], file: File[UploadedFile]
) -> ConsoleView:
    """Replace one table of a console's sheet by a CSV file, as a new version. A bad file changes nothing."""
    return written_console_view(import_console_csv(Command(request.user, key), named.whose, table, file.read))


@router.post("/key", response={200: KeyView, **WRITES}, operation_id="key")
def key(request: SignedIn, body: KeyIn) -> KeyView:
    """Return which drive it can be by what was seen so far, and what to look at next. Nothing is written."""
    reading, by_variant = key_reading(body.answers)
    return key_view(reading, by_variant)


@router.get("/fits/unit/{variant}", response={200: FitsView, **READS}, operation_id="fits_of_unit")
def fits_unit(request: SignedIn, variant: Named) -> FitsView:
    """Return what fits this drive: every kind of part that a sheet or a statement names."""
    return fits_view(fits_of_unit(full_sheet(sheet_of(variant).pk)), statements(variant=variant))


@router.get("/fits/part", response={200: FitsView, **READS}, operation_id="homes_of_part")
def fits_part(request: SignedIn, level: Annotated[Word, Query()], code: Annotated[Code, Query()]) -> FitsView:
    """Return where a kind of part goes: the verdict for every drive variant."""
    return fits_view(homes_of_part(level, code), statements(level=level, code=code))


@router.get("/fits/level/{level}", response={200: FitsView, **READS}, operation_id="fits_at_level")
def fits_level(request: SignedIn, level: Annotated[Word, Path()]) -> FitsView:
    """Return every drive against every kind of part of one level."""
    return fits_view(fits_at_level(level), [])


@router.post("/fits", response={200: FitsView, **WRITES}, operation_id="say")
@view_before_commit
def say_fits(request: SignedIn, body: SayIn) -> FitsView:
    """Write down whether a kind of part fits a drive variant; it is shown everywhere from then on."""
    said = Said(**{k: str(v) for k, v in body.dict(exclude={"key", "works"}).items()}, works=tuple(body.works or ()))
    say(Command(request.user, body.key), said)
    return fits_view(homes_of_part(body.level, body.code), statements(level=body.level, code=body.code))


def _file_name(variant: str) -> str:
    return "".join(c if c.isalnum() or c in "-_" else "_" for c in variant)
