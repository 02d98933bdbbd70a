"""Practice runs: whose, which lesson, which unit, and every move. A run is no job: it has no tag, no tape, no shelf and no day."""

from __future__ import annotations

from apps.drives.models import Sheet
from django.conf import settings
from django.db import models


class Run(models.Model):
    """One practice unit, as far as it was played. Its moves replayed are where it stands."""

    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    lesson = models.CharField(max_length=40)
    seed = models.PositiveIntegerField()
    tells_each = models.BooleanField(default=False)
    """What the planner would have done is told after each move, and not at the end alone."""
    is_led = models.BooleanField(default=False)
    """The next move is shown before each, as on the bench."""
    sheet = models.ForeignKey(Sheet, on_delete=models.PROTECT, null=True)
    """The version of the sheet whose drive it is; None for the well-equipped one of the lesson's family."""
    world = models.CharField(max_length=16, default="")
    """The models that the unit was drawn from: under others the same moves would be another story."""
    moves = models.JSONField(default=list)
    begun_at = models.DateTimeField()
    ended_at = models.DateTimeField(null=True)
    score = models.JSONField(null=True)
    """What it came to, once it is over."""

    class Meta:
        """Newest first, by person."""

        indexes = (models.Index(fields=["by", "-begun_at"]),)

    def __str__(self) -> str:
        """Return the lesson and the unit."""
        return f"{self.lesson} {self.seed}"
