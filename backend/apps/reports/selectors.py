"""What the hand-back report says, gathered from a job's tape."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

from apps.jobs.selectors import OpenJob
from apps.shop.models import Shop
from spindle.faults.model import QuestionKind
from spindle.job.ledger import says
from spindle.job.prompts import told_of
from spindle.offers.ends import ENDS
from spindle.offers.handing_back import CARE, Cause
from spindle.words.money import money

_READINGS = (QuestionKind.READING, QuestionKind.TEST)


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
    def price(self) -> str:
        """The price in the shop's money."""
        return money(self.total_cents, self.shop.sign)


def report_of(shown: OpenJob) -> Report:
    """Return the report of a job as it stands today, by the shop's own clock."""
    job, state, shop, sheet = shown.job, shown.state, shown.shop, shown.row.sheet
    end, cause = job.proposal.end if job.proposal else "", state.cause
    standing = [line for line in job.lines if line.number in job.standing]
    questions = {line.number: job.model.family_questions[line.body["question"]] for line in standing if line.kind == "answer"}
    answers = [line for line in standing if line.kind == "answer"]
    failed = [line for line in answers if line.body["outcome"] in questions[line.number].fails]
    trials = [line for line in standing if line.kind == "trial"]
    fuses = [f"Fuse fitted: {step.body['fuse']}." for step in job.steps.values() if step.body.get("fuse")]
    is_cured = not end and (state.is_service or state.p_fixed > 0)
    days = state.procedure.guarantee_days if state.procedure and is_cured else 0
    return Report(
        shop=shop,
        tag=job.tag,
        unit=f"{sheet.maker} {sheet.console}, board revision {sheet.revision}",
        drive=sheet.variant,
        owner=job.notes.owner_name,
        complaint=job.notes.complaint,
        taken_in_on=shop.day_of(shown.row.taken_in_at),
        handed_back_on=shop.today(),
        verdict=state.verdict,
        cause=cause.text,
        sureness=_sureness(cause, state.p_fixed),
        seen=[says(line, shown.speech) for line in failed],
        done=[says(line, shown.speech).removeprefix("Tried: ").capitalize() for line in trials] + fuses,
        readings=[says(line, shown.speech) for line in answers if questions[line.number].kind in _READINGS],
        workaround=state.procedure.alters_unit if state.procedure and is_cured else "",
        proof=_proof(shown),
        guarantee=ENDS[end].guarantee if end else _guarantee(days, shop.today()),
        care=list(CARE[job.model.sheet.family]),
        cautions=_cautions(shown),
        noted=[f"{told}: {label}" for told, label in told_of(job.notes.condition)],
        total_cents=job.proposal.total_cents if job.proposal else 0,
    )


def _sureness(cause: Cause, p_fixed: float) -> str:
    said = f"{cause.sureness} ({_in_100(cause.p)})" if cause.p else ""
    cured = f"cured with {_in_100(p_fixed)}" if p_fixed > 0 else ""
    return f"cause {said}; {cured}" if said and cured else said or cured


def _in_100(p: float) -> str:
    return f"{min(round(100 * p), 99)} in 100"  # nothing is certain on paper


def _proof(shown: OpenJob) -> list[str]:
    job, state = shown.job, shown.state
    checks = [f"{c.title}: {'passed' if job.checks[c.id] else 'failed'}" for c in state.checks if c.id in job.checks]
    return [*checks, f"{job.passes} clean passes in a row, {state.ending.passes_wanted} were wanted"] if job.passes else checks


def _guarantee(days: int, today: date) -> str:
    if not days:
        return "No guarantee: nothing was repaired."
    until = today + timedelta(days=days)
    return f"{days} days on this repair, until {until:%-d %B %Y}. Bring the unit back with this sheet if the same fault returns."


def _cautions(shown: OpenJob) -> list[str]:
    done = {c for step in shown.state.steps if step.id in shown.job.steps for c in step.cautions}
    said = ["Do not open the unit: mains voltage inside the case, and invisible laser light in a running drive."]
    if "solvent" in done:
        said.append("A cleaner was used and has dried; a faint smell on the first day is harmless.")
    return said
