"""What a job's screens show beside the value itself, and what its stage still needs: computed, never kept."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Final

from spindle.bench.classes import classes_to_try
from spindle.bench.opening.mat import left_open
from spindle.bench.proof import ProofCheck, proof_profile
from spindle.diagnosis.belief.ending import CONFIDENCE, Ending, judge_ending, tries_to_be_sound
from spindle.diagnosis.belief.posterior import Belief, believe
from spindle.diagnosis.evidence.gather import baseline_failures
from spindle.diagnosis.given.case import Answer, Bench, Case, Stock, Trial
from spindle.diagnosis.given.economy import Economy
from spindle.drives.levels import LEVEL_OF_REPAIR, LEVELS
from spindle.drives.sheet import Pairing
from spindle.drives.swap_plan import swap_plan
from spindle.faults.model import QuestionKind
from spindle.formats.case_file import read_stock
from spindle.job.hazards import END_OF_TIME, HAZARDS
from spindle.job.line import Line
from spindle.job.prompts import open_prompts
from spindle.job.stages import Acts, JobFacts, Missing, Stage, missing
from spindle.job.value import Job
from spindle.offers.ends import ENDS
from spindle.offers.handing_back import Cause, cause_of, confirmed_cause
from spindle.repairs.procedure import Procedure, Step, by_plan, steps_from
from spindle.repairs.procedures import procedure_on
from spindle.words.bench import Instrument, Power
from spindle.words.known import Known

_SEEN_KINDS = (QuestionKind.INTAKE, QuestionKind.BASELINE, QuestionKind.DISC_CLASS)


REPAIRED: Final = "Repaired"
SERVICED: Final = "Serviced"


@dataclass(frozen=True)
class JobState:
    """A job with everything that follows from it."""

    job: Job
    case: Case
    belief: Belief
    ending: Ending
    facts: JobFacts
    missing: tuple[Missing, ...]
    procedure: Procedure | None
    steps: tuple[Step, ...]
    checks: tuple[ProofCheck, ...]

    @property
    def p_fixed(self) -> float:
        """P(cured); 0 unless the trial since the proposal is clean."""
        return self.ending.p_cured if self.job.is_trial_clean else 0.0

    @property
    def is_service(self) -> bool:
        """True if something was renewed or cleaned that nothing was seen wrong with: a service has no cause, and nothing to be cured."""
        return self.job.is_trial_clean and not any(o.is_seen_failing for o in self.belief.evidence.said.values())

    @property
    def verdict(self) -> str:
        """How the job comes out, as the owner is told it."""
        if self.job.proposal is not None and self.job.proposal.end:
            return ENDS[self.job.proposal.end].verdict
        if self.is_service:
            return SERVICED
        return REPAIRED if self.p_fixed > 0 else "Not repaired yet"

    @property
    def cause(self) -> Cause:
        """The cause as the owner is told it; a service has none."""
        if self.verdict == SERVICED:
            return Cause("No fault was seen with this drive: what was done is upkeep.")
        told = self.job.confirmed.body if self.job.confirmed is not None and self.job.is_trial_clean else {"fault": ""}
        if told["fault"] in self.job.model.fault_index:
            return confirmed_cause(told["fault"], Known(told["by"]), self.job.model)
        return cause_of(self.belief, self.job.model, self.job.proposal.end if self.job.proposal else "")

    @property
    def acts(self) -> Acts:
        """Who must act next, a part that is not here yet left out: that is the shelf's to say."""
        codes = {m.code for m in self.missing}
        if self.job.stage is Stage.HAND_BACK and codes <= {"collected"}:
            return Acts.COLLECT
        if self.job.stage is Stage.TAKEN_IN or self.job.owner_asks:
            return Acts.COUNTER
        return Acts.OWNER if codes & {"consent", "consent_kind", "refused"} else Acts.BENCH

    @property
    def guarantee_days(self) -> int:
        """The days of guarantee that its repair comes with; 0 where nothing was cured."""
        is_cured = not (self.job.proposal and self.job.proposal.end) and (self.is_service or self.p_fixed > 0)
        return self.procedure.guarantee_days if self.procedure and is_cured else 0

    @property
    def waits_for(self) -> str:
        """What the job waits for, in a sentence."""
        lasting = self.job.hazards(END_OF_TIME)  # what passes by itself is not waited for
        if lasting:
            return lasting[0].text
        if self.job.owner_asks:
            return self.job.owner_asks
        return self.missing[0].text if self.missing else ""


