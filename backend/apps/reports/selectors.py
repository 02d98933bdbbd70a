"""What the papers of a job say, gathered from its tape: the receipt when it comes, the report when it goes."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta
from typing import Final

from apps.jobs.selectors import OpenJob
from apps.photos.selectors import file_of
from apps.shop.models import Shop
from spindle.bench.tools.catalogue import TOOLS
from spindle.faults.model import QuestionKind
from spindle.job.ledger import says
from spindle.job.line import Line
from spindle.job.prompts import told_of
from spindle.offers.ends import ENDS
from spindle.offers.handing_back import CARE, Cause, told_trial
from spindle.words.money import money

MOST_PHOTOS: Final = 4
"""In one row of the page that an owner takes home."""
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
    photos: list[tuple[str, str]]
    """Those that the owner may have: the address of the file, and what it shows."""
    total_cents: int
    labour_cents: int
    part_cents: int
    done_by: str
    fetched: str

    @property
    def price(self) -> str:
        """The price in the shop's money."""
        return money(self.total_cents, self.shop.sign)

    @property
    def made_up_of(self) -> str:
        """What the price is made up of; "" where it is one thing."""
        if not (self.labour_cents and self.part_cents and self.total_cents):
            return ""
        return f"Work {money(self.labour_cents, self.shop.sign)}, parts {money(self.part_cents, self.shop.sign)}."


def report_of(shown: OpenJob) -> Report:
    """Return the report of a job as it stands today, by the shop's own clock."""
    job, state, shop, sheet = shown.job, shown.state, shown.shop, shown.row.sheet
    end, cause = job.proposal.end if job.proposal else "", state.cause
    standing = [line for line in job.lines if line.number in job.standing]
    questions = {line.number: job.model.family_questions[line.body["question"]] for line in standing if line.kind == "answer"}
    answers = [line for line in standing if line.kind == "answer"]
    failed = [line for line in answers if line.body["outcome"] in questions[line.number].fails]
    fuses = [f"The fuse that went in reads {step.body['fuse']}." for step in job.steps.values() if step.body.get("fuse")]
    sold = next((line.body for line in reversed(job.lines) if line.kind == "proposal"), {})
    days = shop.guarantee(state.guarantee_days)
    closed_on = shop.day_of(shown.row.closed_at) if shown.row.closed_at else shop.today()
    until = shown.row.guarantee_until if shown.row.closed_at else closed_on + timedelta(days=days) if days else None
    return Report(
        shop=shop,
        tag=job.tag,
        unit=f"{sheet.maker} {sheet.console}, board revision {sheet.revision}",
        drive=sheet.variant,
        owner=job.notes.owner_name,
        complaint=job.notes.complaint,
        taken_in_on=shop.day_of(shown.row.taken_in_at),
        handed_back_on=closed_on,
        verdict=state.verdict,
        cause=cause.text,
        sureness=_sureness(cause, state.p_fixed),
        seen=[f"{says(line, shown.speech)}." for line in failed],
        done=[told_trial(t, job.model) for t in job.trials] + fuses,
        readings=[*(f"{says(line, shown.speech)}." for line in answers if questions[line.number].kind in _READINGS), *_measured(standing)],
        workaround=state.procedure.alters_unit if state.procedure and state.guarantee_days else "",
        proof=_proof(shown),
        guarantee=ENDS[end].guarantee if end else _guarantee(until, closed_on),
        care=list(CARE[job.model.sheet.family]),
        cautions=_cautions(shown),
        noted=[*(f"{told}: {label}" for told, label in told_of(job.notes.condition)), *_odd_places(shown)],
        photos=_photos(shown),
        total_cents=job.proposal.total_cents if job.proposal else 0,
        labour_cents=sold.get("labour_cents", 0),
        part_cents=sold.get("part_cents", 0),
        done_by=_done_by(job.lines),
        fetched=_fetched(shown),
    )


def _measured(standing: list[Line]) -> list[str]:
    """What was measured, of each thing what it was at first and what it is in the end."""
    by_thing: dict[str, list[str]] = {}
    for line in standing:
        if line.kind == "measured":
            body = line.body
            by_thing.setdefault(TOOLS[body["tool"]].title + (f", {body['about']}" if body["about"] else ""), []).append(body["headline"].rstrip("."))
    return [f"{thing}: {told[0]}." if len(told) == 1 else f"{thing}: at first {told[0]}; in the end {told[-1]}." for thing, told in by_thing.items()]


