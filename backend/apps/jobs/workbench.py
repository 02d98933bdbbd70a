"""What a job's unit can use, how the levels of repair compare, and how a part goes into it."""

from __future__ import annotations

from dataclasses import dataclass

from apps.drives.selectors import full_sheet
from apps.jobs.selectors import JobState
from apps.shelf.selectors import Offer, sources_for
from spindle.diagnosis.belief.posterior import Belief, believe
from spindle.diagnosis.explaining.swaps import chance_with
from spindle.diagnosis.planning.problem import plan_for
from spindle.drives.levels import LEVELS
from spindle.drives.matching import USABLE
from spindle.drives.swap_plan import SwapPlan, swap_plan
from spindle.offers.compare import LevelRow, compare_levels, suspect_levels


@dataclass(frozen=True)
class Usable:
    """Something that the unit can use, the repairs that it is for (none where it fits in part only), and the best chance among them."""

    source: Offer
    repairs: tuple[str, ...]
    p_cures: float


def unit_sources(state: JobState) -> list[Usable]:
    """Return everything that the unit can use, what most likely mends it first."""
    belief = believe(state.case.findings, state.model)
    found = [_usable(s, state, belief) for s in sources_for(full_sheet(state.job.sheet_id))]
    return sorted(found, key=lambda u: (not u.repairs, -u.p_cures, u.source.wait_days, u.source.tag))


def _usable(source: Offer, state: JobState, belief: Belief) -> Usable:
    model = state.model
    if source.match.verdict not in USABLE:
        return Usable(source, (), 0.0)
    repairs = tuple(r for r in LEVELS[source.level].repairs if r in model.repair_index)
    chances = [chance_with(source.stock_for(r), model, belief) for r in repairs]
    return Usable(source, repairs, max(chances, default=0.0))


def level_rows(state: JobState, price_cents_per_min: int) -> tuple[LevelRow, ...]:
    """Return the levels of repair compared, by what the findings say and the shelf holds."""
    belief = believe(state.case.findings, state.model)
    plan = plan_for(state.model, state.case.economy, stock=state.case.stock)
    return compare_levels(state.model, belief, plan, price_cents_per_min=price_cents_per_min)


def plan_of(state: JobState, level: str, *, from_donor: bool) -> SwapPlan:
    """Return how another part of that level goes into the unit, with what the findings suspect taken for broken.

    Raises
    ------
    spindle.errors.RefusedError
        If it would leave the console without its key.
    """
    belief = believe(state.case.findings, state.model)
    return swap_plan(full_sheet(state.job.sheet_id), level, broken=suspect_levels(state.model, belief), from_donor=from_donor)