def state_of(job: Job, economy: Economy, shelf: Iterable[Stock] = (), bench: Bench | None = None) -> JobState:
    """Return the state of a job.

    Parameters
    ----------
    economy : the shop's figures, with the days that are left of this job's promise
    shelf, bench : what the shelf holds for this unit, and what can be done on the bench now; they move the advice and no stage, so who
        asks for no advice leaves them out

    Raises
    ------
    CaseError
        If a finding uses a word that the drive's family does not have.
    """
    case = case_of(job, economy, shelf, bench)
    belief = believe(case.findings, job.model)
    procedure = procedure_of(job)
    steps = steps_of(job)
    checks = proof_profile(job.model.sheet, job.model.model, baseline_failures(belief.evidence, job.model), has_own_disc=_has_own_disc(job))
    ending = judge_ending(belief, job.model, case.economy)
    facts = _facts(job, belief, ending, steps, checks, sign=economy.sign)
    return JobState(job, case, belief, ending, facts, missing(job.stage, facts), procedure, steps, checks)


def case_of(job: Job, economy: Economy, shelf: Iterable[Stock] = (), bench: Bench | None = None) -> Case:
    """Return the bench case of a job: its findings, and the parts that its tape and the shelf speak of."""
    has_one = {line.body["repair"] for line in job.takings.values()}
    own = [read_stock(stock_body(line), f"/tape/{n}", job.model.sheet) for n, line in job.parts.items()]
    stock = (*own, *(s for s in shelf if s.repair not in has_one))
    return Case(job.model.sheet, job.findings, job.depth, economy, stock, bench or Bench(job.power))


def bench_of(job: Job, now: datetime, lacks: frozenset[Instrument]) -> Bench:
    """Return what can be done on a job's bench at a moment, in a shop that lacks some instruments.

    A unit with an own part out and nothing in its place shows nothing: no step that needs power is proposed until one is in.
    """
    held = [*(HAZARDS[h.code].name for h in job.hazards(now)), *(f"{out.body['name'].lower()} is out ({out.body['tag']})" for out in job.gaps)]
    return Bench(job.power, f"No power now: {', '.join(held)}." if held else "", lacks)


def stock_body(line: Line) -> Mapping[str, Any]:
    """Return a part line as the case format knows it, without the shelf's own marks."""
    return {k: v for k, v in line.body.items() if k not in ("taking", "donor")}


def procedure_of(job: Job) -> Procedure | None:
    """Return how the proposed repair is done, None if nothing is to be repaired."""
    if job.proposal is None or not job.proposal.repair:
        return None
    return procedure_on(job.model.sheet.family, job.model.repairs[job.model.repair_index[job.proposal.repair]])


def steps_of(job: Job) -> tuple[Step, ...]:
    """Return the steps of the proposed repair, from as open as the unit was when it began."""
    procedure = procedure_of(job)
    if procedure is None:
        return ()
    takes = job.model.repairs[job.model.repair_index[procedure.repair]].uses_item
    level = LEVEL_OF_REPAIR[procedure.repair] if takes else ""
    return steps_from(_as_planned(procedure, level, job), job.repair_depth, takes=LEVELS[level].name if level else "")


