"""What a trial after one or more changes showed. A part of the shelf that was fitted without being taken first is taken by it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import Any, Final

from spindle.diagnosis.given.case import Trial, TrialResult
from spindle.errors import NotNowError
from spindle.formats.case_file import write_what
from spindle.job.asking import OPEN, AskKind, Decision, LineKind, Needs, Speech, World
from spindle.job.findings import check_vocabulary, fold_finding
from spindle.job.interlocks import check_interlock
from spindle.job.line import Draft, Line
from spindle.job.opening import opened_to
from spindle.job.stages import Stage
from spindle.job.takings import with_pieces
from spindle.job.value import Job
from spindle.words.bench import Mains
from spindle.words.health import HEALTH_NAMES, Health

_RESULTS: Final = {TrialResult.NO_CHANGE: "no change", TrialResult.WORSE: "worse", TrialResult.CHANGED: "part of it changed", TrialResult.CLEAN: "works"}


def _touches(job: Job, ask: Trial) -> set[str]:
    mine = {line.body["item"] for line in job.takings.values()}
    return {c.item.strip().upper() for c in ask.changes if c.item.strip()} - mine


def _decide(job: Job, ask: Trial, world: World) -> Decision:
    check_vocabulary(ask, job)
    if job.stage is Stage.REPAIR and job.is_refused:
        raise NotNowError("The owner did not agree to this repair: go back to Agree.", reason="refused")
    if job.on_trial:
        names = ", ".join(c.item for c in job.on_trial)
        raise NotNowError(f"{names} is in it for trying: answer what it shows, and put the unit's own part back before another trial.", reason="on_trial")
    repairs = [job.model.repairs[job.model.repair_index[c.repair]] for c in ask.changes]
    for repair in repairs:
        check_interlock(job, repair)
    drafts = list(opened_to(job, max(r.depth for r in repairs), world.now))
    changes, more, effects = with_pieces(job, ask.changes, world, line=job.next_number + len(drafts))
    return Decision((*drafts, *more, Draft("trial", write_what(replace(ask, changes=changes)))), effects)


def _says(body: Mapping[str, Any], speech: Speech) -> str:
    names = [_change(c, speech) for c in body["changes"]]
    passes = f", {body['clean_passes']} passes" if body.get("clean_passes", 0) > 1 else ""
    return f"Tried: {' and '.join(names)}: {_RESULTS[TrialResult(body['result'])]}{passes}"


def _change(change: Mapping[str, Any], speech: Speech) -> str:
    model = speech.job.model
    index = model.repair_index.get(change["repair"])
    if index is None:
        return str(change["repair"])
    repair = model.repairs[index]
    tag = f", {change['item']}" if change.get("item") else ""
    stays = ", stays in" if change.get("stays") else ""
    part = f" ({HEALTH_NAMES[Health(change['health'])]} part{tag}{stays})" if repair.uses_item else ""
    return repair.name[0].lower() + repair.name[1:] + part


def _fold(job: Job, line: Line) -> Job:
    """A standing trial is the one that the proof is about; checks and passes begin anew with it."""
    job = fold_finding(job, line)
    if line.number in job.struck:
        return job
    return replace(job, trial_at=len(job.findings) - 1, checks={}, tried={}, left_out={}, passes=0, failed_passes=0)


KIND: Final = LineKind("trial", _says, _fold, (AskKind("trial", Trial, _decide, Needs(OPEN, mains=Mains.LIVE), _touches),), is_finding=True, weighs=True)
