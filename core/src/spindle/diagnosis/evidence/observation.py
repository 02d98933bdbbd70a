"""What was seen of one question, all tries of it together: how often it failed, and what that looked like."""

from __future__ import annotations

from dataclasses import dataclass, replace

from spindle.diagnosis.given.case import Answer
from spindle.faults.model import Question
from spindle.words.bench import Reach
from spindle.words.witness import Witness


@dataclass(frozen=True, slots=True)
class Observation:
    """What counts for one question.

    Attributes
    ----------
    finding : id of the finding that it stands by: the newest of its question
    shows : the outcomes that it may be: one, or every failing one where it failed now and then and nobody wrote down how
    failed, tries : k of n; None where it was looked at once
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
        if not told:
            return Reach.NOTHING
        return Reach(max((told.get(self.outcome, Reach.NOTHING), *(told.values() if self.is_now_and_then else ()))))

    @property
    def halts(self) -> Reach | None:
        """What the drive did not reach at any try; None if it reached all that this can tell."""
        return self.question.stops.get(self.outcome) if self.question.stops and not self.is_now_and_then else None

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
    return Observation(finding, question, shows, answer.source, answer.failed, answer.tries, answer.seconds, place)


def tried_again(before: Observation, now: Observation) -> Observation:
    """Return what an observation amounts to that goes on counting an earlier one: how it failed then is how it fails.

    A new count that is no longer than the old one begins anew, and replaces it; so does an answer without a count.
    """
    goes_on = bool(now.tries and now.failed) and (now.tries or 0) > (before.tries or 1)
    if goes_on and len(now.shows) > 1 and before.is_failure:
        return replace(now, shows=before.shows)
    return now
