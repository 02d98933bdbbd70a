"""What the state of the bench bars now: the wrong mains, power that is held back, a wait that runs."""

from __future__ import annotations

from datetime import datetime
from types import MappingProxyType
from typing import Final

from spindle.errors import NotNowError
from spindle.faults.model import Question
from spindle.job.hazards import Bars
from spindle.job.value import Job
from spindle.words.bench import DEPTH_NAMES, Depth, Mains, Power, Reach

_TELLS_AFTER: Final = MappingProxyType({"takes a disc": Reach.POWER, "spins a disc": Reach.DISC, "reads": Reach.TURN})
"""How far a half-built unit can be tried, as a sheet says it -> the stage after which something can still be told there."""


def check_mains(job: Job, needed: Mains, now: datetime) -> None:
    """Refuse a step whose mains state is not the one on the bench.

    Raises
    ------
    NotNowError
        Power is held back by an open hazard, or the mains is not in the state that the step needs.
    """
    if needed is Mains.LIVE:
        check_power(job, now)
        if job.power is not Power.LIVE:
            raise NotNowError("This needs the mains live, and it is out. Set the mains state first.", reason="mains_out")
    if needed is Mains.OUT and job.power is not Power.OUT:
        raise NotNowError("This needs the mains out, and it is live. Pull the plug and set the mains state first.", reason="mains_live")


def check_power(job: Job, now: datetime) -> None:
    """Refuse power while a hazard is open.

    Raises
    ------
    NotNowError
    """
    held = job.hazards(now)
    if held:
        raise NotNowError(f"Mains stays out. {held[0].text}", reason="power_held")


def check_wait(job: Job, bars: Bars, now: datetime) -> None:
    """Refuse what a wait bars still.

    Raises
    ------
    NotNowError
    """
    held = job.hazards(now, bars)
    if held:
        raise NotNowError(f"{held[0].says(now)} Whoever knows better lifts the hold, by name.", reason="wait")


def check_hands(job: Job, depth: Depth, now: datetime) -> None:
    """Refuse a hand inside the unit, to some depth, while charge remains there.

    Raises
    ------
    NotNowError
    """
    if depth is not Depth.CLOSED:
        check_wait(job, Bars.OPENING, now)


def check_half_built(job: Job, question: Question) -> None:
    """Refuse what the bench cannot have seen: a half-built drive that does not come so far, by its sheet. Where that says nothing, nothing is barred.

    Raises
    ------
    NotNowError
    """
    at = DEPTH_NAMES[max(job.depth, question.depth)].lower()
    full = job.start.sheet.full
    row = next((r for r in full.rows("half_built") if r["at"] == at and r.get("as_far_as")), None) if full is not None else None
    if row is not None and question.stage > _TELLS_AFTER[str(row["as_far_as"])]:
        raise NotNowError(
            f"Not with the {at}: half-built, {job.start.sheet.variant} {row['as_far_as']} at most, by its sheet. Shut it further, or log it as remembered.",
            reason="half_built",
        )
