"""Moving a job along: forwards only when nothing is missing, backwards with a reason."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from apps.errors import InvalidError, NotFoundError, NotNowError
from apps.jobs.models import Job
from apps.jobs.selectors import diagnosis_of, job_state
from apps.jobs.services.parts import settle_parts
from apps.jobs.services.writing import Command, Writing, writing
from apps.people.permissions import Action
from apps.shelf.services.for_jobs import drop_want, set_want
from apps.shop.selectors import the_shop
from spindle.diagnosis.belief.posterior import chance_of
from spindle.diagnosis.planning.problem import plan_for
from spindle.job.stages import NAMES, Stage, following, may_return
from spindle.offers.quote import quote

_WHO = {Stage.TAKEN_IN: Action.TAKE_IN, Stage.AGREE: Action.AGREE, Stage.HAND_BACK: Action.HAND_BACK}


def advance(command: Command, stage: Stage) -> Job:
    """Leave ``stage`` for the next one.

    Raises
    ------
    NotNowError
        If the job is not in that stage, or something is missing; says what.
    """
    with writing(command, _WHO.get(stage, Action.BENCH), "advance", {"stage": stage.value}) as write:
        if not write.is_replay:
            if Stage(write.job.stage) is not stage:
                raise NotNowError(f"The job is at {NAMES[Stage(write.job.stage)]}, not at {NAMES[stage]}.", reason="other_stage")
            left = job_state(write.job, lines=list(write.record.lines), with_shelf=False).missing
            if left:
                raise NotNowError(
                    f"{NAMES[stage]} cannot be left yet: {left[0].text}", reason="missing", missing=[{"code": m.code, "text": m.text} for m in left]
                )
            _move(write, following(stage))
            if following(stage) is Stage.CLOSED:
                settle_parts(write)
                drop_want(write.job.pk)
    return write.job


def go_back(command: Command, to: Stage, why: str) -> Job:
    """Go back to an earlier stage, with a reason for the tape.

    Raises
    ------
    NotNowError
        If ``to`` is not an earlier stage of an open job.
    """
    with writing(command, Action.BENCH, "go_back", {"to": to.value, "why": why}) as write:
        if not write.is_replay:
            if not may_return(Stage(write.job.stage), to):
                raise NotNowError(f"From {NAMES[Stage(write.job.stage)]} a job cannot go back to {NAMES[to]}.", reason="order")
            _move(write, to, why=why)
    return write.job


def propose(command: Command, repair_id: str) -> Job:
    """Propose a repair to the owner, or ("") to hand the unit back as it is.

    Raises
    ------
    NotFoundError
        If this drive has no such repair.
    NotNowError
        If the job is neither being isolated nor agreed.
    """
    with writing(command, Action.BENCH, "propose", {"repair": repair_id}) as write:
        if not write.is_replay:
            if Stage(write.job.stage) not in (Stage.ISOLATE, Stage.AGREE):
                raise NotNowError("A repair is proposed while isolating or agreeing.", reason="other_stage")
            if repair_id and repair_id not in write.model.repair_index:
                raise NotFoundError(f"This drive has no repair {repair_id!r}.")
            body = _offer_body(write, repair_id)
            write.append("proposal", body)
            if any(line.body["repair"] == repair_id for line in write.record.takings.values()):
                drop_want(write.job.pk)
            else:
                set_want(write.job.pk, repair_id, body["p_success"], write.at)
    return write.job


def _offer_body(write: Writing, repair_id: str) -> dict[str, Any]:
    if not repair_id:
        return {"repair": "", "name": "Hand it back as it is", "total_cents": 0, "p_success": 0.0}
    model = write.model
    state = job_state(write.job, lines=list(write.record.lines))
    first = diagnosis_of(state).advice.moves[0]
    p_success = chance_of(repair_id, state.case.findings, model)
    source = plan_for(model, state.case.economy, stock=state.case.stock).sources[model.repair_index[repair_id]]
    terms = None if source is None else (source.price_eur, source.wait_days)
    offer = quote(repair_id, p_success, model, price_cents_per_min=the_shop().price_cents_per_min, terms=terms)
    return {**asdict(offer), "total_cents": offer.total_cents, "is_advised": first.id == repair_id}


def record_consent(command: Command, *, is_agreed: bool, amount_cents: int, by_name: str, how: str) -> Job:
    """Record what the owner agreed to, who said it and how.

    Raises
    ------
    InvalidError
        If nobody's name is given.
    """
    body = {"is_agreed": is_agreed, "amount_cents": amount_cents, "by_name": by_name.strip(), "how": how.strip()}
    if not body["by_name"]:
        raise InvalidError("by_name", "Who agreed? Write down the name.")
    with writing(command, Action.AGREE, "consent", body) as write:
        if not write.is_replay:
            if write.record.proposal is None:
                raise NotNowError("Nothing has been proposed yet.", reason="no_proposal")
            write.append("consent", body)
    return write.job


def _move(write: Writing, to: Stage, *, why: str = "") -> None:
    write.append("stage", {"from": write.job.stage, "to": to.value, "depth": write.job.depth, "why": why})
    write.job.stage = to.value
