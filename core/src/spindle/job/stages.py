"""The stages of a job, and what must be there before one is left."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from types import MappingProxyType
from typing import Final

from spindle.words.money import money


class Stage(StrEnum):
    """From the counter to the hand-back."""

    TAKEN_IN = "taken_in"
    FAULT_SEEN = "fault_seen"
    ISOLATE = "isolate"
    AGREE = "agree"
    REPAIR = "repair"
    PROVE = "prove"
    HAND_BACK = "hand_back"
    CLOSED = "closed"


class Acts(StrEnum):
    """Who must act next on a job. By its tape alone it is never the post, nor the clock."""

    BENCH = "bench"
    COUNTER = "counter"
    OWNER = "owner"
    COLLECT = "collect"
    PART = "part"
    WAIT = "wait"


def acts_now(by_tape: Acts, *, is_held: bool, lacks_part: bool) -> Acts:
    """Return who must act next, what is beside the tape told: nobody while it waits by itself, and nobody but the post while its part is not here."""
    return Acts.WAIT if is_held else Acts.PART if lacks_part else by_tape


ORDER: Final = tuple(Stage)
NAMES: Final = MappingProxyType(
    {
        Stage.TAKEN_IN: "Taken in",
        Stage.FAULT_SEEN: "Fault seen",
        Stage.ISOLATE: "Isolate",
        Stage.AGREE: "Agree",
        Stage.REPAIR: "Repair",
        Stage.PROVE: "Prove",
        Stage.HAND_BACK: "Hand back",
        Stage.CLOSED: "Closed",
    }
)
MIN_FINDINGS: Final = 1
"""Isolation may be short, but not empty: one finding beyond the baseline, a suspect that stands out, or a proposal that the advice puts first."""
STANDS_OUT: Final = 0.6
"""Probability from which one part stands out enough to be proposed without another look."""


@dataclass(frozen=True)
class JobFacts:
    """What the stages ask about a job. Money in cents, said with the shop's ``sign``."""

    has_complaint: bool = False
    open_condition_prompts: tuple[str, ...] = ()
    has_limit: bool = False
    has_supply: bool = False
    has_contact: bool = False
    answered: frozenset[str] = frozenset()
    seen_at_least: tuple[str, ...] = ()
    """Baseline stages of the family without which the fault has not been seen; "can't tell" is an answer too."""
    classes_to_try: tuple[str, ...] = ()
    """Supported disc classes of which none of the same wavelength has been tried."""
    findings_beyond_baseline: int = 0
    top_part_p: float = 0.0
    proposed_repair: str = ""
    is_advised: bool = False
    """The proposal is the move that the advice put first: then the baseline was enough to go by."""
    proposed_cents: int = 0
    agreed_cents: int = 0
    """What may be spent: the limit, or a consent since; after the owner's "no" only what was agreed after it."""
    is_refused: bool = False
    """The owner's last word was no."""
    needs_consent: str = ""
    """Why consent is needed whatever it costs (a workaround, a change to the unit); empty if it is not."""
    has_consent: bool = False
    open_steps: tuple[str, ...] = ()
    has_trial: bool = False
    trial_is_clean: bool = False
    open_checks: tuple[str, ...] = ()
    failed_checks: tuple[str, ...] = ()
    passes: int = 0
    passes_needed: int = 0
    is_probable: bool = False
    """More passes would cost more than the returns they save: "probable" is a valid end (C20)."""
    depth: int = 0
    left_open: tuple[str, ...] = ()
    """What lies on the mat still, in the order in which it goes back."""
    is_live: bool = False
    ends_unrepaired: bool = False
    """The unit goes back as it is, by decision: no repair to prove."""
    tries_missing: int = 0
    """Clean tries in a row that the end asks for: who is told that it works is told what was seen."""
    away: tuple[str, ...] = ()
    """Own parts that are out of the unit still, by tag and name."""
    sign: str = "€"
    """The sign of the shop's money."""
    loose: tuple[str, ...] = ()
    """Parts taken from the shelf for it that no clean trial has fitted."""
    on_trial: tuple[str, ...] = ()
    """What sits in it for trying instead of its own parts."""
    is_collected: bool = False
    """Somebody has come for it."""


@dataclass(frozen=True)
class Missing:
    """One thing that is missing before a stage can be left, in words for the screen."""

    code: str
    text: str


def _taken_in(f: JobFacts) -> list[tuple[bool, str, str]]:
    prompts = ", ".join(f.open_condition_prompts)
    return [
        (f.has_complaint, "complaint", "The owner's complaint, in the owner's words."),
        (not f.open_condition_prompts, "condition", f"Condition not yet noted: {prompts}."),
        (f.has_limit, "limit", "The spending limit the owner agreed to (0 counts)."),
        (f.has_contact, "contact", "How to reach the owner."),
        (f.has_supply, "supply", "Which power supply the owner uses."),
    ]


def _fault_seen(f: JobFacts) -> list[tuple[bool, str, str]]:
    left = [q for q in f.seen_at_least if q not in f.answered]
    return [
        (not left, "baseline", f"{len(left)} of {len(f.seen_at_least)} baseline stages still open: {', '.join(q.replace('_', ' ') for q in left)}."),
        (not f.classes_to_try, "classes", f"One disc of each light, or “can't tell”: {', '.join(c.replace('_', ' ') for c in f.classes_to_try)}."),
    ]


