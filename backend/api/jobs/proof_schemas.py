"""What goes over the wire about the proof, and what the cause turned out to be."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from api.common import View
from spindle.words.known import Known


class CheckView(View):
    """One check of the proof."""

    id: str
    title: str
    how: str
    state: Literal["open", "passed", "failed", "left"]
    tries: int
    """How often it is done before it has passed."""
    done: int
    """How often it was good so far."""
    waits_for: str
    """What it waits for among the waits of the job, "" for nothing."""
    question: str
    is_timed: bool
    """The seconds until it plays are asked for."""
    reference_s: float | None
    """How long healthy units take to play it; None where nobody knows yet."""
    may_be_left: bool
    why_left: str
    """Why it was not tried."""


class OnAccountView(View):
    """What would be done on the owner's account, and what was said to it."""

    what: str
    by_name: str
    is_agreed: bool
    at: datetime


class ConfirmedView(View):
    """What the cause turned out to be, and by what it is known; an empty fault: it is not known for certain."""

    fault: str
    by: Known


class ProofView(View):
    """The proof so far."""

    checks: list[CheckView]
    account: list[OnAccountView]
    passes: int
    passes_needed: int
    outcome: str
    """How the job comes out, as the owner is told it."""
    p_fixed: float
    p_fail_per_try: float
    cause: str
    p_cause: float
    """As the owner is told: 0 where no cause is named."""
    confirmed: ConfirmedView | None
    """None as long as nobody said."""
    verdict: Literal["", "go_on", "proven", "probable"]
    says: str
