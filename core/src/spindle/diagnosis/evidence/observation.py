"""What was seen of one question, all tries of it together: how often it failed, and what that looked like."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from spindle.diagnosis.given.case import Answer, Weight
from spindle.diagnosis.given.compiled import Floats
from spindle.faults.model import Question
from spindle.words.bench import Reach
from spindle.words.witness import Witness

FIRM_SHARE = 0.85
"""Of a soft answer: under this share it proves no stage and stops none. A doubtful sound puts no question out of reach."""


@dataclass(frozen=True, slots=True)
class Observation:
    """What counts for one question.

    Attributes
    ----------
    finding : id of the finding that it stands by: the newest of its question
    shows : the outcomes that it may be: one, or every failing one where it failed now and then and nobody wrote down how
    failed, tries : k of n; None where it was looked at once
    weights : outcome to how far a measured value speaks for it, summing to 1; empty where the eye said it
    place : where the finding stands on the tape
    """

    finding: str
    question: Question
    shows: tuple[str, ...]
    source: Witness
    failed: int | None = None
    tries: int | None = None
    seconds: float | None = None
    place: int = 0
    weights: tuple[Weight, ...] = ()

    def mix(self, outcomes: Sequence[str]) -> Floats:
        """Return how far it speaks for each outcome, of shape (n_outcomes,): the shares of a measured one, else 1 for each that it may be."""
        said = {w.outcome: w.share for w in self.weights} or dict.fromkeys(self.shows, 1.0)
        return np.array([said.get(o, 0.0) for o in outcomes])

    @property
    def outcome(self) -> str:
        """The outcome that counts: what it does when it fails, if it failed at all; the mildest where that is not known."""
        return self.shows[0]

    @property
    def is_failure(self) -> bool:
        """True if the stage failed at any try."""
        return self.outcome in self.question.fails

    @property
    def is_seen_failing(self) -> bool:
        """True for a failure that the bench itself saw: without one there is no baseline (trap T21)."""
        return self.source is Witness.BENCH and self.is_failure

    @property
    def proves(self) -> Reach:
        """How far the drive came at least once."""
        told = self.question.proves
        if not told or not self.is_firm:
            return Reach.NOTHING
        return Reach(max((told.get(self.outcome, Reach.NOTHING), *(told.values() if self.is_now_and_then else ()))))

    @property
    def halts(self) -> Reach | None:
        """What the drive did not reach at any try; None if it reached all that this can tell."""
        return self.question.stops.get(self.outcome) if self.question.stops and self.is_firm and not self.is_now_and_then else None

    @property
    def is_firm(self) -> bool:
        """True if the eye said it, or what was measured leaves little doubt."""
        return not self.weights or max(w.share for w in self.weights) >= FIRM_SHARE

    @property
    def is_now_and_then(self) -> bool:
        """True if it was counted, and held at some of the tries."""
        return self.tries is not None and (self.failed or 0) < self.tries

    @property
    def line(self) -> str:
        """The outcome as it stands on the tape."""
        outcome = self.question.outcome(self.outcome)
        return outcome.line if outcome else self.outcome


def observed(finding: str, answer: Answer, question: Question, place: int) -> Observation:
    """Return what one answer amounts to by itself.

    A stage that held at the last of several tries and failed at some has failed: in which way, nobody said.
    """
    shows: tuple[str, ...] = (answer.outcome,)
    if answer.failed and answer.outcome not in question.fails and question.fails:
        shows = question.fails
    return Observation(finding, question, shows, answer.source, answer.failed, answer.tries, answer.seconds, place, answer.weights)


def tried_again(before: Observation, now: Observation) -> Observation:
    """Return what an observation amounts to that goes on counting an earlier one: how it failed then is how it fails.

    A new count that is no longer than the old one begins anew, and replaces it; so does an answer without a count.
    """
    goes_on = bool(now.tries and now.failed) and (now.tries or 0) > (before.tries or 1)
    if goes_on and len(now.shows) > 1 and before.is_failure:
        return replace(now, shows=before.shows)
    return now
