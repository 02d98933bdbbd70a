"""Views of practice, without a rule."""

from __future__ import annotations

from itertools import accumulate
from typing import Any

from api.drives.views import facts_view
from api.jobs.diagnosis_schemas import SuspectView
from api.practice import schemas as s
from apps.practice.models import Run
from apps.practice.selectors import InClass, Learnt, OwnDrive, opening_of_run, session_of
from spindle.bench.opening.order import steps_between
from spindle.bench.opening.steps import Opening
from spindle.diagnosis.planning.plan import part_terms
from spindle.diagnosis.planning.problem import depth_in, is_live_in
from spindle.faults.cautions import CAUTIONS
from spindle.faults.model import Question, QuestionKind
from spindle.practice.advice import careful, part_name, suspects_of, with_care
from spindle.practice.debrief import step_of
from spindle.practice.donors import donor_of
from spindle.practice.hands import hand_minutes, shuts
from spindle.practice.meter import POINTS
from spindle.practice.state import Done, Session, look_cost, needs_board, repair_cost
from spindle.practice.traps import NAMES
from spindle.repairs.procedure import steps_from
from spindle.repairs.procedures import procedure_for
from spindle.words.bench import DEPTH_NAMES, Depth

SUSPECTS = 5
"""So many are shown, as on the bench."""
_FIRST = {QuestionKind.BASELINE: "What the drive does", QuestionKind.DISC_CLASS: "Discs"}


def lesson_view(x: Learnt) -> s.LessonView:
    """Return a lesson with how far somebody is."""
    own = x.lesson
    return s.LessonView(
        id=own.id,
        number=own.number,
        name=own.name,
        family=own.family,
        teaches=own.teaches,
        tries=x.tries,
        is_mastered=x.is_mastered,
        best_times=x.best_times,
        open_run=x.open_run,
    )


def own_drive_view(x: OwnDrive) -> s.OwnDriveView:
    """Return a drive of the shop's that lessons can be played on."""
    return s.OwnDriveView(sheet=x.sheet.pk, name=str(x.sheet), lessons=list(x.lessons))


def in_class_view(x: InClass) -> s.InClassView:
    """Return one person of the class."""
    return s.InClassView(name=x.name, mastered=list(x.mastered), tries=x.tries, mean_times=x.mean_times, traps=[f"{NAMES[t]} ({n})" for t, n in x.traps])


def run_view(run: Run) -> s.PracticeRunView:
    """Return a practice unit as it stands."""
    at = session_of(run)
    return s.PracticeRunView(
        id=run.pk,
        lesson=at.lesson.id,
        name=at.lesson.name,
        number=at.lesson.number,
        family=at.lesson.family,
        drive=str(run.sheet) if run.sheet else "",
        sheet=run.sheet_id,
        tells_each=run.tells_each,
        is_led=run.is_led,
        moves=len(run.moves),
        told=[_told(at, q, o) for q, o in at.hidden.told.items()],
        is_live=is_live_in(at.at.state),
        ways=_ways(at, opening_of_run(run)),
        advice=_advice(at) if run.is_led and not at.is_over else None,
        cents=_cents(at.cost_eur),
        minutes=at.minutes,
        is_clean=at.is_clean,
        may_guess=at.guess is None and not at.has_repaired,
        may_play=at.may_play,
        is_over=at.is_over,
        guess=f"{part_name(at, at.guess[0])}, {at.guess[1]} percent" if at.guess else "",
        parts=[s.PracticePartView(id=p.id, name=p.name) for p in at.ready.model.parts if p.id not in ("handling", "unlisted")],
        looks=[] if at.is_over else _looks(at),
        repairs=[] if at.is_over else _repairs(at),
        log=[_log(d, at, since) for d, since in zip(at.done, accumulate(d.minutes for d in at.done), strict=True)],
        score=_score(run.score, at) if run.score else None,
    )


def _log(done: Done, at: Session, at_min: float) -> s.PracticeLogView:
    step = step_of(done, at)
    beside = None
    if at.is_judged and done.beside is not None:
        best = None if done.beside.best is None else step.best
        beside = s.PracticeBesideView(best=best, regret_cents=_cents(step.regret_eur), traps=list(step.traps))
    return s.PracticeLogView(did=step.did, says=done.says, mishap=done.mishap, cents=_cents(done.eur), at_min=at_min, beside=beside)


