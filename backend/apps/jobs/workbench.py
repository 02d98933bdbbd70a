"""What a job's unit can use, how the levels of repair compare, and how a part goes into it."""

from __future__ import annotations

from dataclasses import dataclass

from apps.drives.selectors import full_sheet
from apps.jobs.selectors import OpenJob
from apps.shelf.offers import Offer, offers_for
from spindle.diagnosis.explaining.swaps import chance_with
from spindle.diagnosis.planning.outlook import look_ahead
from spindle.diagnosis.planning.plan import plan_for
from spindle.drives.levels import LEVELS
from spindle.drives.matching import USABLE
from spindle.drives.swap_plan import SwapPlan, swap_plan
from spindle.errors import NotFoundError
from spindle.offers.compare import LevelRow, compare_levels, suspect_levels
from spindle.offers.ordering import Together, before_parking


@dataclass(frozen=True)
class Usable:
    """Something that the unit can use, the repairs that it is for (none where it fits in part only), and the best chance among them."""

    source: Offer
    repairs: tuple[str, ...]
    p_cures: float


def unit_sources(shown: OpenJob) -> list[Usable]:
    """Return everything that the unit can use, what most likely mends it first."""
    found = [_usable(o, shown) for o in offers_for(full_sheet(shown.row.sheet_id), shown.shop.today())]
    return sorted(found, key=lambda u: (not u.repairs, -u.p_cures, u.source.wait_days, u.source.tag))


def _usable(source: Offer, shown: OpenJob) -> Usable:
    model = shown.job.model
    if source.match.verdict not in USABLE:
        return Usable(source, (), 0.0)
    repairs = tuple(r for r in LEVELS[source.level].repairs if r in model.repair_index)
    chances = [chance_with(source.stock_for(r), model, shown.state.belief) for r in repairs]
    return Usable(source, repairs, max(chances, default=0.0))


def level_rows(shown: OpenJob) -> tuple[LevelRow, ...]:
    """Return the levels of repair compared, by what the findings say and the shelf holds."""
    state, model = shown.state, shown.job.model
    plan = plan_for(model, state.case.economy, stock=state.case.stock)
    return compare_levels(model, state.belief, plan, price_cents_per_min=shown.shop.price_cents_per_min)


def parking_of(shown: OpenJob) -> Together | None:
    """Return what to do before the job waits for the part of what is proposed; None if it waits for none."""
    state, model, proposal = shown.state, shown.job.model, shown.job.proposal
    if proposal is None or not proposal.repair:
        return None
    return before_parking(proposal.repair, model, look_ahead(state.case, model, state.belief), state.case.economy)


def plan_of(shown: OpenJob, level: str, *, from_donor: bool) -> SwapPlan:
    """Return how another part of that level goes into the unit, with what the findings suspect taken for broken.

    Raises
    ------
    NotFoundError
        If there is no such level.
    RefusedError
        If it would leave the console without its key.
    """
    if level not in LEVELS:
        raise NotFoundError(f"There is no level {level!r}; there are {', '.join(LEVELS)}.")
    broken = suspect_levels(shown.job.model, shown.state.belief)
    return swap_plan(full_sheet(shown.row.sheet_id), level, broken=broken, from_donor=from_donor)
