"""The shop's own figures."""

from __future__ import annotations

import zoneinfo
from datetime import date, datetime

from django.core.exceptions import ValidationError
from django.db import models
from django.utils import timezone
from spindle.diagnosis.given.economy import Economy
from spindle.words.bench import Instrument
from spindle.words.money import sign_of


def check_zone(name: str) -> None:
    """Refuse a time zone that nobody knows."""
    if name not in zoneinfo.available_timezones():
        raise ValidationError(f"{name!r} is no time zone; write one as “Etc/GMT-1” or “UTC”.")


class Shop(models.Model):
    """The one shop that this installation serves. Money in cents of its own currency; days by its own clock."""

    name = models.CharField(max_length=120)
    place = models.CharField(max_length=120, blank=True)
    currency = models.CharField(max_length=3, default="EUR")
    """Three letters (ISO 4217)."""
    time_zone = models.CharField(max_length=40, default="UTC", validators=[check_zone])
    price_cents_per_min = models.PositiveIntegerField(default=90)
    cost_cents_per_min = models.PositiveIntegerField(default=60)
    day_cents = models.PositiveIntegerField(default=120)
    give_up_cents = models.PositiveIntegerField(default=15_000)
    damage_cents = models.PositiveIntegerField(default=6_000)
    shelf_version = models.PositiveBigIntegerField(default=0)
    """Raised by the database itself with every change of shelf, sheets and sayings: what was computed from them may be kept until then."""
    lacks_words = models.JSONField(default=list, blank=True)
    """The instruments that it does not have, by their words."""
    cleared_on = models.DateField(null=True)
    """When used keys, sessions and sign-in records were last cleared."""

    class Meta:
        constraints = (models.CheckConstraint(condition=models.Q(pk=1), name="one_shop"),)

    def economy(self) -> Economy:
        """Return the figures that the advice reckons with, in whole units of the shop's money."""
        return Economy(self.cost_cents_per_min / 100, self.day_cents / 100, self.give_up_cents / 100, self.damage_cents / 100, sign=self.sign)

    @property
    def lacks(self) -> frozenset[Instrument]:
        """The instruments that it does not have."""
        return frozenset(Instrument(word) for word in self.lacks_words)

    @property
    def sign(self) -> str:
        """The sign of its money."""
        return sign_of(self.currency)

    @property
    def clock(self) -> zoneinfo.ZoneInfo:
        """Its time zone."""
        return zoneinfo.ZoneInfo(self.time_zone)

    def today(self) -> date:
        """Return the day that it is at the shop."""
        return timezone.now().astimezone(self.clock).date()

    def day_of(self, moment: datetime) -> date:
        """Return the day of a moment at the shop."""
        return moment.astimezone(self.clock).date()
