"""The mains: out, standby (plug in, console off), live."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, Final

from spindle.job.asking import NOTHING_CHANGES, OPEN, AskKind, Decision, LineKind, Needs, World, one
from spindle.job.barring import check_power
from spindle.job.hazards import after_mains
from spindle.job.line import Line
from spindle.job.value import Job
from spindle.words.bench import POWER_NAMES, Power


@dataclass(frozen=True, slots=True)
class SetMains:
    """Say in which state the mains is."""

    state: Power


def _decide(job: Job, ask: SetMains, world: World) -> Decision:
    if ask.state is not Power.OUT:
        check_power(job, world.now)
    return NOTHING_CHANGES if ask.state is job.power else one("mains", {"state": ask.state.value})


def _state(body: Mapping[str, Any]) -> Power:
    """Return the state that a line says; older lines know live and out alone."""
    return Power(body["state"]) if "state" in body else Power.LIVE if body["is_live"] else Power.OUT


def _fold(job: Job, line: Line) -> Job:
    """Whoever makes it live says by that that what was wetted is dry."""
    power = _state(line.body)
    holds = after_mains(job.holds, job.power, power, line.at, job.start.sheet.waits)
    return replace(job, power=power, wet=frozenset() if power is Power.LIVE else job.wet, holds=holds)


KIND: Final = LineKind("mains", lambda body, _: POWER_NAMES[_state(body)], _fold, (AskKind("mains", SetMains, _decide, Needs(OPEN)),))
