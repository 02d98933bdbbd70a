"""The shop's own figures."""

from __future__ import annotations

import zoneinfo
from datetime import date, datetime

from django.core.exceptions import ValidationError
from django.db import models
from django.utils import timezone
from spindle.day.hours import Hours, read_hours
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
    phone = models.CharField(max_length=40, blank=True)
    terms = models.TextField(max_length=1_000, blank=True)
    """What stands under a receipt: what the shop and the owner hold each other to."""
    currency = models.CharField(max_length=3, default="EUR")
    """Three letters (ISO 4217)."""
    time_zone = models.CharField(max_length=40, default="UTC", validators=[check_zone])
    price_cents_per_min = models.PositiveIntegerField(default=90)
    cost_cents_per_min = models.PositiveIntegerField(default=60)
    day_cents = models.PositiveIntegerField(default=120)
    give_up_cents = models.PositiveIntegerField(default=15_000)
    damage_cents = models.PositiveIntegerField(default=6_000)
    late_day_cents = models.PositiveIntegerField(default=300)
    return_cents = models.PositiveIntegerField(default=7_000)
    guarantee_days = models.PositiveIntegerField(default=90)
    """The longest guarantee that is given; a repair whose own is shorter keeps it."""
    opening = models.TextField(max_length=600, default="Mon-Fri 9:00-17:00")
    """When somebody is there, a line for one day or several."""
    closed_days = models.TextField(max_length=2_000, blank=True)
    """Days on which it is shut, a line for each day or row of days."""
    benches = models.PositiveSmallIntegerField(default=1)
    """How many people work at the bench at a time."""
    without_iron = models.PositiveSmallIntegerField(default=0)
    """How many of them do not solder."""
    label_columns = models.PositiveSmallIntegerField(default=3)
    label_rows = models.PositiveSmallIntegerField(default=8)
    """How the sheets of labels in its printer are divided: across, and down."""
    version = models.PositiveIntegerField(default=0)
    """How often somebody changed its figures."""
    shelf_version = models.PositiveBigIntegerField(default=0)
    """Raised by the database itself with every change of shelf, sheets, sayings and what was learnt: what was computed from them may be kept until then."""
    names_version = models.PositiveBigIntegerField(default=0)
    """Raised by the database itself when somebody's name changes: what bears names may be kept until then."""
    lacks_words = models.JSONField(default=list, blank=True)
    """The instruments that it does not have, by their words."""
    cleared_on = models.DateField(null=True)
    """When used keys, sessions and sign-in records were last cleared."""

    class Meta:
        constraints = (models.CheckConstraint(condition=models.Q(pk=1), name="one_shop"),)

    def economy(self) -> Economy:
        """Return the figures that the advice reckons with, in whole units of the shop's money."""
        return Economy(
            rate_eur_per_min=self.cost_cents_per_min / 100,
            day_eur=self.day_cents / 100,
            give_up_eur=self.give_up_cents / 100,
            damage_eur=self.damage_cents / 100,
            late_day_eur=self.late_day_cents / 100,
            return_eur=self.return_cents / 100,
            sign=self.sign,
        )

    def hours(self) -> Hours:
        """Return when it is open."""
        return read_hours(self.opening, self.closed_days)

    def guarantee(self, days: int) -> int:
        """Return the days of guarantee on a repair whose own is so many."""
        return min(days, self.guarantee_days)

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


class Meter(models.Model):
    """A meter that is read over a line: where it is, and how sure it is by its maker's word."""

    name = models.CharField(max_length=60, unique=True)
    address = models.CharField(max_length=120)
    """As ``TCPIP0::192.168.0.9::5025::SOCKET`` or ``ASRL/dev/ttyUSB0::INSTR``."""
    functions = models.JSONField(default=dict)
    """What it reads, and how surely by its maker's word: quantity -> ``pct`` of the value, ``digits`` of the last place, which is worth ``resolution``;
    ``ranges`` with the same of each, ``up_to`` its most."""
    leads_ohm = models.FloatField(null=True)
    """What its tips read touched together; None where nobody has looked."""
    is_here = models.BooleanField(default=True)

    class Meta:
        ordering = ("name",)

    def __str__(self) -> str:
        return self.name
