"""What may be fitted: allowed, for a trial only, or refused. The worst rule wins, and all reasons are said."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from enum import IntEnum


class Verdict(IntEnum):
    """In the order in which they win."""

    ALLOWED = 0
    TRIAL_ONLY = 1
    """It may show whether the unit then works, and comes out again before closing."""
    REFUSED = 2

    @property
    def said(self) -> str:
        """The verdict in words."""
        return ("allowed", "for a trial only, out again before closing", "refused")[self]


@dataclass(frozen=True, slots=True)
class Reason:
    """One rule that spoke, and why."""

    verdict: Verdict
    text: str


def worst(reasons: Iterable[Reason]) -> Verdict:
    """Return the verdict of all the rules together."""
    return max((r.verdict for r in reasons), default=Verdict.ALLOWED)


def refused(text: str) -> Reason:
    """Return a reason that refuses."""
    return Reason(Verdict.REFUSED, text)


def trial(text: str) -> Reason:
    """Return a reason that leaves a trial."""
    return Reason(Verdict.TRIAL_ONLY, text)
