"""The track record: how honest the advice was, and the figures of the month."""

from __future__ import annotations

import csv
import io

from api.common import READS, WRITES, OnceIn, SignedIn, as_json, view_before_commit
from api.record.schemas import AdviceView, AgainstSchoolsView, FiguresOfMonthsView, LearningView, OtherSuspectsView, OtherSuspectView, UseLearntIn
from api.record.views import learning_view
from apps.record.learning import other_suspects, taught
from apps.record.replaying import against_schools
from apps.record.selectors import advice, figures
from apps.record.services import take_it_back, use_what_was_learnt
from apps.shop.selectors import the_shop
from apps.writing.copy import from_the_copy
from apps.writing.once import Command
from django.http import HttpResponse
from ninja import Router
from spindle.formats.table_rows import harmless

router = Router(tags=["record"])


@router.get("/record/advice", response={200: AdviceView, **READS}, operation_id="record_advice")
@from_the_copy
def how_good(request: SignedIn) -> AdviceView:
    """Return how honest the advice was."""
    found = advice()
    return AdviceView.model_validate({**vars(found), "every": found.all_}, from_attributes=True)


@router.get("/record/schools", response={200: AgainstSchoolsView, **READS}, operation_id="record_schools")
@from_the_copy
def by_other_ways(request: SignedIn) -> AgainstSchoolsView:
    """Return what the closed jobs with a confirmed cause would have cost by the advice, and by each school."""
    return AgainstSchoolsView.model_validate(against_schools())


@router.get("/record/schools.csv", response={200: None, **READS}, operation_id="record_schools_table")
@from_the_copy
def by_other_ways_table(request: SignedIn) -> HttpResponse:
    """Return the same as a table for a spreadsheet."""
    return _table("ways.csv", [w.model_dump() for w in AgainstSchoolsView.model_validate(against_schools()).ways])


@router.get("/record/months", response={200: FiguresOfMonthsView, **READS, 403: WRITES[403]}, operation_id="record_months")
@from_the_copy
def months(request: SignedIn) -> FiguresOfMonthsView:
    """Return the figures of the last months; for managers."""
    return FiguresOfMonthsView.model_validate(figures(request.user, the_shop()))


@router.get("/record/months.csv", response={200: None, **READS, 403: WRITES[403]}, operation_id="record_months_table")
@from_the_copy
def months_table(request: SignedIn) -> HttpResponse:
    """Return the same as a table for a spreadsheet."""
    found = FiguresOfMonthsView.model_validate(figures(request.user, the_shop()))
    return _table("months.csv", [m.model_dump() for m in found.months])


@router.get("/record/learning", response={200: LearningView, **READS}, operation_id="record_learning")
def what_jobs_teach(request: SignedIn) -> LearningView:
    """Return what the closed jobs teach, how it is judged, and what of it is in use."""
    return learning_view(taught())


@router.get("/record/learning.csv", response={200: None, **READS}, operation_id="record_learning_table")
def what_jobs_teach_table(request: SignedIn) -> HttpResponse:
    """Return the same as a table for a spreadsheet."""
    return _table("learnt.csv", [r.model_dump(mode="json") for r in learning_view(taught()).rows])


@router.get("/record/learning/suspects", response={200: OtherSuspectsView, **READS}, operation_id="record_other_suspects")
def which_jobs_would_change(request: SignedIn) -> OtherSuspectsView:
    """Return the open jobs that would get another first suspect by what was learnt."""
    return OtherSuspectsView(jobs=[OtherSuspectView.model_validate(s) for s in other_suspects(taught().layer)])


@router.post("/record/learning/use", response={200: LearningView, **WRITES}, operation_id="use_learnt")
@view_before_commit
def use(request: SignedIn, body: UseLearntIn) -> HttpResponse:
    """Put what was learnt to use; for managers."""
    use_what_was_learnt(Command(request.user, body.key), jobs=body.jobs)
    return as_json(learning_view(taught()))


@router.post("/record/learning/stop", response={200: LearningView, **WRITES}, operation_id="stop_learnt")
@view_before_commit
def stop(request: SignedIn, body: OnceIn) -> HttpResponse:
    """Take what was learnt back: the shipped figures stand alone again; for managers."""
    take_it_back(Command(request.user, body.key))
    return as_json(learning_view(taught()))


def _table(name: str, rows: list[dict[str, object]]) -> HttpResponse:
    out = io.StringIO()
    writer = csv.DictWriter(out, list(rows[0]) if rows else ["empty"], lineterminator="\r\n")
    writer.writeheader()
    writer.writerows({k: harmless(v) for k, v in row.items()} for row in rows)
    answer = HttpResponse(out.getvalue(), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="{name}"'
    return answer
