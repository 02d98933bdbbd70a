"""Donors: kept, harvested piece by piece, thrown away."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from apps.drives.models import Sheet
from apps.drives.selectors import sheet_of
from apps.people.models import User
from apps.shelf.models import Check, Donor, Part
from apps.shelf.selectors import donor_by_tag, donor_pieces, part_by_tag, piece_cents
from apps.shelf.services.pieces import check_level, kind_of, lock_shelf, new_part, next_tag, note, shelf_write
from apps.writing.once import Command
from spindle.drives.levels import LEVELS
from spindle.errors import NotNowError


def add_donor(command: Command, variant: str, *, bought_cents: int, origin: str, place: str) -> Donor:
    """Keep a unit or drive for parts."""
    with shelf_write(command, "donor", {"variant": variant, "cents": bought_cents, "origin": origin, "place": place}) as write:
        if write.is_replay:
            return donor_by_tag(write.result)
        donor = keep_donor(command.user, sheet_of(variant), bought_cents=bought_cents, origin=origin, place=place, at=write.at)
        write.result = donor.tag
    return donor_by_tag(donor.tag)


def keep_donor(user: User, sheet: Sheet, *, origin: str, at: datetime, bought_cents: int = 0, place: str = "") -> Donor:
    """Keep a unit or drive for parts, inside the caller's transaction."""
    lock_shelf()
    donor = Donor.objects.create(tag=next_tag(Donor, "D"), sheet=sheet, bought_cents=bought_cents, origin=origin, place=place, at=at)
    note(donor.tag, "came", f"kept for parts: {origin}", user, at)
    return donor


def harvest(command: Command, tag: str, level: str, place: str) -> Part:
    """Take a piece out of a donor and put it on the shelf; it keeps its origin and what the donor was seen to do with it.

    Raises
    ------
    NotNowError
        If the piece is gone already.
    """
    with shelf_write(command, "harvest", {"tag": tag, "level": level, "place": place}) as write:
        if write.is_replay:
            return part_by_tag(write.result)
        part = take_out_of(command.user, PieceAsked(tag, level, place), write.at)
        write.result = part.tag
    return part


@dataclass(frozen=True)
class PieceAsked:
    """One piece of one donor, and where it will lie."""

    donor: str
    level: str
    place: str = ""


def take_out_of(user: User, asked: PieceAsked, at: datetime) -> Part:
    """Take a piece out of a donor, inside the caller's transaction.

    Raises
    ------
    NotNowError
        If the piece is gone already.
    """
    donor = _held_donor(asked.donor)
    pieces, level = donor_pieces(donor), asked.level
    piece = next((p for p in pieces if p.level == level), None)
    if piece is None or piece.gone:
        raise NotNowError(f"{donor.tag} has no {LEVELS[level].name.lower() if level in LEVELS else level} any more.", reason="gone")
    kind = kind_of(level, piece.code, f"{LEVELS[level].name} {piece.code}")
    cents = piece_cents(donor, level)
    known = {"health": piece.condition.health.value, "works": sorted(piece.condition.works), "fails": sorted(piece.condition.fails)}
    part = new_part(kind, at, donor=donor, is_complete=True, place=asked.place, piece_cents=cents, **known)
    for check in donor.checks.all():
        if check.function in LEVELS[level].functions:
            Check.objects.create(part=part, function=check.function, works=check.works, unit=check.unit or donor.tag, by=check.by, at=check.at)
    donor.gone = {**donor.gone, level: f"harvested as {part.tag}"}
    donor.save(update_fields=["gone"])
    note(donor.tag, "harvested", f"{LEVELS[level].name} taken out, now {part.tag}", user, at)
    note(part.tag, "harvested", f"out of {donor.tag}", user, at)
    return part


def scrap_donor(command: Command, tag: str, why: str, level: str = "") -> Donor:
    """Throw a donor away, or one piece that is left in it, with a reason."""
    with shelf_write(command, "scrap_donor", {"tag": tag, "why": why, "level": level}) as write:
        if not write.is_replay:
            donor = _held_donor(tag)
            if level:
                check_level(level)
                donor.gone = {**donor.gone, level: f"thrown away: {why}"}
            else:
                donor.is_scrapped = True
            donor.save(update_fields=["gone", "is_scrapped"])
            what = LEVELS[level].name.lower() if level else "what was left"
            note(donor.tag, "scrapped", f"{what} thrown away: {why}", command.user, write.at)
            write.result = donor.tag
    return donor_by_tag(tag)


def _held_donor(tag: str) -> Donor:
    donor = donor_by_tag(tag)
    if donor.is_scrapped:
        raise NotNowError(f"{donor.tag} was thrown away.", reason="gone")
    return donor
