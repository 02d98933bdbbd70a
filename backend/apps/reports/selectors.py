"""What the hand-back report says, gathered from a job's tape."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

from apps.jobs.lines import line_text
from apps.jobs.selectors import JobState
from apps.shop.models import Shop
from spindle.diagnosis.belief.posterior import believe
from spindle.faults.model import LEAK, QuestionKind
from spindle.job.prompts import PROMPTS
from spindle.offers.quote import sureness

_READINGS = (QuestionKind.READING, QuestionKind.TEST)
_CARE = (
    "Push no disc: offer it and let the drive take it.",
    "Turn the console off with its button and wait for the disc to come out before the plug is pulled.",
    "Keep the vents free and the discs clean; no coins or cards near the slot.",
)


@dataclass(frozen=True)
class Report:
    """A report that an owner can read."""

    shop: Shop
    tag: str
    unit: str
    drive: str
    owner: str
    complaint: str
    taken_in_on: date
    handed_back_on: date
    verdict: str
    cause: str
    sureness: str
    seen: list[str]
    done: list[str]
    readings: list[str]
    workaround: str
    proof: list[str]
    guarantee: str
    care: list[str]
    cautions: list[str]
    noted: list[str]
    total_cents: int

    @property
    def euro(self) -> str:
        """The price in euro."""
        return f"{self.total_cents / 100:.2f}"


def report_of(state: JobState, shop: Shop, today: date) -> Report:
    """Return the report of a job as it stands on that day."""
    job, record = state.job, state.record
    verdict, cause, sureness = _verdict(state)
    standing = [line for line in record.lines if line.kind == "answer" and line.number in record.standing_numbers]
    by_kind = {line.number: state.model.family_questions[line.body["question"]] for line in standing}
    failed = [line for line in standing if line.body["outcome"] in by_kind[line.number].fails]
    trials = [line for line in record.lines if line.kind == "trial" and line.number in record.standing_numbers]
    fuses = [f"Fuse fitted: {step.body['fuse']}." for step in record.steps.values() if step.body.get("fuse")]
    is_cured = verdict == "Repaired"
    days = state.procedure.guarantee_days if state.procedure and is_cured else 0
    return Report(
        shop=shop,
        tag=job.tag,
        unit=f"{job.sheet.maker} {job.sheet.console}, board revision {job.sheet.revision}",
        drive=job.sheet.variant,
        owner=job.owner_name,
        complaint=job.complaint,
        taken_in_on=job.taken_in_at.date(),
        handed_back_on=today,
        verdict=verdict,
        cause=cause,
        sureness=sureness,
        seen=[line_text(line, state.model) for line in failed],
        done=[line_text(line, state.model).removeprefix("Tried: ").capitalize() for line in trials] + fuses,
        readings=[line_text(line, state.model) for line in standing if by_kind[line.number].kind in _READINGS],
        workaround=state.procedure.alters_unit if state.procedure and is_cured else "",
        proof=_proof(state),
        guarantee=_guarantee(days, today),
        care=list(_CARE),
        cautions=_cautions(state),
        noted=[f"{p.ask}: {c.label}" for p in PROMPTS for c in p.choices if job.condition.get(p.id) == c.id],
        total_cents=record.proposal.total_cents if record.proposal else 0,
    )


def _verdict(state: JobState) -> tuple[str, str, str]:
    """Return the verdict, the cause in words and how sure it is."""
    belief = believe(tuple(state.record.findings), state.model)
    top = int(belief.p.argmax())
    fault, p = state.model.faults[top], float(belief.p[top])
    cause = "Cause unknown: nothing on our list fits well." if fault.id == LEAK else f"{fault.name}."
    sure = sureness(p)
    if state.facts.ends_unrepaired:
        return "Handed back as it is", cause, f"{sure} ({round(100 * p)} in 100)"
    if state.p_fixed > 0:
        return "Repaired", cause, f"cause {sure} ({round(100 * p)} in 100); cured with {min(round(100 * state.p_fixed), 99)} in 100"
    return "Not repaired yet", cause, f"{sure} ({round(100 * p)} in 100)"


def _proof(state: JobState) -> list[str]:
    checks = [f"{c.title}: {'passed' if state.record.checks[c.id] else 'failed'}" for c in state.checks if c.id in state.record.checks]
    passes = state.record.passes
    return [*checks, f"{passes} clean passes in a row, {state.passes_needed} were wanted"] if passes else checks


def _guarantee(days: int, today: date) -> str:
    if not days:
        return "No guarantee: nothing was repaired."
    until = today + timedelta(days=days)
    return f"{days} days on this repair, until {until:%-d %B %Y}. Bring the unit back with this sheet if the same fault returns."


def _cautions(state: JobState) -> list[str]:
    done = {c for n in state.record.steps for c in state.steps[n].cautions} if state.steps else set()
    said = ["Do not open the unit: mains voltage inside the case, and invisible laser light in a running drive."]
    if "solvent" in done:
        said.append("A cleaner was used and has dried; a faint smell on the first day is harmless.")
    return said
