"""What changes of the shop itself: its figures, what it has, and when it was last cleared."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime
from typing import Any, Final

from apps.refusals import StaleWriteError
from apps.shop.models import Shop, check_zone
from apps.shop.selectors import the_shop
from apps.writing.clearing import clear_old
from apps.writing.once import Command, lock, once
from apps.writing.traces import trace
from django.core.exceptions import ValidationError
from django.db.models import Q
from spindle.day.hours import check_hands, read_hours
from spindle.errors import InvalidError
from spindle.words.bench import Instrument
from spindle.words.duty import Duty

FIGURES: Final = (
    "name", "place", "phone", "terms", "currency", "time_zone", "price_cents_per_min", "cost_cents_per_min", "day_cents", "late_day_cents",
    "give_up_cents", "damage_cents", "return_cents", "guarantee_days", "opening", "closed_days", "benches", "without_iron", "label_columns", "label_rows",
)  # fmt: skip
"""What a manager may set of the shop."""


def set_figures(command: Command, changes: Mapping[str, Any], *, version: int) -> None:
    """Set some of the shop's figures, each with its trace; they count for every job from then on.

    Raises
    ------
    NotAllowedError, KeyReusedError
    StaleWriteError
        If somebody else has set some since ``version``.
    InvalidError
        If the name is empty, the time zone is none, the hours cannot be read, or nobody would be left who solders.
    """
    told = {name: changes[name] for name in FIGURES if name in changes}
    _check(told)
    with once(command, Duty.SHOP, "figures", {"version": version, **told}) as write:
        lock("shop")
        shop = the_shop()
        if write.is_replay:
            return
        read_hours(told.get("opening", shop.opening), told.get("closed_days", shop.closed_days))
        check_hands(told.get("benches", shop.benches), told.get("without_iron", shop.without_iron))
        if shop.version != version:
            raise StaleWriteError("Somebody else changed the shop’s figures meanwhile. Look at what stands there now, then save again.", version=shop.version)
        was = {name: getattr(shop, name) for name in FIGURES}
        if trace("shop", was, told, by_id=command.user.pk, at=write.at):
            Shop.objects.update_or_create(pk=1, defaults={**told, "version": version + 1}, create_defaults={**was, **told, "version": version + 1})


def _check(told: Mapping[str, Any]) -> None:
    if not told.get("name", "x").strip():
        raise InvalidError("name", "The shop needs a name: it stands on every report.")
    try:
        check_zone(told.get("time_zone", "UTC"))
    except ValidationError as error:
        raise InvalidError("time_zone", error.messages[0]) from error


def say_instrument(command: Command, instrument: Instrument, *, is_there: bool) -> None:
    """Say whether the shop has an instrument: what it lacks is no move on any bench."""
    with once(command, Duty.SHOP, "instrument", {"instrument": instrument, "is_there": is_there}) as write:
        lock("shop")
        shop = the_shop()
        if not write.is_replay:
            lacks = sorted(shop.lacks - {instrument} if is_there else shop.lacks | {instrument})
            trace("shop", {instrument.value: instrument not in shop.lacks}, {instrument.value: is_there}, by_id=command.user.pk, at=write.at)
            Shop.objects.update_or_create(pk=1, defaults={"lacks_words": lacks}, create_defaults={"name": shop.name, "lacks_words": lacks})


def clear_once_a_day(now: datetime, shop: Shop) -> None:
    """Clear if nobody has today: whoever comes first in the morning does it, and one alone."""
    today = shop.day_of(now)
    if Shop.objects.filter(pk=1).filter(Q(cleared_on__isnull=True) | Q(cleared_on__lt=today)).update(cleared_on=today):
        clear_old(now)