def _odd_places(shown: OpenJob) -> list[str]:
    """Screws that were not there, are others, or stay out: as the tape says it."""
    by_place = {line.body["place"]: says(line, shown.speech) for line in shown.job.lines if line.kind == "place"}
    return [f"Screw, {by_place[p]}" for p in shown.job.mat.odd]


def _photos(shown: OpenJob) -> list[tuple[str, str]]:
    kept = [p for p in shown.job.photos.values() if p.for_owner and file_of(p.hash).exists()]
    return [(file_of(p.hash).as_uri(), p.about or "Photo") for p in kept[:MOST_PHOTOS]]


def _done_by(lines: tuple[Line, ...]) -> str:
    """Whoever did steps of it or tried something, in the order in which they came to it."""
    return " and ".join(dict.fromkeys(line.by for line in lines if line.kind in ("step", "trial")))


def _fetched(shown: OpenJob) -> str:
    job = shown.job
    paid = f"Paid: {money(job.paid.body['cents'], shown.shop.sign)} by {job.paid.body['how']}." if job.paid else ""
    by = f"Fetched by {job.collected.body['by_name']}." if job.collected else ""
    return f"{paid} {by}".strip()


@dataclass(frozen=True)
class Receipt:
    """What an owner gets in hand for a unit."""

    shop: Shop
    tag: str
    unit: str
    owner: str
    contact: str
    complaint: str
    taken_in_on: date
    promised_on: date | None
    condition: list[str]
    supply: str
    limit: str
    returns: str


def receipt_of(shown: OpenJob) -> Receipt:
    """Return the receipt of a unit: what was handed over, in which state, and what was agreed."""
    notes, shop, sheet = shown.job.notes, shown.shop, shown.row.sheet
    covered = f"Back after {notes.returns}" + (", the same fault inside its guarantee: the repair costs nothing." if notes.is_covered else ".")
    return Receipt(
        shop=shop,
        tag=shown.job.tag,
        unit=f"{sheet.maker} {sheet.console}, board revision {sheet.revision}",
        owner=notes.owner_name,
        contact=notes.owner_contact,
        complaint=notes.complaint,
        taken_in_on=shop.day_of(shown.row.taken_in_at),
        promised_on=notes.promised_on,
        condition=[f"{told}: {label}" for told, label in told_of(notes.condition)],
        supply=notes.supply,
        limit="Nothing is spent before we ask." if not notes.limit_cents else f"Up to {money(notes.limit_cents, shop.sign)} may be spent without asking.",
        returns=covered if notes.returns else "",
    )


def _sureness(cause: Cause, p_fixed: float) -> str:
    said = f"That this was the cause is {cause.sureness}: {_in_100(cause.p)}." if cause.p else ""
    cured = f"That it is cured: {_in_100(p_fixed)}." if p_fixed > 0 else ""
    return f"{said} {cured}".strip()


def _in_100(p: float) -> str:
    return f"{min(round(100 * p), 99)} in 100"  # nothing is certain on paper


def _proof(shown: OpenJob) -> list[str]:
    job, state = shown.job, shown.state
    by_outcome = {is_passed: [c.title[0].lower() + c.title[1:] for c in state.checks if job.checks.get(c.id) is is_passed] for is_passed in (True, False)}
    told = [f"{said}: {'; '.join(by_outcome[k])}." for k, said in ((False, "Failed"), (True, f"All {len(by_outcome[True])} tried and passed")) if by_outcome[k]]
    if job.passes:
        told.insert(0, f"It went the whole way {job.passes} times in a row without a slip; {state.ending.passes_wanted} times were needed to be sure.")
    told += [f"Not tried: {c.title[0].lower() + c.title[1:]}, because {job.left_out[c.id]}." for c in state.checks if c.id in job.left_out]
    return [*told, *(f"{says(line, shown.speech)}." for line in job.account)]


def _guarantee(until: date | None, since: date) -> str:
    if until is None:
        return "No guarantee: nothing was repaired."
    return f"{(until - since).days} days on this repair, until {until:%-d %B %Y}. Bring the unit back with this sheet if the same fault returns."


def _cautions(shown: OpenJob) -> list[str]:
    done = {c for step in shown.state.steps if step.id in shown.job.steps for c in step.cautions}
    said = ["Do not open the unit: mains voltage inside the case, and invisible laser light in a running drive."]
    if "solvent" in done:
        said.append("A cleaner was used and has dried; a faint smell on the first day is harmless.")
    return said
