"""What is proposed to the owner: a repair with its price and chance, or ("") to hand the unit back as it is."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict, dataclass, replace
from typing import Any, Final

from spindle.errors import InvalidError, NotFoundError
from spindle.job.asking import AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.effects import Unwant, Want
from spindle.job.interlocks import check_interlock
from spindle.job.line import Line
from spindle.job.stages import Stage
from spindle.job.state import bench_of, case_of
from spindle.job.value import Job, Proposal
from spindle.offers.ends import ENDS, UNREPAIRED, price_cents
from spindle.offers.quote import offer_for
from spindle.words.bounds import WordOrNone
from spindle.words.money import money


@dataclass(frozen=True, slots=True)
class Propose:
    """Propose a repair; an empty one is to hand the unit back, by the end that is named, or as it is."""

    repair: WordOrNone
    end: WordOrNone = ""


def _decide(job: Job, ask: Propose, world: World) -> Decision:
    if not ask.repair:
        return _ending(ask.end or UNREPAIRED, job, world)
    if ask.end:
        raise InvalidError("end", "A repair has its end in the proof: name an end only where nothing is repaired.")
    if ask.repair not in job.model.repair_index:
        raise NotFoundError(f"This drive has no repair {ask.repair!r}.")
    check_interlock(job, job.model.repairs[job.model.repair_index[ask.repair]])
    case = case_of(job, world.economy, world.stock(), bench_of(job, world.now, world.lacks))
    offer, is_advised = offer_for(ask.repair, case, job.model, price_cents_per_min=world.price_cents_per_min)
    body = {**asdict(offer), "total_cents": job.charged(offer.total_cents), "is_advised": is_advised}
    has_one = any(line.body["repair"] == ask.repair for line in job.takings.values())
    return one("proposal", body, Unwant() if has_one else Want(ask.repair, offer.p_success))


def _ending(word: str, job: Job, world: World) -> Decision:
    if word not in ENDS:
        raise InvalidError("end", f"There is no end {word!r}; there are {', '.join(ENDS)}.")
    body = {"repair": "", "end": word, "name": ENDS[word].proposed, "total_cents": job.charged(price_cents(word, world.price_cents_per_min)), "p_success": 0.0}
    return one("proposal", body, Unwant())


def _fold(job: Job, line: Line) -> Job:
    """Steps, checks, passes and the trial belong to the proposal that they follow."""
    b = line.body
    proposal = Proposal(
        b["repair"],
        b["name"],
        b["total_cents"],
        b["p_success"],
        b.get("is_advised", False),
        line.number,
        b.get("p_lasts_year"),
        "" if b["repair"] else b.get("end", UNREPAIRED),
    )
    return replace(job, proposal=proposal, steps={}, checks={}, tried={}, left_out={}, passes=0, failed_passes=0, trial_at=-1, owner_wants=None)


def _says(body: Mapping[str, Any], speech: Speech) -> str:
    price = f", {money(body['total_cents'], speech.sign)}" if body["repair"] or body["total_cents"] else ""
    name = body["name"] if body["repair"] else ENDS[body.get("end", UNREPAIRED)].proposed
    return f"Proposed: {name}{price}"


KIND: Final = LineKind("proposal", _says, _fold, (AskKind("propose", Propose, _decide, Needs(frozenset({Stage.ISOLATE, Stage.AGREE}))),))
