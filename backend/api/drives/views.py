"""Views of drive sheets and of what fits where."""

from __future__ import annotations

from collections.abc import Iterable

from api.drives import schemas as d
from api.drives.key_views import features_view
from apps.drives.consoles import Named
from apps.drives.consoles import document_of as document_of_console
from apps.drives.models import Console, Sheet
from apps.drives.selectors import Fit, SheetDetail, document_of, model_of
from spindle.drives.console_sheet import ConsoleSheet
from spindle.drives.full_sheet import gaps
from spindle.drives.levels import LEVELS, Level
from spindle.drives.matching import VERDICT_NAMES, Statement, spoken
from spindle.drives.sheet import DriveSheet
from spindle.drives.tables import CONSOLE_TABLES, ORIGIN_NAMES, TABLES
from spindle.faults.library import MODELS
from spindle.formats.console_file import write_console


def drive_view(sheet: Sheet) -> d.DriveView:
    """Return the facts of a drive that the screens show."""
    return facts_view(model_of(sheet.pk).sheet, maker=sheet.maker, console=sheet.console, revision=sheet.revision)


def facts_view(facts: DriveSheet, *, maker: str = "", console: str = "", revision: str = "") -> d.DriveView:
    """Return the facts of a drive by themselves; whose it is, where that is known."""
    return d.DriveView(
        maker=maker,
        console=console,
        revision=revision,
        variant=facts.variant,
        family=facts.family,
        pairing=facts.pairing.value,
        has_trimmer=facts.has_trimmer,
        has_belt=facts.family == "tray" and facts.has_belt,
        lid_switches=facts.lid_switches if facts.family == "lid" else 0,
        has_electrolytics=facts.has_electrolytics,
        has_alignment=facts.has_alignment,
        motor_soldered=facts.motor_soldered,
        label_faces=dict(facts.label_faces),
        fuse_rating=facts.fuse_rating,
        wavelengths=sorted(facts.wavelengths_nm),
    )


def sheet_view(sheet: Sheet) -> d.SheetView:
    """Return a sheet for the gallery."""
    return d.SheetView(
        id=sheet.pk,
        drive=drive_view(sheet),
        version=sheet.version,
        classes=sorted(sheet.facts["classes"]),
        also_in=[f"{r['console']}, revision {r['revision']}" for r in sheet.tables.get("consoles", ())],
    )


def sheet_detail_view(detail: SheetDetail) -> d.SheetDetailView:
    """Return a whole sheet with its versions and what it lacks."""
    sheet = detail.sheet
    return d.SheetDetailView(
        **dict(sheet_view(sheet)),
        document=document_of(sheet),
        is_current=sheet.is_current,
        is_retired=sheet.is_retired,
        versions=[_version(v) for v in detail.versions],
        gaps=[d.GapView.model_validate(g) for g in gaps(detail.unit)],
    )


def _version(sheet: Sheet) -> d.VersionView:
    return d.VersionView(id=sheet.pk, version=sheet.version, why=sheet.why, by=sheet.by.shown_name if sheet.by else "", at=sheet.at)


def console_view(named: Named, found: Console | None) -> d.ConsoleView:
    """Return a console's sheet, an empty one where nobody has written it yet."""
    maker, console, revision = named
    document = document_of_console(found) if found else write_console(ConsoleSheet(maker, console, revision))
    return d.ConsoleView(
        maker=maker,
        console=console,
        revision=revision,
        version=found.version if found else 0,
        document=document,
        why=found.why if found else "",
        by=found.by.shown_name if found else "",
        at=found.at if found else None,
    )


def written_console_view(found: Console) -> d.ConsoleView:
    """Return a console's sheet that is there."""
    return console_view((found.maker, found.console, found.revision), found)


def level_view(level: Level) -> d.LevelView:
    """Return a level."""
    return d.LevelView(id=level.id, name=level.name, rank=level.rank, functions=list(level.functions), families=list(level.families))


def sheet_form_view() -> d.SheetFormView:
    """Return what a sheet is written in."""
    return d.SheetFormView(
        tables=[d.TableView.model_validate(t) for t in TABLES.values()],
        console_tables=[d.TableView.model_validate(t) for t in CONSOLE_TABLES.values()],
        levels=[level_view(v) for v in LEVELS.values()],
        features=features_view(),
        repairs={m.family: [d.PromptChoiceView(id=r.id, label=r.name) for r in m.repairs if r.uses_item] for m in MODELS.values()},
        origins={k.value: v for k, v in ORIGIN_NAMES.items()},
        verdicts={k.value: v for k, v in VERDICT_NAMES.items()},
    )


def fit_view(fit: Fit) -> d.FitView:
    """Return a verdict with everything that it rests on."""
    m = fit.match
    return d.FitView(
        level=fit.level,
        level_name=LEVELS[fit.level].name,
        code=fit.code,
        variant=fit.variant,
        verdict=m.verdict,
        verdict_name=VERDICT_NAMES[m.verdict],
        reasons=list(m.reasons),
        source=m.source,
        transfers=list(m.transfers),
        shows=list(m.shows),
    )


def fits_view(fits: Iterable[Fit], said: Iterable[Statement]) -> d.FitsView:
    """Return verdicts, and what was said, newest first."""
    return d.FitsView(fits=[fit_view(f) for f in fits], sayings=[_saying(s) for s in sorted(said, key=lambda s: -s.number)])


def _saying(said: Statement) -> d.SayingView:
    return d.SayingView(
        level_name=LEVELS[said.level].name,
        code=said.code,
        variant=said.variant,
        verdict_name=VERDICT_NAMES[said.verdict],
        reason=said.reason,
        source=spoken(said.source),
        by=said.by,
        on=said.on,
    )
