"""From a job's state to its view: words, order, rounding. No query is made and no rule of the job decided here."""

from __future__ import annotations

from collections.abc import Mapping
from functools import lru_cache
from typing import Final, Literal

from api.drives.views import drive_view
from api.jobs import counter_schemas as counter
from api.jobs import diagnosis_schemas as d
from api.jobs import schemas as s
from api.jobs.custody_views import custody_fields
from api.jobs.diagnosis_schemas import WeightView
from api.jobs.diagnosis_views import diagnosis_view, question_view
from api.jobs.mat_schemas import PhotoView
from api.jobs.mat_views import mat_brief
from api.jobs.work_views import procedure_view, proof_view
from apps.jobs.selectors import OpenJob
from spindle.bench.classes import matrix_summary
from spindle.bench.tools.catalogue import measurable
from spindle.diagnosis.evidence.playtime import judge_time
from spindle.diagnosis.explaining.configurations import places, to_ask_again
from spindle.diagnosis.explaining.diagnose import Diagnosis, PartWeight, diagnose
from spindle.diagnosis.given.case import Answer
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.drives.levels import LEVEL_OF_REPAIR, LEVELS
from spindle.drives.sheet import CLASS_WAVELENGTH_NM, NAMED_CLASSES, DriveSheet
from spindle.faults.model import SOUND_PART, Question, QuestionKind, Repair
from spindle.job.asking import Speech
from spindle.job.hazards import Bars
from spindle.job.ledger import KINDS, says
from spindle.job.line import Line
from spindle.job.prompts import PROMPTS
from spindle.job.stages import NAMES, ORDER, Stage, following
from spindle.offers.ends import ENDS, price_cents
from spindle.offers.handing_back import likeliest_end
from spindle.offers.quote import Quote, offers
from spindle.repairs.procedures import procedure_for

KEPT_MODELS: Final = 256
"""Drives of which it is kept how their questions and repairs are shown: nothing that happens to a job changes it."""


def job_view(shown: OpenJob, *, is_new: bool = False) -> s.JobView:
    """Return everything that a job's screens show."""
    job, state = shown.job, shown.state
    found = diagnose(state.case, job.model, belief=state.belief, ending=state.ending)
    return s.JobView(
        tag=job.tag,
        version=job.version,
        stage=job.stage,
        stages=[s.StageView(id=x, name=NAMES[x], state=_stage_state(x, job.stage)) for x in ORDER if x is not Stage.CLOSED],
        missing=[s.MissingView.model_validate(m) for m in state.missing],
        next_stage="" if job.stage is Stage.CLOSED else NAMES[following(job.stage)],
        depth=int(job.depth),
        power=job.power.value,
        hazards=[s.HazardView.model_validate(h) for h in job.hazards(shown.now)],
        waits=[s.HazardView.model_validate(h) for h in job.hazards(shown.now, None) if h.bars is not Bars.POWER],
        wet=[p.name for p in job.model.parts if p.id in job.wet],
        drive=drive_view(shown.row.sheet),
        owner_name=job.notes.owner_name,
        owner_contact=job.notes.owner_contact,
        complaint=job.notes.complaint,
        condition=_condition(job.notes.condition),
        limit_cents=job.notes.limit_cents,
        supply=job.notes.supply,
        promised_on=job.notes.promised_on,
        bench_min=sum(job.model.family_questions[f.what.question].bench_min for f in job.findings if isinstance(f.what, Answer)),
        tape=_tape(shown, found),
        diagnosis=diagnosis_view(shown, found),
        baseline=_matrix(shown, QuestionKind.BASELINE),
        classes=_matrix(shown, QuestionKind.DISC_CLASS),
        classes_say=matrix_summary({q: o.outcome for q, o in state.belief.evidence.said.items() if q in CLASS_WAVELENGTH_NM}, job.model.sheet),
        agree=_agree(shown, found),
        procedure=procedure_view(shown),
        repairs=_repairs(job.model),
        proof=proof_view(shown, found),
        configuration=_configuration(shown),
        measurable=sorted(measurable(job.model.questions)),
        told=[counter.ToldView(at=line.at, by=line.by, **line.body) for line in job.told],
        paid=counter.PaidView(at=job.paid.at, by=job.paid.by, **job.paid.body) if job.paid else None,
        collected_by=job.collected.body["by_name"] if job.collected else "",
        voided=job.voided.body["why"] if job.voided else "",
        returns=counter.ReturnView(tag=job.notes.returns, is_covered=job.notes.is_covered) if job.notes.returns else None,
        guarantee_until=shown.row.guarantee_until,
        ticks=sorted(job.ticks),
        mat=mat_brief(job),
        sounds=len(job.sounds),
        photos=[PhotoView.model_validate(p) for p in job.photos.values()],
        owner_asks=job.owner_asks,
        is_new=is_new,
        **custody_fields(shown),
    )


@lru_cache(maxsize=KEPT_MODELS)
def _repairs(model: CompiledModel) -> list[s.RepairView]:
    return [_repair(r, model.sheet.family) for r in model.repairs]


def _repair(repair: Repair, family: str) -> s.RepairView:
    takes = LEVELS[LEVEL_OF_REPAIR[repair.id]].name if repair.uses_item else ""
    alters = procedure_for(family, repair.id).alters_unit if repair.only_after else ""
    return s.RepairView(id=repair.id, name=repair.name, uses_item=repair.uses_item, takes=takes, alters=alters)


