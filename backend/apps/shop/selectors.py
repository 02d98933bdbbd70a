"""Reading the shop's figures."""

from __future__ import annotations

from apps.shop.models import Meter, Shop
from spindle.errors import NotFoundError


def the_shop() -> Shop:
    """Return the shop, with our defaults if nobody has set it up."""
    return Shop.objects.filter(pk=1).first() or Shop(pk=1, name="Our shop")


def meters() -> list[Meter]:
    """Return every meter that was set up, by name."""
    return list(Meter.objects.all())


def meter_of(pk: int) -> Meter:
    """Return a meter that is here.

    Raises
    ------
    NotFoundError
    """
    found = Meter.objects.filter(pk=pk, is_here=True).first()
    if found is None:
        raise NotFoundError("There is no such meter, or it is not here any more.")
    return found
