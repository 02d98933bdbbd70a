"""The track record: how honest the advice was, and the figures of the month."""

from __future__ import annotations

import csv
import io

from api.common import READS, WRITES, SignedIn
from api.record.schemas import AdviceView, FiguresOfMonthsView, ReliabilityView
from apps.record.selectors import advice, figures
from apps.shop.selectors import the_shop
from django.http import HttpResponse
from ninja import Router

router = Router(tags=["record"])


@router.get("/record/advice", response={200: AdviceView, **READS}, operation_id="record_advice")
def how_good(request: SignedIn) -> AdviceView:
    """Return how honest the advice was."""
    found = advice()
    every, followed, chosen = (ReliabilityView.model_validate(x) for x in (found.all_, found.followed, found.chosen))
    return AdviceView(jobs=found.jobs, parts_for_nothing=found.parts_for_nothing, every=every, followed=followed, chosen=chosen)


@router.get("/record/months", response={200: FiguresOfMonthsView, **READS, 403: WRITES[403]}, operation_id="record_months")
def months(request: SignedIn) -> FiguresOfMonthsView:
    """Return the figures of the last months; for managers."""
    return FiguresOfMonthsView.model_validate(figures(request.user, the_shop()))


@router.get("/record/months.csv", response={200: None, **READS, 403: WRITES[403]}, operation_id="record_months_table")
def months_table(request: SignedIn) -> HttpResponse:
    """Return the same as a table for a spreadsheet: numbers and dates alone."""
    found = FiguresOfMonthsView.model_validate(figures(request.user, the_shop()))
    out = io.StringIO()
    rows = [m.model_dump() for m in found.months]
    writer = csv.DictWriter(out, list(rows[0]), lineterminator="\r\n")
    writer.writeheader()
    writer.writerows(rows)
    answer = HttpResponse(out.getvalue(), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = 'attachment; filename="months.csv"'
    return answer