def _configuration(shown: OpenJob) -> d.ConfigurationView:
    job = shown.job
    names = {c.repair: LEVELS[LEVEL_OF_REPAIR[c.repair]].name for c in job.on_trial}
    return d.ConfigurationView(
        places=[d.PlaceNowView.model_validate(p) for p in places(job.on_trial, job.model.sheet.family)],
        on_trial=[d.OnTrialView(repair=c.repair, name=names[c.repair], item=c.item, health=c.health) for c in job.on_trial],
        asks=[question_view(q) for q in to_ask_again(shown.state.belief, job.on_trial)] if job.on_trial else [],
    )


def _condition(noted: Mapping[str, str]) -> list[s.ConditionView]:
    return [s.ConditionView(id=p.id, choice=c.id, ask=p.ask, label=c.label) for p in PROMPTS for c in p.choices if noted.get(p.id) == c.id]


def _stage_state(stage: Stage, now: Stage) -> Literal["done", "now", "ahead"]:
    if stage is now:
        return "now"
    return "done" if ORDER.index(stage) < ORDER.index(now) else "ahead"


def _tape(shown: OpenJob, found: Diagnosis) -> list[s.TapeLineView]:
    weights = {w.finding: w for w in found.weights}
    names = {p.id: p.short for p in shown.job.model.parts}
    speech = shown.speech
    return [_line(line, shown, speech, weights.get(str(line.number)), names) for line in shown.job.lines]


def _line(line: Line, shown: OpenJob, speech: Speech, weight: object, names: dict[str, str]) -> s.TapeLineView:
    strike = shown.job.struck.get(line.number)
    moved, left_out = getattr(weight, "parts", ()), getattr(weight, "left_out", None)
    return s.TapeLineView(
        number=line.number,
        at=line.at,
        by=line.by,
        kind=line.kind,
        is_finding=KINDS[line.kind].is_finding,
        weighs=KINDS[line.kind].weighs,
        question=line.body.get("question", ""),
        text=says(line, speech),
        struck_by=strike.by if strike else "",
        struck_why=strike.body.get("why", "") if strike else "",
        weights=[WeightView(part=p.part, name=names[p.part], db=round(p.db, 1)) for p in moved if _is_told(p)],
        left_out=left_out.value if left_out else "",
    )


def _is_told(weight: PartWeight) -> bool:
    """Tell whether a weight stands on the tape: that a failure speaks against "nothing wrong" goes without saying."""
    return weight.part != SOUND_PART or weight.db > 0.0


@lru_cache(maxsize=2 * KEPT_MODELS)
def _spoken_of(model: CompiledModel, kind: QuestionKind) -> list[tuple[Question, d.QuestionView]]:
    asked = (q for q in model.family_questions.values() if q.kind is kind and (q.id not in NAMED_CLASSES or q.id in model.questions))
    return [(q, question_view(q)) for q in sorted(asked, key=lambda q: q.order)]


def _matrix(shown: OpenJob, kind: QuestionKind) -> list[s.BaselineView]:
    model, given = shown.job.model, shown.job.said
    return [
        s.BaselineView(
            question=view,
            name=q.name,
            nm=CLASS_WAVELENGTH_NM.get(q.id),
            is_supported=q.id in model.questions,
            reference_s=_reference_s(q.id, model.sheet),
            answer=_given(given.get(q.id), q, model.sheet),
        )
        for q, view in _spoken_of(model, kind)
    ]


def _reference_s(question: str, sheet: DriveSheet) -> float | None:
    reference = sheet.reference_times.get(question)
    return None if reference is None else reference.mean_s


def _given(answer: Answer | None, question: Question, sheet: DriveSheet) -> s.GivenAnswer | None:
    if answer is None:
        return None
    outcome = question.outcome(answer.outcome)
    reference = sheet.reference_times.get(question.id)
    return s.GivenAnswer(
        outcome=answer.outcome,
        label=outcome.label if outcome else "Can't tell",
        is_failure=answer.outcome in question.fails,
        tries=answer.tries,
        failed=answer.failed,
        seconds=answer.seconds,
        time_says=judge_time(answer.seconds, reference).says if answer.seconds and reference else "",
    )


def _agree(shown: OpenJob, found: Diagnosis) -> s.AgreeView:
    job, model = shown.job, shown.job.model
    return s.AgreeView(
        offers=[_quote(o, shown) for o in offers(found.advice.moves, model, price_cents_per_min=shown.shop.price_cents_per_min)],
        ends=_ends(shown),
        proposal=s.ProposalView.model_validate(job.proposal) if job.proposal else None,
        consents=[s.ConsentView(**line.body, at=line.at, recorded_by=line.by) for line in job.consents],
        agreed_cents=shown.state.facts.agreed_cents,
        needs_consent=shown.state.facts.needs_consent,
    )


def _ends(shown: OpenJob) -> list[s.EndView]:
    likeliest = likeliest_end(shown.state.belief, shown.job.model)
    rate = shown.shop.price_cents_per_min
    return [
        s.EndView(id=e, name=x.name, says=x.cause or x.guarantee, total_cents=shown.job.charged(price_cents(e, rate)), is_likeliest=e == likeliest)
        for e, x in ENDS.items()
    ]


def _quote(offer: Quote, shown: OpenJob) -> s.QuoteView:
    procedure = procedure_for(shown.job.model.sheet.family, offer.repair)
    return s.QuoteView(
        repair=offer.repair,
        name=offer.name,
        labour_min=offer.labour_min,
        labour_cents=offer.labour_cents,
        part_cents=offer.part_cents,
        wait_days=offer.wait_days,
        total_cents=shown.job.charged(offer.total_cents),
        p_success=offer.p_success,
        p_lasts_year=offer.p_lasts_year,
        guarantee_days=shown.shop.guarantee(procedure.guarantee_days),
        alters_unit=procedure.alters_unit,
    )
