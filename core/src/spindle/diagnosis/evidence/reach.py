"""How far the drive came: what it cannot have reached is not asked, and says nothing; what it must have reached is not doubted (C63)."""

from __future__ import annotations

from collections.abc import Collection, Mapping
from dataclasses import dataclass

from spindle.diagnosis.evidence.observation import Observation
from spindle.faults.model import Question
from spindle.words.bench import Reach
from spindle.words.witness import Witness


@dataclass(frozen=True, slots=True)
class HowFar:
    """How far the drive came on one occasion, and what it did not reach; each by the observation that says so."""

    proven: Reach = Reach.NOTHING
    proven_by: Observation | None = None
    halted: Reach | None = None
    halted_by: Observation | None = None

    @property
    def is_home(self) -> bool:
        """True if the disc got home at least once."""
        return self.proven >= Reach.DISC

    def why_not(self, question: Question) -> Observation | None:
        """Return the observation after which there is no point in asking: out of reach, or implied. None if it can be asked."""
        if is_out_of_reach(question, self.halted):
            return self.halted_by
        return self.proven_by if is_implied(question, self.proven) else None


def is_out_of_reach(question: Question, halted: Reach | None) -> bool:
    """Tell whether the drive has not come as far as the question needs."""
    return halted is not None and question.stage >= halted


def is_implied(question: Question, proven: Reach) -> bool:
    """Tell whether all that the question could stop at is passed: a disc that was read was taken, and turned."""
    return bool(question.stops) and max(question.stops.values()) <= proven


def shut_by(question: Question, outcome: str, others: Mapping[str, Question]) -> set[str]:
    """Return the questions that an answer leaves out of reach, or answers."""
    halted, proven = question.stops.get(outcome), question.proves.get(outcome, Reach.NOTHING)
    return {q.id for q in others.values() if q.id != question.id and (is_out_of_reach(q, halted) or is_implied(q, proven))}


def how_far(seen: Collection[Observation]) -> HowFar:
    """Return how far the drive came by what was seen on one occasion.

    A stage that was passed once is not a stop, whoever saw it fail: it comes and goes. Without power nothing is passed. An owner's
    word stops nothing but the power.
    """
    halting = [o for o in seen if o.halts is not None and (o.source is not Witness.OWNER or o.halts is Reach.POWER)]
    first = min(halting, key=lambda o: (o.halts or 0, o.place), default=None)
    dead = first is not None and first.halts is Reach.POWER
    proof = max((o for o in seen if o.proves and not dead), key=lambda o: (o.proves, -o.place), default=None)
    proven = Reach.NOTHING if proof is None else proof.proves
    if first is not None and (first.halts or 0) <= proven:
        first = min((o for o in halting if (o.halts or 0) > proven), key=lambda o: (o.halts or 0, o.place), default=None)
    return HowFar(proven, proof, None if first is None else first.halts, first)
