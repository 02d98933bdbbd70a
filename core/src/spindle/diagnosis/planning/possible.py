"""What can be done on the bench as it is, and for the rest one reason each (C62, C63)."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from types import MappingProxyType
from typing import Final

from spindle.diagnosis.belief.posterior import Belief
from spindle.diagnosis.given.case import Bench, Case
from spindle.diagnosis.planning.problem import Asked, Plan
from spindle.faults.model import Repair
from spindle.repairs.procedures import procedure_for
from spindle.words.bench import INSTRUMENT_NAMES, Instrument, Mains, Reach

LOOSE: Final = MappingProxyType({"rattle": "rattles", "object_search": "found"})
"""Answers that say that something lies loose inside: it may lie across the board (trap T35)."""


@dataclass(frozen=True)
class Barred:
    """A question, swap or repair that cannot be done on the bench as it is, and why, in words."""

    id: str
    title: str
    why: str


def barred_asks(case: Case, belief: Belief, plan: Plan) -> dict[int, Barred]:
    """Return the questions and swaps that cannot be done now, by their place in the plan."""
    loose = next((o.line for q, bad in LOOSE.items() if (o := belief.evidence.said.get(q)) and o.outcome == bad), "")
    bench = case.bench
    if bench.no_power is None and loose:
        bench = replace(bench, no_power=f"“{loose}”: power stays off until it is out.")
    return {n: why for n, asked in enumerate(plan.asks) if (why := next(_reasons(asked, bench, belief, case.sheet.family), None)) is not None}


def barred_repairs(case: Case, plan: Plan) -> dict[int, Barred]:
    """Return the repairs that cannot be done here, by their place in the plan.

    Open hazards bar no repair: it is done with the mains out, and its trial waits until they are cleared.
    """
    lacked = {a: next((w for w in _takes(r, case.sheet.family) if w in case.bench.lacks), "") for a, r in enumerate(plan.repairs)}
    return {a: _lacking(plan.repairs[a].id, plan.repairs[a].name, word) for a, word in lacked.items() if word}


def _takes(repair: Repair, family: str) -> tuple[str, str]:
    """What a repair takes that not every shop has: an instrument, and a skill."""
    return repair.instrument, procedure_for(family, repair.id).skill


def _reasons(asked: Asked, bench: Bench, belief: Belief, family: str) -> Iterator[Barred]:
    question, repair = asked.question, asked.repair
    if bench.no_power and (question is None or question.mains is Mains.LIVE or question.stage >= Reach.POWER):
        yield Barred(asked.id, asked.title, bench.no_power)
    needed = (question.instrument,) if question else _takes(repair, family) if repair else ()
    for word in needed:
        if word in bench.lacks:
            yield _lacking(asked.id, asked.title, word)
    far = belief.evidence.far
    seen = far.why_not(question) if question is not None else None
    if seen is not None:
        after = "the drive did not come as far as this." if seen is far.halted_by else "that says it."
        yield Barred(asked.id, asked.title, f"“{seen.line}”: {after}")
    if question is not None and question.once_there and far.proven < question.stage:
        yield Barred(asked.id, asked.title, "The disc was not seen to turn and hold yet.")


def _lacking(move: str, title: str, instrument: str) -> Barred:
    return Barred(move, title, f"This shop has none: {INSTRUMENT_NAMES[Instrument(instrument)].lower()}.")
