"""What every change of the shelf shares: kinds and tags made on demand, a part under its lock, checks and the trail."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from datetime import datetime
from typing import Any

from apps.people.models import User
from apps.shelf.models import Check, Donor, Kind, Movement, Part
from apps.writing.once import Command, Once, lock, once
from django.db import models
from django.db.models.functions import Length
from spindle.drives.levels import LEVELS
from spindle.errors import InvalidError, NotFoundError
from spindle.stock.conditions import condition
from spindle.words.duty import Duty
from spindle.words.health import FUNCTIONS, Health


@contextmanager
def shelf_write(command: Command, what: str, body: dict[str, Any]) -> Iterator[Once]:
    """Open a write to the shelf, or a replay of one that is done.

    One write to the shelf at a time: whatever it touches, nobody waits for it with something in hand that it needs.

    Raises
    ------
    NotAllowedError, KeyReusedError
    """
    with once(command, Duty.SHELF, what, body) as write:
        if not write.is_replay:
            lock_shelf()
        yield write


def lock_shelf() -> None:
    """Wait until no other transaction is changing the shelf, and hold off those that come, until this one ends."""
    lock("shelf")


def check_level(level: str, *, place: str = "level") -> None:
    """Refuse a level that does not exist.

    Raises
    ------
    InvalidError
    """
    if level not in LEVELS:
        raise InvalidError(place, f"There is no level {level!r}; there are {', '.join(LEVELS)}.")


def kind_of(level: str, code: str, name: str) -> Kind:
    """Return the kind of a code, made if the shelf never held it."""
    check_level(level)
    if not code.strip():
        raise InvalidError("code", "Which part is it? Write its code.")
    return Kind.objects.get_or_create(level=level, code=code.strip(), defaults={"name": name.strip() or f"{LEVELS[level].name} {code}"})[0]


def new_part(kind: Kind, at: datetime, **own: Any) -> Part:
    """Put a part under the next tag; the caller holds the shelf."""
    return Part.objects.create(tag=next_tag(Part, "P"), kind=kind, at=at, **own)


def new_own_part(tag: str, kind: Kind, place: str, at: datetime) -> Part:
    """Put an owner's part under a tag of its own: it never counts as stock."""
    return Part.objects.create(tag=tag, kind=kind, count=0, health=Health.UNKNOWN.value, is_complete=True, place=place, is_owned=True, at=at)


def next_tag(model: type[models.Model], prefix: str, *, begins: int = 0) -> str:
    """Return the next free tag; the caller holds whatever gives such tags.

    One more than the last; where that is taken, for an archive brought tags of its own, one more than the greatest.
    """
    own = model._default_manager.filter(tag__startswith=f"{prefix}-").values_list("tag", flat=True)
    tag = _after(own.order_by("-pk").first() or f"{prefix}-{begins}")
    return tag if not own.filter(tag=tag).exists() else _after(own.order_by(Length("tag").desc(), "-tag").first() or tag)


def _after(tag: str) -> str:
    prefix, number = tag.split("-")
    return f"{prefix}-{int(number) + 1:04d}"


def held(tag: str) -> Part:
    """Return a part that is about to change, or raise NotFoundError; the caller holds the shelf."""
    part = Part.objects.select_related("kind").filter(tag=tag.strip().upper()).first()
    if part is None:
        raise NotFoundError(f"There is no part {tag}.")
    return part


def note_checks(thing: Donor | Part, seen: Mapping[str, bool], unit: str, user: User, at: datetime) -> None:
    """Write down what a part or donor was seen to do; a part's health follows."""
    for function in seen:
        if function not in FUNCTIONS:
            raise InvalidError(f"seen.{function}", f"There is no function {function!r}; there are {', '.join(FUNCTIONS)}.")
    side = {"part": thing} if isinstance(thing, Part) else {"donor": thing}
    Check.objects.bulk_create(Check(**side, function=f, works=w, unit=unit, by=user, at=at) for f, w in seen.items())
    if isinstance(thing, Part):
        known = {c.function: c.works for c in thing.checks.all()}
        now = condition(thing.kind.level, known)
        fresh = thing.health == Health.NEW.value and not now.fails and not now.works
        thing.health = Health.NEW.value if fresh else now.health.value
        thing.works, thing.fails = sorted(now.works), sorted(now.fails)
        thing.save(update_fields=["health", "works", "fails"])


def seen_text(seen: Mapping[str, bool]) -> str:
    """Return what was seen, in words."""
    return ", ".join(f"{f} {'works' if w else 'fails'}" for f, w in seen.items())


def note(tag: str, what: str, text: str, user: User, at: datetime) -> None:
    """Write a line of the trail."""
    Movement.objects.create(tag=tag, what=what, text=text[:300], by=user, at=at)
