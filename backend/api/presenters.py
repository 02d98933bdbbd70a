"""From a job's state to its view: words, order, rounding. No rule of the job is decided here."""

from __future__ import annotations

from typing import Literal

from apps.drives.models import Sheet
from apps.jobs.lines import line_text
from apps.jobs.record import Line
from apps.jobs.selectors import DayRow, JobState, diagnosis_of
from spindle.bench.classes import matrix_summary
from spindle.diagnosis.evidence.playtime import judge_time
from spindle.diagnosis.explaining.diagnose import Diagnosis
from spindle.diagnosis.explaining.moves import Move, MoveKind
from spindle.diagnosis.given.case import Answer
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.drives.sheet import CLASS_WAVELENGTH_NM, DriveSheet
from spindle.faults.cautions import CAUTIONS
from spindle.faults.model import Question, QuestionKind
from spindle.formats.drive_facts import read_drive
from spindle.job.prompts import PROMPTS
from spindle.job.stages import NAMES, ORDER, Stage, following
from spindle.offers.quote import Quote, offers
from spindle.repairs.library import procedure_for

from . import schemas as s
from .custody import custody_fields
from .isolating import path_view, swaps_view

SHOWN_MOVES = 6
SHOWN_SUSPECTS = 8
STAGE_NAMES = {
    "update_accepted": "Listed",
    "stand_change": "Position",
    "cover_change": "Cover",
    "eject_empty": "Ejects empty",
    "tray_opens_loaded": "Opens loaded",
    "tray_opens_empty": "Opens empty",
    "tray_shuts": "Shuts",
    "knock_helps": "Knock",
    "lid_starts": "Starts",
    "lid_press": "Lid pressed",
    "disc_grip": "Disc grip",
    "power": "Power",
    "wakes": "Wakes",
    "takes_disc": "Takes disc",
    "spins": "Spins, holds",
    "sled_sound": "Sled",
    "nudges_out": "Retries",
    "screen_message": "Message",
    "later_data": "Later data",
    "ejects": "Ejects",
    "repeats": "Repeats",
}
_FINDINGS = ("answer", "trial", "remark")


def _cents(eur: float) -> int:
    return round(eur * 100)


def _cautions(ids: tuple[str, ...]) -> list[s.CautionView]:
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
        cautions=_cautions(question.cautions),
    )


