"""Parts on the shelf: coming, thrown away, checked, and how many there should be."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict, dataclass
from datetime import datetime

from apps.people.models import User
from apps.shelf.models import Donor, Kind, Part
from apps.shelf.selectors import donor_by_tag, part_by_tag
from apps.shelf.services.pieces import held, kind_of, new_part, note, note_checks, seen_text, shelf_write
from apps.writing.once import Command
from spindle.errors import InvalidError, NotFoundError, NotNowError
from spindle.words.health import Health


@dataclass(frozen=True)
class Arrival:
    """Parts that come onto the shelf. ``pack_cents`` is the price of ``pack_size`` pieces."""

    level: str
    code: str
    name: str
    count: int
    pack_size: int = 1
    pack_cents: int = 0
    health: str = Health.NEW.value
    is_complete: bool = False
    lot: str = ""
    place: str = ""


def receive(command: Command, arrival: Arrival) -> Part:
    """Put parts on the shelf under one tag; the price of a piece is that of the pack, rounded up."""
    with shelf_write(command, "receive", vars(arrival)) as write:
        if write.is_replay:
            return part_by_tag(write.result)
        part = arrived(arrival, command.user, write.at)
        write.result = part.tag
    return part


def arrived(arrival: Arrival, user: User, at: datetime) -> Part:
    """Put parts on the shelf; the caller holds it.

    Raises
    ------
    InvalidError
    """
    if arrival.count < 1 or arrival.pack_size < 1:
        raise InvalidError("count", "How many came? At least one.")
    cents = -(-arrival.pack_cents // arrival.pack_size)
    own = {"count": arrival.count, "health": arrival.health, "is_complete": arrival.is_complete, "lot": arrival.lot, "place": arrival.place}
    part = new_part(kind_of(arrival.level, arrival.code, arrival.name), at, piece_cents=cents, **own)
    note(part.tag, "came", f"{arrival.count} put on the shelf", user, at)
    return part


def set_minimum(command: Command, level: str, code: str, count: int) -> Kind:
    """Say how many of a kind should be here or on their way at least."""
    with shelf_write(command, "minimum", {"level": level, "code": code, "count": count}) as write:
        kind = Kind.objects.filter(level=level, code=code).first()
        if kind is None:
            raise NotFoundError(f"The shelf has never held {code}.")
        if not write.is_replay:
            kind.min_count = count
            kind.save(update_fields=["min_count"])
            write.result = code
    return kind


def set_size(command: Command, tag: str, around_mm: float, section_mm: float) -> Part:
    """Say how long around belts of that kind are when they lie free, and how thick, in mm: the belt calculator finds them on the shelf by these.

    Raises
    ------
    NotAllowedError, KeyReusedError
    NotFoundError
        If there is no such part.
    InvalidError
        If it is no belt.
    """
    with shelf_write(command, "size", {"tag": tag, "around_mm": around_mm, "section_mm": section_mm}) as write:
        part = held(tag)
        if part.kind.level != "belt":
            raise InvalidError("tag", f"{part.kind.name} is no belt: it has no length around.")
        if not write.is_replay:
            part.kind.around_mm, part.kind.section_mm = around_mm, section_mm
            part.kind.save(update_fields=["around_mm", "section_mm"])
            write.result = part.tag
    return part


def scrap(command: Command, tag: str, count: int, why: str) -> Part:
    """Throw pieces away, with a reason.

    Raises
    ------
    NotNowError
        If fewer are here.
    """
    with shelf_write(command, "scrap", {"tag": tag, "count": count, "why": why}) as write:
        if write.is_replay:
            return part_by_tag(tag)
        part = held(tag)
        if count < 1 or part.count < count:
            raise NotNowError(f"{part.tag} has {part.count} here, not {count}.", reason="too_few")
        part.count -= count
        part.save(update_fields=["count"])
        note(part.tag, "scrapped", f"{count} thrown away: {why}", command.user, write.at)
        write.result = part.tag
    return part


def check_health(command: Command, tag: str, seen: Mapping[str, bool], unit: str) -> None:
    """Write down what a part or a donor was seen to do, function by function, and in which unit."""
    body = {"tag": tag, "seen": dict(seen), "unit": unit}
    with shelf_write(command, "check", body) as write:
        if not write.is_replay:
            thing: Donor | Part = donor_by_tag(tag) if tag.upper().startswith("D-") else held(tag)
            note_checks(thing, seen, unit, command.user, write.at)
            note(tag.upper(), "checked", seen_text(seen) + (f" in {unit}" if unit else ""), command.user, write.at)
            write.result = tag


@dataclass(frozen=True)
class Correction:
    """What of a part is otherwise than written; None stays."""

    count: int | None = None
    place: str | None = None
    piece_cents: int | None = None
    lot: str | None = None


def correct(command: Command, tag: str, told: Correction) -> Part:
    """Put right what is written of a part; its trail keeps what stood there. Counting the same again is written down too: somebody looked.

    Raises
    ------
    NotNowError
        If it belongs to an owner: what is in custody is never counted.
    """
    with shelf_write(command, "correct", {"tag": tag, **asdict(told)}) as write:
        if write.is_replay:
            return part_by_tag(tag)
        part = held(tag)
        put_right(part, told, command.user, write.at)
        write.result = part.tag
    return part


def put_right(part: Part, told: Correction, user: User, at: datetime) -> None:
    """Put right what is written of a part; the caller holds the shelf.

    Raises
    ------
    NotNowError
    """
    if part.is_owned:
        raise NotNowError(f"{part.tag} belongs to an owner: it is no stock to be counted or priced.", reason="custody")
    if told.count is not None:
        same = f"counted: {told.count} here" + ("" if told.count == part.count else f" (was {part.count})")
        note(part.tag, "counted", same, user, at)
    for name, said in (("place", "lies"), ("piece_cents", "a piece costs, in cents"), ("lot", "lot")):
        new, old = getattr(told, name), getattr(part, name)
        if new is not None and new != old:
            note(part.tag, "corrected", f"{said}: {new or 'nowhere written'} (was {old or 'not written'})", user, at)
    for name, new in asdict(told).items():
        if new is not None:
            setattr(part, name, new)
    part.save()
