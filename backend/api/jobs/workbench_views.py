"""Views of what a unit can use, of levels compared, and of swap plans."""

from __future__ import annotations

from collections.abc import Iterable

from api.drives.views import level_view
from api.jobs import workbench_schemas as d
from api.jobs.diagnosis_views import cents
from apps.jobs.selectors import OpenJob
from apps.jobs.workbench import Usable
from spindle.drives.levels import LEVEL_OF_REPAIR, LEVELS, is_within
from spindle.drives.matching import VERDICT_NAMES
from spindle.drives.swap_plan import PlanStep, SwapPlan
from spindle.faults.cautions import CAUTIONS
from spindle.offers.compare import LevelRow
from spindle.offers.ordering import Together


def workbench_view(shown: OpenJob, sources: Iterable[Usable], rows: Iterable[LevelRow], together: Together | None) -> d.WorkbenchView:
    """Return what this unit can use, how the levels compare, and the pieces that a plan can be asked for."""
    pieces = ("drive", *(p for p in shown.unit.pieces if p not in ("drive", "chip") and is_within(p, "drive")))
    return d.WorkbenchView(
        version=shown.job.version,
        sources=[_source(u) for u in sources],
        levels=[_level(r, shown) for r in rows],
        pieces=[level_view(LEVELS[p]) for p in pieces],
        together=None if together is None else _together(together),
    )


def _together(together: Together) -> d.TogetherView:
    return d.TogetherView(
        p_cures=together.p_cures,
        wait_days=together.wait_days,
        looks=[d.LookView(id=x.id, title=x.title, saves_cents=cents(x.saves_eur)) for x in together.looks],
        second=together.second,
        second_name=together.second_name,
        second_cents=cents(together.second_eur),
        p_used=together.p_used,
        one_parcel_cents=cents(together.one_parcel_eur),
        two_parcels_cents=cents(together.two_parcels_eur),
    )


def _source(usable: Usable) -> d.SourceView:
    source = usable.source
    m = source.match
    return d.SourceView(
        tag=source.tag,
        item=source.item,
        level=source.level,
        level_name=LEVELS[source.level].name,
        code=source.code,
        where=source.where,  # type: ignore[arg-type]  # pydantic checks the word
        place=source.place,
        verdict=m.verdict,
        verdict_name=VERDICT_NAMES[m.verdict],
        reasons=[*m.reasons, *([m.source] if m.source else [])],
        transfers=list(m.transfers),
        health=source.health.value,
        works=sorted(source.works),
        fails=sorted(source.fails),
        cents=source.cents,
        wait_days=source.wait_days,
        most_days=source.most_days,
        repairs=list(usable.repairs),
        p_cures=usable.p_cures,
    )


def _level(row: LevelRow, shown: OpenJob) -> d.LevelRowView:
    return d.LevelRowView(
        rank=row.rank,
        rank_name=row.name,
        repair=row.quote.repair,
        name=row.quote.name,
        level=LEVEL_OF_REPAIR.get(row.quote.repair, ""),
        minutes=row.quote.labour_min,
        total_cents=shown.job.charged(row.quote.total_cents),
        part_cents=row.quote.part_cents,
        wait_days=row.quote.wait_days,
        skill=row.skill,
        p_success=row.quote.p_success,
        lasts_months=row.lasts_months,
        p_lasts_year=row.quote.p_lasts_year,
        why=row.why,
        item=row.source.item if row.source else "",
    )


def plan_view(plan: SwapPlan) -> d.SwapPlanView:
    """Return a swap plan in words."""
    return d.SwapPlanView(
        level=plan.level,
        level_name=LEVELS[plan.level].name,
        purpose=plan.purpose.value,
        stays=_names(plan.stays),
        moves=_names(plan.moves),
        comes=_names(plan.comes),
        steps=[_step(s) for s in plan.steps],
        back=[_step(s) for s in plan.back],
        lost=plan.lost,
        shows=list(plan.shows),
        warnings=list(plan.warnings),
    )


def _names(levels: Iterable[str]) -> list[str]:
    return [LEVELS[v].name for v in levels]


def _step(step: PlanStep) -> d.PlanStepView:
    return d.PlanStepView(
        id=step.id,
        text=step.text,
        depth=step.depth,  # type: ignore[arg-type]  # pydantic checks the word
        cautions=[CAUTIONS[c].short for c in step.cautions],
        details=list(step.details),
    )
