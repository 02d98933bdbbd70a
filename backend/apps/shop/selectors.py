"""Reading the shop's figures."""

from __future__ import annotations

from apps.shop.models import Shop


def the_shop() -> Shop:
    """Return the shop, with our defaults if nobody has set it up."""
    return Shop.objects.filter(pk=1).first() or Shop(pk=1, name="Our shop")