def _isolate(f: JobFacts) -> list[tuple[bool, str, str]]:
    enough = f.findings_beyond_baseline >= MIN_FINDINGS or f.top_part_p >= STANDS_OUT or f.is_advised or f.ends_unrepaired
    return [
        (enough, "findings", "At least one finding beyond the baseline: no part stands out yet."),
        (not f.on_trial, "on_trial", f"In it for trying: {', '.join(f.on_trial)}. Put the unit's own parts back."),
        _seen_working(f),
        (bool(f.proposed_repair) or f.ends_unrepaired, "proposal", "A repair to propose, or the decision to hand the unit back as it is."),
    ]


def _seen_working(f: JobFacts) -> tuple[bool, str, str]:
    return not f.tries_missing, "tries", f"{f.tries_missing} more clean tries in a row, or another end: who says that it works has seen it work."


def _agree(f: JobFacts) -> list[tuple[bool, str, str]]:
    within = f.proposed_cents <= f.agreed_cents and not f.is_refused
    over = f"{money(f.proposed_cents, f.sign)} is over the {money(f.agreed_cents, f.sign)} agreed so far."
    says = "The owner did not agree. Propose something else, or note that the owner agrees after all." if f.is_refused else f"The owner's consent: {over}"
    return [
        (within or f.ends_unrepaired, "consent", says),
        _seen_working(f),
        (f.has_consent or not f.needs_consent or f.ends_unrepaired, "consent_kind", f"The owner's consent, whatever it costs: {f.needs_consent}"),
    ]


def _repair(f: JobFacts) -> list[tuple[bool, str, str]]:
    done = f.ends_unrepaired
    return [
        (done or not f.is_refused, "refused", "The owner did not agree to this repair: go back to Agree."),
        (done or not f.open_steps, "steps", f"{len(f.open_steps)} steps not marked done, next: {f.open_steps[0] if f.open_steps else ''}"),
        (done or f.has_trial, "trial", "A trial before the screws go in."),
        (done or not f.has_trial or f.trial_is_clean, "trial_clean", "The last trial was not clean: go back to Isolate with what it showed."),
    ]


def _shut(f: JobFacts, says: str) -> tuple[bool, str, str]:
    left = f" {len(f.left_open)} steps back still, next: {f.left_open[0]}." if f.left_open else ""
    return f.depth == 0 and not f.left_open, "closed", f"{says}{left}"


def _prove(f: JobFacts) -> list[tuple[bool, str, str]]:
    done = f.ends_unrepaired
    short = f.passes_needed - f.passes
    return [
        _shut(f, "The unit closed: proof counts with the screws in."),
        (
            done or not f.has_trial or f.trial_is_clean,
            "trial_clean",
            "A failure in the proof took the clean trial back: log a new trial, or go back to Isolate.",
        ),
        (done or not f.failed_checks, "failed", f"Failed in the proof: {', '.join(f.failed_checks)}. Go back to Isolate."),
        (done or not f.open_checks, "checks", f"{len(f.open_checks)} checks still open, next: {f.open_checks[0] if f.open_checks else ''}"),
        (done or short <= 0 or f.is_probable, "passes", f"{short} more clean passes in a row ({f.passes} of {f.passes_needed})."),
        (not f.is_live, "mains", "Mains out: the proof is done, and the counter hands back what is unplugged."),
    ]


def _hand_back(f: JobFacts) -> list[tuple[bool, str, str]]:
    return [
        _shut(f, "The unit closed."),
        (not f.is_live, "mains", "Mains out before it leaves the bench."),
        (not f.away, "custody", f"Still out of the unit: {', '.join(f.away)}. It goes back, or the owner leaves it here in so many words."),
        (not f.loose, "loose", f"Taken from the shelf and not fitted: {', '.join(f.loose)}. Put it back, or log the trial with it."),
        (f.is_collected, "collected", "Somebody to fetch it: write down who."),
    ]


_GATES: Final = MappingProxyType(
    {
        Stage.TAKEN_IN: _taken_in,
        Stage.FAULT_SEEN: _fault_seen,
        Stage.ISOLATE: _isolate,
        Stage.AGREE: _agree,
        Stage.REPAIR: _repair,
        Stage.PROVE: _prove,
        Stage.HAND_BACK: _hand_back,
    }
)


def missing(stage: Stage, facts: JobFacts) -> tuple[Missing, ...]:
    """Return what is missing before ``stage`` can be left; empty if it can. A closed job is not left forwards."""
    if stage is Stage.CLOSED:
        return (Missing("closed_job", "The job is closed."),)
    return tuple(Missing(code, text) for ok, code, text in _GATES[stage](facts) if not ok)


def following(stage: Stage) -> Stage:
    """Return the stage after ``stage`` (closed stays closed)."""
    return ORDER[min(ORDER.index(stage) + 1, len(ORDER) - 1)]


def may_return(stage: Stage, to: Stage) -> bool:
    """Tell whether a job may go back from ``stage`` to ``to``: to any earlier stage on the bench, and never from closed."""
    return stage is not Stage.CLOSED and to is not Stage.CLOSED and ORDER.index(to) < ORDER.index(stage)