def _cents(eur: float) -> int:
    return round(100 * eur)


def _told(at: Session, question: str, outcome: str) -> str:
    found = at.ready.model.family_questions[question].outcome(outcome)
    return found.line if found else outcome


def _advice(at: Session) -> s.PracticeAdviceView:
    move, (suspects, parts) = careful(at), suspects_of(at)
    return s.PracticeAdviceView(
        says=with_care(move, at),
        do=move.do,
        what=move.what,
        care=sorted(move.care),
        drive=facts_view(at.ready.model.sheet),
        suspects=[SuspectView.model_validate(x) for x in suspects[:SUSPECTS]],
        parts=[SuspectView.model_validate(x) for x in parts],
    )


def _ways(at: Session, opening: Opening) -> list[s.PracticeWayView]:
    now = Depth(depth_in(at.at.state))
    return [
        s.PracticeWayView(
            depth=depth.name.lower(),
            name=DEPTH_NAMES[depth],
            is_now=depth is now,
            is_shutting=shuts(now, depth),
            minutes=hand_minutes(at, depth),
            steps=[x.name for x in steps_between(opening, now, depth)],
        )
        for depth in Depth
    ]


def _looks(at: Session) -> list[s.PracticeLookView]:
    found = []
    for n, asked in enumerate(at.ready.plan.asks):
        question = asked.question
        if question is not None:
            eur, minutes = look_cost(at, n)
            said = question.outcome(at.answers.get(asked.id, ""))
            answer = at.readings.get(asked.id, said.line if said else "")
            look = s.PracticeLookView(
                id=asked.id,
                ask=question.ask,
                how=question.how,
                group=_group(question),
                cents=_cents(eur),
                minutes=minutes,
                answer=answer,
                cautions=[CAUTIONS[c].short for c in question.cautions],
                tips=_tips(asked.id),
            )
            found.append(look)
    return found


def _tips(question: str) -> s.PracticeTipsView | None:
    point = POINTS.get(question)
    return s.PracticeTipsView(points=point.points, limit=point.limit) if point else None


def _group(question: Question) -> str:
    return _FIRST.get(question.kind, DEPTH_NAMES[question.depth])


def _repairs(at: Session) -> list[s.PracticeTryView]:
    found = []
    for n, repair in enumerate(at.ready.plan.repairs):
        (eur, minutes), donor = repair_cost(at, n), donor_of(at, n)
        price_eur, wait_days = part_terms(repair, at.ready.model)
        found.append(
            s.PracticeTryView(
                id=repair.id,
                name=repair.name,
                part=part_name(at, repair.part),
                cents=_cents(eur),
                minutes=minutes,
                part_cents=_cents(price_eur),
                wait_days=wait_days,
                is_wet=repair.wet,
                brings_board=needs_board(at, repair.id),
                donor_cents=_cents(donor.eur) if donor else None,
                tried=at.tried.count(repair.id),
                steps=_steps(at, repair.id),
                goes_wrong=procedure_for(at.lesson.family, repair.id).goes_wrong,
            )
        )
    return found


def _steps(at: Session, repair: str) -> list[s.PracticeDoView]:
    """Return how it is done from here, each step with what can hurt at it."""
    steps = steps_from(procedure_for(at.lesson.family, repair), Depth(depth_in(at.at.state)))
    return [s.PracticeDoView(text=x.text, cautions=[CAUTIONS[c].short for c in x.cautions]) for x in steps]


def _score(kept: dict[str, Any], at: Session) -> s.PracticeScoreView:
    return s.PracticeScoreView(
        cents=_cents(kept["cost_eur"]),
        minutes=kept["minutes"],
        planner_cents=_cents(kept["planner_eur"]),
        planner_minutes=kept["planner_minutes"],
        is_repaired=kept["is_repaired"],
        is_mastered=kept["is_mastered"],
        needless=kept["needless"],
        risks=kept["risks"],
        hints=kept["hints"],
        guess=kept["guess"],
        hidden=list(kept["hidden"]),
        steps=[
            s.PracticeStepView(did=x["did"], says=x["says"], mishap=x["mishap"], regret_cents=_cents(x["regret_eur"]), best=x["best"], traps=list(x["traps"]))
            for x in kept["steps"]
        ],
        teaches=at.lesson.teaches,
    )