def drive_view(sheet: Sheet) -> s.DriveView:
    """Return the facts of a drive that the screens show."""
    facts = read_drive(sheet.facts, "/drive")
    return s.DriveView(
        maker=sheet.maker,
        console=sheet.console,
        revision=sheet.revision,
        variant=sheet.variant,
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


def job_view(state: JobState, price_cents_per_min: int) -> s.JobView:
    """Return everything that a job's screens show."""
    job, found = state.job, diagnosis_of(state)
    stage = Stage(job.stage)
    return s.JobView(
        tag=job.tag,
        version=job.version,
        stage=stage,
        stages=[s.StageView(id=x, name=NAMES[x], state=_stage_state(x, stage)) for x in ORDER if x is not Stage.CLOSED],
        missing=[s.MissingView(code=m.code, text=m.text) for m in state.missing],
        next_stage="" if stage is Stage.CLOSED else NAMES[following(stage)],
        depth=job.depth,
        is_live=job.is_live,
        power_hold=state.power_hold,
        drive=drive_view(job.sheet),
        owner_name=job.owner_name,
        owner_contact=job.owner_contact,
        complaint=job.complaint,
        condition=[s.ConditionView(id=p.id, choice=c.id, ask=p.ask, label=c.label) for p in PROMPTS for c in p.choices if job.condition.get(p.id) == c.id],
        limit_cents=job.limit_cents,
        supply=job.supply,
        promised_on=job.promised_on,
        taken_in_at=job.taken_in_at,
        bench_min=_bench_min(state),
        tape=_tape(state, found),
        diagnosis=_diagnosis(state, found),
        baseline=_matrix(state, QuestionKind.BASELINE),
        classes=_matrix(state, QuestionKind.DISC_CLASS),
        classes_say=_classes_say(state),
        agree=_agree(state, found, price_cents_per_min),
        procedure=_procedure(state),
        repairs=[s.RepairView(id=r.id, name=r.name, uses_item=r.uses_item) for r in state.model.repairs],
        proof=_proof(state, found),
        **custody_fields(state),
    )


def _stage_state(stage: Stage, now: Stage) -> Literal["done", "now", "ahead"]:
    if stage is now:
        return "now"
    return "done" if ORDER.index(stage) < ORDER.index(now) else "ahead"


def _bench_min(state: JobState) -> float:
    asked = [f.what.question for f in state.record.findings if isinstance(f.what, Answer)]
    return sum(state.model.family_questions[q].bench_min for q in asked)


def _tape(state: JobState, found: Diagnosis) -> list[s.TapeLineView]:
    weights = {w.finding: w for w in found.weights}
    names = {p.id: p.short for p in state.model.parts}
    views = []
    for line in state.record.lines:
        weight = weights.get(str(line.number))
        strike = state.record.strikes.get(line.number)
        views.append(
            s.TapeLineView(
                number=line.number,
                at=line.at,
                by=line.by,
                kind=line.kind,  # type: ignore[arg-type]  # pydantic turns the text into its kind
                question=line.body.get("question", ""),
                text=line_text(line, state.model),
                can_strike=line.kind in _FINDINGS and strike is None,
                struck_by=strike.by if strike else "",
                struck_why=strike.body.get("why", "") if strike else "",
                weights=[s.WeightView(part=p.part, name=names[p.part], db=round(p.db, 1)) for p in (weight.parts if weight else ())],
                left_out=weight.left_out.value if weight and weight.left_out else "",
            )
        )
    return views


def _diagnosis(state: JobState, found: Diagnosis) -> s.DiagnosisView:
    advice, model = found.advice, state.model
    repairs = {r.id: r.name for r in model.repairs}
    changes = [
        s.MindChangeView(question=c.ask, answer=c.label, chance=c.chance, next_repair=repairs.get(c.next_repair, "Hand it back"))
        for c in advice.mind_changes[:3]
    ]
    return s.DiagnosisView(
        suspects=[s.SuspectView(id=x.id, part=x.part, name=x.name, p=x.p) for x in found.suspects[:SHOWN_SUSPECTS]],
        parts=[s.SuspectView(id=x.id, part=x.id, name=x.name, p=x.p) for x in found.parts],
        moves=[move_view(m, model) for m in advice.moves[:SHOWN_MOVES]],
        schools=[s.SchoolView(id=x.id, name=x.name, expected_cents=_cents(x.expected_eur), first=repairs.get(x.first, "Hand it back")) for x in advice.schools],
        mind_changes=changes,
        best_repair=repairs.get(advice.best_repair, ""),
        is_tie=advice.is_tie,
        notices=[s.NoticeView(code=n.code, text=n.text, lines=[int(i) for i in n.findings]) for n in found.notices],
        paths=[path_view(p, model) for p in found.paths],
        swaps=swaps_view(state, found),
    )


def move_view(move: Move, model: CompiledModel) -> s.MoveView:
    """Return a next move."""
    names = {f.id: f.name for f in model.faults}
    repairs = {r.id: r.name for r in model.repairs}
    return s.MoveView(
        kind=move.kind.value,
        id=move.id,
        title=move.title,
        how=model.questions[move.id].how if move.kind is MoveKind.ASK else "",
        why=move.why,
        expected_cents=_cents(move.expected_eur),
        saves_cents=_cents(move.saves_eur),
        step_cents=_cents(move.step_eur),
        bench_min=move.bench_min,
        opening_min=move.opening_min,
        part_cents=_cents(move.part_eur),
        wait_days=move.wait_days,
        depth=int(move.depth),
        mains=move.mains,
        p_cures=move.p_cures,
        cautions=_cautions(move.cautions),
        answers=[
            s.AnswerPreviewView(
                outcome=a.outcome,
                label=a.label,
                chance=a.chance,
                top_fault=names[a.top_fault],
                top_p=a.top_p,
                next_repair=repairs.get(a.next_repair, "Hand it back"),
            )
            for a in move.answers
        ],
        repair=move.repair,
        item=move.item,
        source=move.source,
    )


def _matrix(state: JobState, kind: QuestionKind) -> list[s.BaselineView]:
    given = {f.what.question: f.what for f in state.record.findings if isinstance(f.what, Answer) and not f.is_struck}
    asked = sorted((q for q in state.model.model.questions if q.kind is kind), key=lambda q: q.order)
    return [
        s.BaselineView(
            question=question_view(q),
            name=STAGE_NAMES.get(q.id, q.id.replace("_", " ")),
            nm=CLASS_WAVELENGTH_NM.get(q.id),
            is_supported=q.id in state.model.questions,
            reference_s=_reference_s(q.id, state.model.sheet),
            answer=_given(given.get(q.id), q, state.model.sheet),
        )
        for q in asked
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


def _classes_say(state: JobState) -> str:
    given = {f.what.question: f.what.outcome for f in state.record.findings if isinstance(f.what, Answer) and not f.is_struck}
    return matrix_summary({q: o for q, o in given.items() if q in CLASS_WAVELENGTH_NM}, state.model.sheet)


def _agree(state: JobState, found: Diagnosis, price: int) -> s.AgreeView:
    proposal = state.record.proposal
    return s.AgreeView(
        offers=[_quote(o, state.model) for o in offers(found.advice.moves, state.model, price_cents_per_min=price)],
        proposal=s.ProposalView.model_validate(proposal, from_attributes=True) if proposal else None,
        consents=[_consent(c) for c in state.record.consents],
        agreed_cents=state.facts.agreed_cents,
        needs_consent=state.facts.needs_consent,
    )


def _quote(offer: Quote, model: CompiledModel) -> s.QuoteView:
    procedure = procedure_for(model.sheet.family, offer.repair)
    return s.QuoteView(
        repair=offer.repair,
        name=offer.name,
        labour_min=offer.labour_min,
        labour_cents=offer.labour_cents,
        part_cents=offer.part_cents,
        wait_days=offer.wait_days,
        total_cents=offer.total_cents,
        p_success=offer.p_success,
        guarantee_days=procedure.guarantee_days,
        alters_unit=procedure.alters_unit,
    )


def _consent(line: Line) -> s.ConsentView:
    return s.ConsentView(**line.body, at=line.at, recorded_by=line.by)


def _procedure(state: JobState) -> s.ProcedureView | None:
    own = state.procedure
    if own is None:
        return None
    repair = state.model.repairs[state.model.repair_index[own.repair]]
    done = state.record.steps
    trial = state.record.trial_since_proposal
    steps = [
        s.StepView(
            text=step.text,
            mains=step.mains.value,
            cautions=_cautions(step.cautions),
            is_done=trial is not None if step.is_trial else n in done,
            is_trial=step.is_trial,
            reads_fuse=step.reads_fuse,
            done_by=done[n].by if n in done else "",
        )
        for n, step in enumerate(state.steps)
    ]
    return s.ProcedureView(
        repair=own.repair,
        name=repair.name,
        skill=own.skill,
        tools=list(own.tools),
        transfers=list(own.transfers),
        proves=own.proves,
        goes_wrong=own.goes_wrong,
        fuse_rating=state.model.sheet.fuse_rating,
        uses_item=repair.uses_item,
        steps=steps,
        trial=trial.result.value if trial else "",
        can_worsen=bool(repair.worsens),
    )


def _proof(state: JobState, found: Diagnosis) -> s.ProofView:
    states = {True: "passed", False: "failed", None: "open"}
    return s.ProofView(
        checks=[s.CheckView(id=c.id, title=c.title, how=c.how, state=states[state.record.checks.get(c.id)]) for c in state.checks],  # type: ignore[arg-type]
        passes=state.record.passes,
        passes_needed=state.passes_needed,
        p_fixed=state.p_fixed,
        p_fail_per_try=found.ending.p_shows,
        verdict=found.ending.verdict if state.p_fixed else "",  # type: ignore[arg-type]  # pydantic checks the word
        says=found.ending.says if state.p_fixed else "",
    )


def day_row_view(row: DayRow) -> s.DayRowView:
    """Return one job of the day."""
    job = row.job
    return s.DayRowView(
        tag=job.tag,
        console=f"{job.sheet.maker} {job.sheet.console}",
        variant=job.sheet.variant,
        owner_name=job.owner_name,
        complaint=job.complaint,
        stage=Stage(job.stage),
        stage_name=NAMES[Stage(job.stage)],
        promised_on=job.promised_on,
        waits_for=row.waits_for,
        is_live=job.is_live,
    )