def _as_planned(procedure: Procedure, level: str, job: Job) -> Procedure:
    """Return a procedure by the sheet's own swap plan, where the owner's paired board moves across into the other drive."""
    full = job.start.sheet.full
    if full is None or level != "drive" or job.model.sheet.pairing is not Pairing.BOARD:
        return procedure
    part = job.part_in_hand(procedure.repair)
    return by_plan(procedure, swap_plan(full, level, from_donor=part is not None and bool(part.body.get("donor"))))


def is_done(step: Step, job: Job) -> bool:
    """Tell whether a step of the proposed repair is done: ticked, or done by what it asks for, a trial or a part in hand."""
    if step.is_trial:
        return job.trial_since_proposal is not None
    if step.takes_part:
        return job.proposal is not None and job.part_in_hand(job.proposal.repair) is not None
    if step.plan:  # a tick of an earlier swap is none of this one
        tick = job.ticks.get(f"{step.plan}:{step.id}")
        return tick is not None and job.proposal is not None and tick.number > job.proposal.number
    return step.id in job.steps


def _has_own_disc(job: Job) -> bool:
    return "owners_disc" in job.said and job.said["owners_disc"].outcome == "good"


def _facts(job: Job, belief: Belief, ending: Ending, steps: tuple[Step, ...], checks: tuple[ProofCheck, ...], *, sign: str) -> JobFacts:
    answered = frozenset(job.said)
    proposal, procedure = job.proposal, procedure_of(job)
    return JobFacts(
        sign=sign,
        has_complaint=bool(job.notes.complaint.strip()),
        open_condition_prompts=open_prompts(job.notes.condition),
        has_limit=job.notes.limit_cents is not None,
        has_supply=bool(job.notes.supply.strip()),
        has_contact=bool(job.notes.owner_contact.strip()),
        answered=answered,
        seen_at_least=job.model.model.seen_at_least,
        classes_to_try=classes_to_try(answered, job.model.sheet),
        findings_beyond_baseline=sum(_is_beyond_baseline(f.what, job) for f in job.findings if not f.is_struck),
        top_part_p=float(belief.p_part.max()),
        proposed_repair=proposal.repair if proposal else "",
        is_advised=proposal.is_advised if proposal else False,
        proposed_cents=proposal.total_cents if proposal else 0,
        agreed_cents=job.agreed_cents,
        is_refused=job.is_refused,
        needs_consent=procedure.alters_unit if procedure else "",
        has_consent=job.has_own_consent,
        open_steps=tuple(s.text for s in steps if not s.is_trial and not is_done(s, job)),
        has_trial=job.trial_since_proposal is not None,
        trial_is_clean=job.is_trial_clean,
        open_checks=tuple(c.title for c in checks if c.id not in job.checks and c.id not in job.left_out),
        failed_checks=(*(c.title for c in checks if job.checks.get(c.id) is False), *(["a pass"] if job.failed_passes else [])),
        passes=job.passes,
        passes_needed=ending.passes_wanted,
        is_probable=ending.verdict == "probable",
        depth=int(job.depth),
        left_open=left_open(job.mat, job.opening),
        is_live=job.power is not Power.OUT,
        ends_unrepaired=proposal is not None and not proposal.repair,
        tries_missing=_tries_missing(job, belief),
        away=tuple(f"{tag} {line.body['name']}" for tag, line in job.away.items()),
        loose=job.loose,
        on_trial=tuple(c.item for c in job.on_trial),
        is_collected=job.collected is not None,
    )


def _tries_missing(job: Job, belief: Belief) -> int:
    """Return how many more clean tries in a row the end asks for that is proposed: who says that it works has seen it work."""
    end = job.proposal.end if job.proposal else ""
    if not end or not ENDS[end].needs_sound or float(belief.p @ job.model.sound) >= CONFIDENCE:
        return 0
    return tries_to_be_sound(belief, job.model)


def _is_beyond_baseline(what: object, job: Job) -> bool:
    if isinstance(what, Answer):
        return what.setting.is_elsewhere or job.model.family_questions[what.question].kind not in _SEEN_KINDS
    return isinstance(what, Trial)
