"""What the hand-back report says, gathered from a job's tape."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

from apps.jobs.selectors import OpenJob
from apps.shop.models import Shop
from spindle.faults.model import LEAK, QuestionKind
from spindle.job.ledger import says
from spindle.job.prompts import PROMPTS
from spindle.offers.quote import sureness
from spindle.words.money import money

_READINGS = (QuestionKind.READING, QuestionKind.TEST)
_ALWAYS_CARE = "Turn the console off with its button and wait for the disc to stop before the plug is pulled."
_CARE = {
    "slot": ("Push no disc: offer it and let the drive take it.", _ALWAYS_CARE, "Keep the vents free and the discs clean; no coins or cards near the slot."),
    "tray": (
        "Lay the disc flat and let the tray close by its button, not by a push.",
        _ALWAYS_CARE,
        "Keep the vents free and the discs clean; nothing under the tray.",
    ),
    "lid": (
        "Press the disc onto the hub until it clicks, and lift it by its rim.",
        _ALWAYS_CARE,
        "Close the lid gently; keep the lens dry, and leave it to the bench.",
    ),
}
"""What keeps such a drive well, by its loader family."""
NAMED_FROM = 0.5
"""A cause is named to the owner from an even chance on: below it a name would be a guess on paper."""


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
    verdict, cause, sure = _verdict(shown)
    standing = [line for line in job.lines if line.number in job.standing]
    questions = {line.number: job.model.family_questions[line.body["question"]] for line in standing if line.kind == "answer"}
    answers = [line for line in standing if line.kind == "answer"]
    failed = [line for line in answers if line.body["outcome"] in questions[line.number].fails]
    trials = [line for line in standing if line.kind == "trial"]
    fuses = [f"Fuse fitted: {step.body['fuse']}." for step in job.steps.values() if step.body.get("fuse")]
    is_cured = verdict == "Repaired"
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
        verdict=verdict,
        cause=cause,
        sureness=sure,
        seen=[says(line, shown.speech) for line in failed],
        done=[says(line, shown.speech).removeprefix("Tried: ").capitalize() for line in trials] + fuses,
        readings=[says(line, shown.speech) for line in answers if questions[line.number].kind in _READINGS],
        workaround=state.procedure.alters_unit if state.procedure and is_cured else "",
        proof=_proof(shown),
        guarantee=_guarantee(days, shop.today()),
        care=list(_CARE[job.model.sheet.family]),
        cautions=_cautions(shown),
        noted=[f"{p.ask}: {c.label}" for p in PROMPTS for c in p.choices if not p.is_private and job.notes.condition.get(p.id) == c.id],
        total_cents=job.proposal.total_cents if job.proposal else 0,
    )


def _verdict(shown: OpenJob) -> tuple[str, str, str]:
    """Return the verdict, the cause in words and how sure it is."""
    state = shown.state
    top = int(state.belief.p.argmax())
    fault, p = shown.job.model.faults[top], float(state.belief.p[top])
    if fault.id == LEAK or p < NAMED_FROM:
        cause = "Cause unknown: nothing on our list fits well." if fault.id == LEAK else "Cause not found for certain."
        said = ""
    else:
        cause, said = f"{fault.name}.", f"{sureness(p)} ({round(100 * p)} in 100)"
    if state.facts.ends_unrepaired:
        return "Handed back as it is", cause, said
    if state.p_fixed > 0:
        cured = f"cured with {min(round(100 * state.p_fixed), 99)} in 100"
        return "Repaired", cause, f"cause {said}; {cured}" if said else cured
    return "Not repaired yet", cause, said


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
