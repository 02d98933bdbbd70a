"""From a diagnosis to its views: words, order, rounding. No rule is decided here."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from api.jobs import diagnosis_schemas as s
from apps.jobs.outlook import DeeperLook
from apps.jobs.selectors import OpenJob
from spindle.diagnosis.explaining.advice import schools_beside
from spindle.diagnosis.explaining.diagnose import Diagnosis
from spindle.diagnosis.explaining.moves import Move, MoveKind
from spindle.diagnosis.explaining.signal_path import PathState
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.diagnosis.planning.outlook import look_ahead
from spindle.diagnosis.planning.possible import Barred
from spindle.drives.at_hand import at_question
from spindle.drives.full_sheet import FullSheet
from spindle.faults.cautions import CAUTIONS
from spindle.faults.model import FaultModel, Question
from spindle.job.line import Line
from spindle.learning.claims import Register

SHOWN_MOVES = 6
SHOWN_SUSPECTS = 8
SHOWN_CHANGES = 3
GIVEN_BACK = "Hand it back"


def cents(eur: float) -> int:
    """Return an amount in cents."""
    return round(eur * 100)


def caution_views(ids: Iterable[str]) -> list[s.CautionView]:
    """Return cautions in words."""
    return [s.CautionView(id=c, short=CAUTIONS[c].short, text=CAUTIONS[c].text) for c in ids]


def question_view(question: Question) -> s.QuestionView:
    """Return a question as the screens ask it."""
    return s.QuestionView(
        id=question.id,
        kind=question.kind.value,
        ask=question.ask,
        how=question.how,
        outcomes=[s.OutcomeView(id=o.id, label=o.label, is_failure=o.id in question.fails) for o in question.outcomes],
        bench_min=question.bench_min,
        depth=int(question.depth),
        mains=question.mains.value,
        cautions=caution_views(question.cautions),
    )


def diagnosis_view(shown: OpenJob, found: Diagnosis) -> s.DiagnosisView:
    """Return what the findings amount to, and what to do next."""
    advice, model = found.advice, shown.job.model
    repairs = {r.id: r.name for r in model.repairs}
    return s.DiagnosisView(
        suspects=[s.SuspectView.model_validate(x) for x in found.suspects[:SHOWN_SUSPECTS]],
        parts=[s.SuspectView(id=x.id, part=x.id, name=x.name, p=x.p) for x in found.parts],
        moves=[move_view(m, model, shown.unit) for m in advice.moves[:SHOWN_MOVES]],
        mind_changes=[
            s.MindChangeView(question=c.ask, answer=c.label, chance=c.chance, next_repair=repairs.get(c.next_repair, GIVEN_BACK))
            for c in advice.mind_changes[:SHOWN_CHANGES]
        ],
        barred=_barred(advice.barred),
        is_tie=advice.is_tie,
        same_go=[s.SameGoView.model_validate(x) for x in advice.same_go],
        notices=[s.NoticeView(code=n.code, text=n.text, lines=[int(i) for i in n.findings]) for n in found.notices],
        paths=[_path(p, model) for p in found.paths],
        swaps=_swaps(shown, found),
    )


def _barred(barred: Iterable[Barred]) -> list[s.BarredView]:
    """Return what cannot be done, one entry for each reason."""
    found: dict[str, s.BarredView] = {}
    for one in barred:
        found.setdefault(one.why, s.BarredView(why=one.why, titles=[])).titles.append(one.title)
    return list(found.values())


def move_view(move: Move, model: CompiledModel, unit: FullSheet) -> s.MoveView:
    """Return a next move."""
    names = {f.id: f.name for f in model.faults}
    repairs = {r.id: r.name for r in model.repairs}
    return s.MoveView(
        kind=move.kind.value,
        id=move.id,
        title=move.title,
        how=model.questions[move.id].how if move.kind is MoveKind.ASK else "",
        why=move.why,
        expected_cents=cents(move.expected_eur),
        saves_cents=cents(move.saves_eur),
        bench_min=move.bench_min,
        opening_min=move.opening_min,
        part_cents=cents(move.part_eur),
        wait_days=move.wait_days,
        depth=int(move.depth),
        mains=move.mains,
        p_cures=move.p_cures,
        p_lasts_year=move.p_lasts_year,
        cautions=caution_views(move.cautions),
        answers=[
            s.AnswerPreviewView(
                outcome=a.outcome,
                label=a.label,
                chance=a.chance,
                top_fault=names[a.top_fault],
                top_p=a.top_p,
                next_repair=repairs.get(a.next_repair, GIVEN_BACK),
            )
            for a in move.answers
        ],
        repair=move.repair,
        item=move.item,
        source=move.source,
        sheet=s.AtHandView.model_validate(at_question(move.id if move.kind is MoveKind.ASK else "", unit)),
    )


def school_views(shown: OpenJob) -> list[s.SchoolView]:
    """Return what rules of thumb would cost from here."""
    state, model = shown.state, shown.job.model
    repairs = {r.id: r.name for r in model.repairs}
    found = schools_beside(look_ahead(state.case, model, state.belief), state.belief, model)
    return [s.SchoolView(id=x.id, name=x.name, expected_cents=cents(x.expected_eur), first=repairs.get(x.first, GIVEN_BACK)) for x in found]


def _path(path: PathState, model: CompiledModel) -> s.PathView:
    return s.PathView(
        id=path.id,
        title=path.title,
        p=path.p,
        links=[s.LinkView.model_validate(k) for k in path.links],
        next_ask=model.questions[path.next_test].ask if path.next_test else "",
        before=path.splits[0],
        behind=path.splits[1],
    )


def _swaps(shown: OpenJob, found: Diagnosis) -> s.SwapsView:
    names = {r.id: r.name for r in shown.job.model.repairs}
    parts = {p.id: p.name for p in shown.job.model.parts}
    table = found.swaps
    return s.SwapsView(
        rows=[
            s.SwapRowView(
                line=int(r.finding),
                part=parts.get(r.part, r.part),
                repair=names[r.repair],
                item=r.item,
                health=r.health,
                result=r.result,
                p_bad=r.p_bad,
                goes_back=r.goes_back,
                stays=r.stays,
            )
            for r in table.rows
        ],
        parts=[_part(line, names) for line in shown.job.parts.values()],
        items=[s.ItemHealthView.model_validate(i) for i in found.items],
        next_item=table.next_item,
        next_repair=names.get(table.next_repair, ""),
        p_cures=table.p_cures,
        bits=table.bits,
        minutes=table.minutes,
    )


def _part(line: Line, names: dict[str, str]) -> s.PartLineView:
    body = line.body
    known = {k: body[k] for k in ("repair", "item", "health", "works", "fails", "wait_days", "is_donor")}
    return s.PartLineView(line=line.number, name=names[body["repair"]], price_cents=cents(body["price_eur"]), is_taken=bool(body.get("taking")), **known)


def told_look(look: DeeperLook, shown: OpenJob) -> dict[str, Any]:
    """Return the deeper look as it is kept and answered: an :class:`OutlookView` in plain JSON."""
    view = s.OutlookView(
        version=shown.job.version,
        first=move_view(look.first, shown.job.model, shown.unit),
        is_same=look.is_same,
        median_cents=cents(look.outturn.median_eur),
        low_cents=cents(look.outturn.low_eur),
        high_cents=cents(look.outturn.high_eur),
        p_repaired=look.outturn.p_repaired,
    )
    return view.model_dump(mode="json")


def claim_view(entry: Register, model: FaultModel) -> s.ClaimView:
    """Return a rule of thumb with the shop's own counts."""
    return s.ClaimView(
        id=f"{entry.family}_{entry.claim.id}",
        family=entry.family,
        text=entry.claim.text,
        repair=next(r.name for r in model.repairs if r.id == entry.claim.repair),
        limit=entry.claim.helps_at_least,
        counts=[s.ClaimCountView.model_validate(c) for c in entry.counts],
    )
