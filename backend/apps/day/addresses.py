"""Addresses under which calendar programs fetch the days: made and taken back by who runs the shop."""

from __future__ import annotations

from apps.day.models import CalendarAddress
from apps.people.models import User
from apps.people.permissions import require
from apps.writing.once import Command, once
from apps.writing.secrets import hash_of, secret_of
from spindle.errors import InvalidError, NotFoundError
from spindle.words.duty import Duty


def addresses(user: User) -> list[CalendarAddress]:
    """Return the addresses that stand; for managers."""
    require(user, Duty.SHOP)
    return list(CalendarAddress.objects.filter(ended_at__isnull=True))


def path_of(address: CalendarAddress) -> str:
    """Return where it is fetched."""
    return f"/c/{secret_of('calendar', address.pk)}.ics"


def address_by(secret: str) -> CalendarAddress | None:
    """Return the address with that secret, if it stands."""
    return CalendarAddress.objects.filter(token_hash=hash_of(secret), ended_at__isnull=True).first()


def make_address(command: Command, name: str) -> None:
    """Make an address for somebody's calendar.

    Raises
    ------
    NotAllowedError, KeyReusedError
    InvalidError
        If it has no name: nobody would know later which to take back.
    """
    if not name.strip():
        raise InvalidError("name", "Say whose calendar it is for: you will want to know which one to take back.")
    with once(command, Duty.SHOP, "calendar", {"name": name}) as write:
        if not write.is_replay:
            made = CalendarAddress.objects.create(token_hash=command.key, name=name.strip(), by=command.user, at=write.at)
            made.token_hash = hash_of(secret_of("calendar", made.pk))
            made.save(update_fields=["token_hash"])


def end_address(command: Command, number: int) -> None:
    """Take an address back, for good.

    Raises
    ------
    NotAllowedError, KeyReusedError
    NotFoundError
        If there is none, or it is taken back already.
    """
    with once(command, Duty.SHOP, "end_calendar", {"number": number}) as write:
        if not write.is_replay and not CalendarAddress.objects.filter(pk=number, ended_at__isnull=True).update(ended_at=write.at):
            raise NotFoundError("That address is taken back already.")
