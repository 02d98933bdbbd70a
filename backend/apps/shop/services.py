"""What changes of the shop itself: what it has, and when it was last cleared."""

from __future__ import annotations

from datetime import datetime

from apps.shop.models import Shop
from apps.shop.selectors import the_shop
from apps.writing.clearing import clear_old
from apps.writing.once import Command, lock, once
from django.db.models import Q
from spindle.words.bench import Instrument
from spindle.words.duty import Duty


def say_instrument(command: Command, instrument: Instrument, *, is_there: bool) -> None:
    """Say whether the shop has an instrument: what it lacks is no move on any bench."""
    with once(command, Duty.SHOP, "instrument", {"instrument": instrument, "is_there": is_there}) as write:
        lock("shop")
        shop = the_shop()
        if not write.is_replay:
            lacks = sorted(shop.lacks - {instrument} if is_there else shop.lacks | {instrument})
            Shop.objects.update_or_create(pk=1, defaults={"lacks_words": lacks}, create_defaults={"name": shop.name, "lacks_words": lacks})


def clear_once_a_day(now: datetime, shop: Shop) -> None:
    """Clear if nobody has today: whoever comes first in the morning does it, and one alone."""
    today = shop.day_of(now)
    if Shop.objects.filter(pk=1).filter(Q(cleared_on__isnull=True) | Q(cleared_on__lt=today)).update(cleared_on=today):
        clear_old(now)
