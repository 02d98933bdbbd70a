"""The shop's own figures."""

from __future__ import annotations

from django.db import models
from spindle.diagnosis.given.economy import Economy


class Shop(models.Model):
    """The one shop that this installation serves. Money in cents."""

    name = models.CharField(max_length=120)
    place = models.CharField(max_length=120, blank=True)
    price_cents_per_min = models.PositiveIntegerField(default=90)
    cost_cents_per_min = models.PositiveIntegerField(default=60)
    day_cents = models.PositiveIntegerField(default=120)
    give_up_cents = models.PositiveIntegerField(default=15_000)
    damage_cents = models.PositiveIntegerField(default=6_000)

    class Meta:
        constraints = (models.CheckConstraint(condition=models.Q(pk=1), name="one_shop"),)

    def economy(self) -> Economy:
        """Return the figures that the advice reckons with, in euro."""
        return Economy(self.cost_cents_per_min / 100, self.day_cents / 100, self.give_up_cents / 100, self.damage_cents / 100)
