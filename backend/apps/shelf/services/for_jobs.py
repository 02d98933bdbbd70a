"""What jobs do to the shelf. Called inside a job's write, which holds the transaction and has asked for the permission."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime

from apps.drives.selectors import full_sheet
from apps.errors import GoneError, NotNowError
from apps.people.models import User
from apps.shelf.models import Part, Taking, Want
from apps.shelf.selectors import holders, sources_for
from apps.shelf.services.donors import Piece, take_out_of
from apps.shelf.services.pieces import kind_of, locked, note, note_checks, seen_text
from spindle.drives.levels import LEVEL_OF_REPAIR, LEVELS
from spindle.words.health import Health


@dataclass(frozen=True)
class Taker:
    """The job that takes a piece, and the sheet of its drive."""

    job: int
    sheet: int


def take(user: User, tag: str, taker: Taker, at: datetime) -> tuple[Part, Taking]:
    """Take one piece for a job.

    Raises
    ------
    GoneError
        If none is left; says who has it and what else fits the job's drive.
    NotNowError
        If it belongs to an owner.
    """
    part = locked(tag)
    if part.owner_job_id is not None:
        raise NotNowError(f"{part.tag} belongs to the owner of {part.owner_job.tag}: it is not for other units.", reason="custody")  # type: ignore[union-attr]
    if part.count < 1:
        others = [s.tag for s in sources_for(full_sheet(taker.sheet), levels=[part.kind.level]) if s.tag != part.tag]
        have = holders(part)
        who = f" {have[0]['by']} has it for {have[0]['job']}." if have else ""
        raise GoneError(
            f"{part.tag} is gone.{who} Also fits: {', '.join(others[:4]) or 'nothing that is here or on its way'}.", holders=have, others=others[:4]
        )
    part.count -= 1
    part.save(update_fields=["count"])
    return part, Taking.objects.create(part=part, job_id=taker.job, by=user, at=at)


def take_from_donor(user: User, tag: str, level: str, taker: Taker, at: datetime) -> tuple[Part, Taking]:
    """Take a piece straight out of a donor for a job: it gets a tag, as if it had been harvested first."""
    return take(user, take_out_of(user, Piece(tag, level), at).tag, taker, at)


def give_back(user: User, taking: int, job_tag: str, seen: Mapping[str, bool], at: datetime) -> Part:
    """Put a piece that was taken back on the shelf, with what it was seen to do meanwhile."""
    row = Taking.objects.select_for_update().filter(pk=taking).first()
    if row is None or row.ended:
        went = "went home in its unit" if row is not None and row.ended == "fitted" else "is back on the shelf already"
        raise NotNowError(f"That part {went}.", reason="ended")
    part = locked(row.part.tag)
    part.count += 1
    part.save(update_fields=["count"])
    row.ended = "back"
    row.save(update_fields=["ended"])
    if seen:
        note_checks(part, seen, job_tag, user, at)
    note(part.tag, "back", f"from {job_tag}" + (f": {seen_text(seen)}" if seen else ""), user, at)
    return part


def fit_for_good(user: User, taking: int, job_tag: str, at: datetime) -> None:
    """Note that a piece stays in the unit that goes home."""
    row = Taking.objects.select_related("part").get(pk=taking)
    row.ended = "fitted"
    row.save(update_fields=["ended"])
    note(row.part.tag, "fitted", f"in {job_tag}", user, at)


@dataclass(frozen=True)
class Own:
    """An owner's part that leaves its unit."""

    job: int
    job_tag: str
    sheet: int
    level: str
    place: str


def take_out(user: User, own: Own, at: datetime) -> Part:
    """Put an owner's part under a tag of its own: it is chased until it is back, and never counts as stock."""
    codes = full_sheet(own.sheet).codes(own.level)
    code = next(iter(codes), "") or f"{own.level} of {own.job_tag}"
    letter = Part.objects.filter(tag__startswith=f"{own.job_tag}-").count()
    part = Part.objects.create(
        tag=f"{own.job_tag}-{chr(ord('A') + letter)}",
        kind=kind_of(own.level, code, f"{LEVELS[own.level].name} {code}"),
        count=0,
        health=Health.UNKNOWN.value,
        is_complete=True,
        place=own.place,
        owner_job_id=own.job,
        away_since=at,
        at=at,
    )
    note(part.tag, "out", f"out of {own.job_tag}, lies {own.place}", user, at)
    return part


def bring_back(user: User, tag: str, job: int, at: datetime) -> Part:
    """Note that an owner's part is back in its unit.

    Raises
    ------
    NotNowError
        If it is not this job's, or not away.
    """
    part = _owned(tag, job)
    part.away_since = None
    part.save(update_fields=["away_since"])
    note(part.tag, "back", "back in its unit", user, at)
    return part


def release(user: User, tag: str, job: int, by_name: str, at: datetime) -> Part:
    """Note that the owner leaves a part with the shop: from then on it is stock, health not known."""
    part = _owned(tag, job)
    part.owner_job, part.away_since, part.count = None, None, 1
    part.save(update_fields=["owner_job", "away_since", "count"])
    note(part.tag, "released", f"left with the shop by {by_name}", user, at)
    return part


def _owned(tag: str, job: int) -> Part:
    part = locked(tag)
    if part.owner_job_id != job or part.away_since is None:
        raise NotNowError(f"{part.tag} is not away from this unit.", reason="custody")
    return part


def drop_want(job: int, repair: str | None = None) -> None:
    """Note that an open job waits for nothing any more, or no more for the part of one repair."""
    wants = Want.objects.filter(job_id=job)
    (wants if repair is None else wants.filter(repair=repair)).delete()


def set_want(job: int, repair: str, p_success: float, at: datetime) -> None:
    """Note which repair an open job waits for the part of; a repair that takes none waits for nothing."""
    level = LEVEL_OF_REPAIR.get(repair)
    if level is None:
        drop_want(job)
        return
    now = {"repair": repair, "level": level, "p_success": p_success}
    Want.objects.update_or_create(job_id=job, defaults=now, create_defaults={**now, "since": at})
