"""The shelf: kinds of parts, parts, donors, orders. It knows nothing of jobs: what is taken for which is theirs."""

from __future__ import annotations

from apps.drives.models import Sheet
from django.conf import settings
from django.db import models
from django.db.models import F, Q
from spindle.words.health import FUNCTIONS, Health


class Supplier(models.Model):
    """Whom the shop orders from. How long it takes follows from its past orders."""

    name = models.CharField(max_length=80, unique=True)


class Kind(models.Model):
    """A kind of part: its level and the shop's code. ``min_count`` is what the shelf should not fall below. A belt has a size, in mm."""

    level = models.CharField(max_length=20)
    code = models.CharField(max_length=60)
    name = models.CharField(max_length=120)
    min_count = models.PositiveIntegerField(default=0)
    around_mm = models.FloatField(null=True)
    section_mm = models.FloatField(null=True)

    class Meta:
        constraints = (models.UniqueConstraint(fields=["level", "code"], name="one_kind_per_code"),)
        ordering = ("level", "code")


class Donor(models.Model):
    """A unit or drive kept for parts. ``gone`` says what is no longer in it and why: level -> reason."""

    tag = models.CharField(max_length=12, unique=True)
    sheet = models.ForeignKey(Sheet, on_delete=models.PROTECT)
    bought_cents = models.PositiveIntegerField(default=0)
    origin = models.CharField(max_length=160, blank=True)
    place = models.CharField(max_length=60, blank=True)
    gone = models.JSONField(default=dict)
    is_scrapped = models.BooleanField(default=False)
    at = models.DateTimeField()

    class Meta:
        ordering = ("pk",)


class Order(models.Model):
    """Packs of one kind from one supplier. Money in cents."""

    tag = models.CharField(max_length=12, unique=True)
    supplier = models.ForeignKey(Supplier, on_delete=models.PROTECT)
    kind = models.ForeignKey(Kind, on_delete=models.PROTECT)
    packs = models.PositiveIntegerField()
    pack_size = models.PositiveIntegerField(default=1)
    pack_cents = models.PositiveIntegerField()
    ordered_on = models.DateField()
    came = models.PositiveIntegerField(default=0)
    """Pieces that are here already; the rest is still on its way until ``arrived_on``."""
    arrived_on = models.DateField(null=True)
    cancelled = models.CharField(max_length=200, blank=True)
    """Why it was cancelled; empty if it was not."""

    class Meta:
        ordering = ("-pk",)
        constraints = (
            models.CheckConstraint(condition=Q(packs__gt=0) & Q(pack_size__gt=0), name="order_of_something"),
            models.CheckConstraint(condition=Q(came__lte=F("packs") * F("pack_size")), name="no_more_came_than_ordered"),
            models.CheckConstraint(condition=Q(arrived_on__isnull=True) | Q(arrived_on__gte=F("ordered_on")), name="arrives_after_order"),
        )

    @property
    def count(self) -> int:
        """Pieces in it."""
        return self.packs * self.pack_size

    @property
    def left(self) -> int:
        """Pieces that are still to come."""
        return 0 if self.arrived_on else self.count - self.came

    @property
    def piece_cents(self) -> int:
        """Price of one piece, rounded up."""
        return -(-self.pack_cents // self.pack_size)


class Part(models.Model):
    """Equal pieces under one tag. ``count`` is what lies on the shelf now. What belongs to an owner never counts."""

    tag = models.CharField(max_length=16, unique=True)
    kind = models.ForeignKey(Kind, on_delete=models.PROTECT, related_name="parts")
    count = models.IntegerField(default=1)
    health = models.CharField(max_length=8, choices=[(h.value, h.value) for h in Health], default=Health.NEW.value)
    works = models.JSONField(default=list)
    fails = models.JSONField(default=list)
    is_complete = models.BooleanField(default=False)
    """It comes with what a bare one lacks (follower, spring, rods)."""
    lot = models.CharField(max_length=40, blank=True)
    place = models.CharField(max_length=60, blank=True, db_index=True)
    piece_cents = models.PositiveIntegerField(default=0)
    donor = models.ForeignKey(Donor, on_delete=models.PROTECT, null=True, related_name="parts")
    order = models.ForeignKey(Order, on_delete=models.PROTECT, null=True)
    is_owned = models.BooleanField(default=False)
    """It belongs to the owner of a unit in the house: nobody else's, and no stock."""
    at = models.DateTimeField()

    class Meta:
        ordering = ("pk",)
        constraints = (
            models.CheckConstraint(condition=Q(count__gte=0), name="stock_never_below_nothing"),
            models.CheckConstraint(condition=Q(is_owned=False) | Q(count=0), name="custody_is_never_stock"),
        )
        indexes = (models.Index(fields=["kind", "count"]),)


class Check(models.Model):
    """What a part or donor was seen to do: when, by whom, in which unit. The newest of a function counts."""

    part = models.ForeignKey(Part, on_delete=models.CASCADE, null=True, related_name="checks")
    donor = models.ForeignKey(Donor, on_delete=models.CASCADE, null=True, related_name="checks")
    function = models.CharField(max_length=12, choices=[(f, f) for f in FUNCTIONS])
    works = models.BooleanField()
    unit = models.CharField(max_length=60, blank=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField()

    class Meta:
        ordering = ("at", "pk")
        constraints = (models.CheckConstraint(condition=Q(part__isnull=True) ^ Q(donor__isnull=True), name="checked_one_thing"),)


class Movement(models.Model):
    """What happened to a part or donor: append-only, for people."""

    tag = models.CharField(max_length=16, db_index=True)
    what = models.CharField(max_length=40)
    text = models.CharField(max_length=300)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField()

    class Meta:
        ordering = ("at", "pk")
