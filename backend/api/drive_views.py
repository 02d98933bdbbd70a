"""Views of drive sheets and of what fits where."""

from __future__ import annotations

from collections.abc import Iterable

from apps.drives.models import Sheet
from apps.drives.selectors import Fit, document_of, full_sheet, versions_of
from spindle.drives.full_sheet import gaps
from spindle.drives.levels import LEVELS, Level
from spindle.drives.matching import VERDICT_NAMES, Statement, spoken
from spindle.drives.tables import ORIGIN_NAMES, TABLES
from spindle.faults.library import MODELS

from . import drive_schemas as d
from .identifying import features_view
from .presenters import drive_view
from .schemas import PromptChoiceView


def sheet_view(sheet: Sheet) -> d.SheetView:
    """Return a sheet for the gallery."""
    return d.SheetView(
        id=sheet.pk,
        drive=drive_view(sheet),
        version=sheet.version,
        classes=sorted(sheet.facts["classes"]),
        also_in=[f"{r['console']}, revision {r['revision']}" for r in sheet.tables.get("consoles", ())],
    )


def sheet_detail_view(sheet: Sheet) -> d.SheetDetailView:
    """Return a whole sheet with its versions and what it lacks."""
    return d.SheetDetailView(
        **sheet_view(sheet).dict(),
        document=document_of(sheet),
        is_current=sheet.is_current,
        versions=[_version(v) for v in versions_of(sheet.variant)],
        gaps=[d.GapView(table=g.table, text=g.text) for g in gaps(full_sheet(sheet.pk))],
    )


def _version(sheet: Sheet) -> d.VersionView:
    return d.VersionView(id=sheet.pk, version=sheet.version, why=sheet.why, by=sheet.by.get_full_name() if sheet.by else "", at=sheet.at)


def level_view(level: Level) -> d.LevelView:
    """Return a level."""
    return d.LevelView(id=level.id, name=level.name, rank=level.rank, functions=list(level.functions), families=list(level.families))


def sheet_form_view() -> d.SheetFormView:
    """Return what a sheet is written in."""
    return d.SheetFormView(
        tables=[d.TableView.model_validate(t, from_attributes=True) for t in TABLES.values()],
        levels=[level_view(v) for v in LEVELS.values()],
        features=features_view(),
        repairs={m.family: [PromptChoiceView(id=r.id, label=r.name) for r in m.repairs if r.uses_item] for m in MODELS.values()},
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
