"""What was worked out of the day, each with what it rests on: nothing here is the truth of anything, and all of it can be thrown away."""

from __future__ import annotations

from apps.drives.models import Sheet
from apps.jobs.models import Job
from django.conf import settings
from django.db import models


class JobWays(models.Model):
    """The ways that a job may go, as they were last drawn."""

    job = models.OneToOneField(Job, on_delete=models.CASCADE, related_name="ways")
    rests_on = models.CharField(max_length=64)
    body = models.JSONField()

    def __str__(self) -> str:
        """Return whose they are."""
        return f"ways of {self.job_id}"


class SheetWays(models.Model):
    """The ways that a unit of a drive may go of which nothing is known yet."""

    sheet = models.OneToOneField(Sheet, on_delete=models.CASCADE, related_name="ways")
    rests_on = models.CharField(max_length=64)
    body = models.JSONField()

    def __str__(self) -> str:
        """Return which drive's they are."""
        return f"ways of sheet {self.sheet_id}"


class WeekPlan(models.Model):
    """The week as it was last worked out."""

    computed_at = models.DateTimeField()
    rests_on = models.CharField(max_length=200)
    body = models.JSONField()

    class Meta:
        constraints = (models.CheckConstraint(condition=models.Q(pk=1), name="one_week"),)

    def __str__(self) -> str:
        """Return how old it is."""
        return f"week of {self.computed_at:%Y-%m-%d %H:%M}"


class CalendarAddress(models.Model):
    """An address under which a calendar program fetches the shop's days. Its secret is not kept, only its hash; taking it back is for good."""

    token_hash = models.CharField(max_length=64, unique=True)
    name = models.CharField(max_length=60)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField()
    ended_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ("-pk",)

    def __str__(self) -> str:
        """Return what it is called, never its secret."""
        return self.name
