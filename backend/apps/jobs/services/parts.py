"""Parts in and out of a job: taken from the shelf, put back, and what belongs to the owner out of its unit and home again."""

from __future__ import annotations

from collections.abc import Mapping

from apps.errors import InvalidError, NotFoundError, NotNowError
from apps.jobs.models import Job
from apps.jobs.record import Line
from apps.jobs.services.writing import Command, Writing, writing
from apps.people.permissions import Action
from apps.shelf.models import Part
from apps.shelf.services import for_jobs
from spindle.diagnosis.given.case import Stock
from spindle.drives.levels import LEVEL_OF_REPAIR, LEVELS
from spindle.formats.case_file import write_stock
from spindle.job.stages import Stage
from spindle.words.health import Health


def take_part(command: Command, tag: str, repair: str) -> Job:
    """Take one piece for a repair of this job, from the shelf or out of a donor: stock moves, and the advice reckons with it from here.

    Raises
    ------
    GoneError
        If somebody else took the last one.
    InvalidError
        If the repair takes no such part on this drive.
    """
    with writing(command, Action.BENCH, "take_part", {"part": tag, "repair": repair}) as write:
        if not write.is_replay:
            check_open(write)
            take_onto_tape(write, tag, repair)
    return write.job


def take_onto_tape(write: Writing, tag: str, repair: str) -> None:
    """Take a piece and note it on the tape of a write in progress."""
    if repair not in write.model.repair_index:
        raise InvalidError("repair", f"{repair!r} cannot be done on this drive (see its sheet).")
    taker, level = for_jobs.Taker(write.job.pk, write.job.sheet_id), LEVEL_OF_REPAIR.get(repair, "")
    if tag.upper().startswith("D-"):
        part, taking = for_jobs.take_from_donor(write.user, tag, level, taker, write.at)
    else:
        part, taking = for_jobs.take(write.user, tag, taker, write.at)
    if part.kind.level != level:
        raise InvalidError("repair", f"{part.tag} is a {LEVELS[part.kind.level].name.lower()}: “{repair}” takes another part.")
    for_jobs.drop_want(write.job.pk, repair)
    write.append("part", {**write_stock(stock_of(part, repair)), "taking": taking.pk})


def stock_of(part: Part, repair: str) -> Stock:
    """Return a piece as the diagnosis reads it."""
    return Stock(repair, part.tag, Health(part.health), frozenset(part.works), frozenset(part.fails), part.piece_cents / 100)


def put_back(command: Command, line: int, seen: Mapping[str, bool]) -> Job:
    """Put a part that was taken for this job back on the shelf, with what it was seen to do here.

    Raises
    ------
    NotFoundError
        If that line took nothing from the shelf, or is struck.
    """
    with writing(command, Action.BENCH, "put_back", {"line": line, "seen": dict(seen)}) as write:
        if not write.is_replay:
            taken = write.record.parts.get(line)
            if taken is None or not taken.body.get("taking"):
                raise NotFoundError(f"Line {line} took nothing from the shelf, or it is back already.")
            return_to_shelf(write, taken, seen)
            write.append("strike", {"line": line, "why": "back on the shelf"})
    return write.job


def return_to_shelf(write: Writing, taken: Line, seen: Mapping[str, bool]) -> None:
    """Give a taken piece back; a job whose proposal was to fit one wants one again."""
    for_jobs.give_back(write.user, taken.body["taking"], write.job.tag, seen, write.at)
    proposal, repair = write.record.proposal, taken.body["repair"]
    if proposal is not None and proposal.repair == repair:
        for_jobs.set_want(write.job.pk, repair, proposal.p_success, write.at)


def settle_parts(write: Writing) -> None:
    """The unit goes home: what was fitted in it stays there."""
    for taking in write.record.takings:
        for_jobs.fit_for_good(write.user, taking, write.job.tag, write.at)


def take_out_own(command: Command, level: str, place: str) -> Job:
    """Put a part of the owner's that leaves the unit under a tag of its own; it is chased until it is back."""
    with writing(command, Action.BENCH, "take_out", {"level": level, "place": place}) as write:
        if not write.is_replay:
            check_open(write)
            if level not in LEVELS:
                raise InvalidError("level", f"There is no level {level!r}; there are {', '.join(LEVELS)}.")
            own = for_jobs.Own(write.job.pk, write.job.tag, write.job.sheet_id, level, place)
            part = for_jobs.take_out(write.user, own, write.at)
            write.append("custody", {"event": "out", "tag": part.tag, "name": LEVELS[level].name, "place": place})
    return write.job


def bring_own_back(command: Command, tag: str) -> Job:
    """Note that an owner's part is back in its unit."""
    with writing(command, Action.BENCH, "bring_back", {"part": tag}) as write:
        if not write.is_replay:
            part = for_jobs.bring_back(write.user, tag, write.job.pk, write.at)
            write.append("custody", {"event": "back", "tag": part.tag, "name": LEVELS[part.kind.level].name, "place": ""})
    return write.job


def release_own(command: Command, tag: str, by_name: str) -> Job:
    """Note that the owner leaves a part here, by name: only then is it stock.

    Raises
    ------
    InvalidError
        If nobody's name is given.
    """
    with writing(command, Action.AGREE, "release", {"part": tag, "by_name": by_name}) as write:
        if not write.is_replay:
            if not by_name.strip():
                raise InvalidError("by_name", "Who leaves it here? Write down the name.")
            part = for_jobs.release(write.user, tag, write.job.pk, by_name.strip(), write.at)
            write.append("custody", {"event": "released", "tag": part.tag, "name": LEVELS[part.kind.level].name, "place": by_name.strip()})
    return write.job


def check_open(write: Writing) -> None:
    """Refuse a write to a closed job."""
    if Stage(write.job.stage) is Stage.CLOSED:
        raise NotNowError("This job is closed. A return opens a new one.", reason="closed")
