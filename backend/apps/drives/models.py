"""Drive sheets, versioned: a job keeps the version it was done with."""

from __future__ import annotations

from django.db import models


class Sheet(models.Model):
    """One version of the sheet of one drive variant. ``facts`` is the drive object of the case format."""

    maker = models.CharField(max_length=80)
    console = models.CharField(max_length=80)
    revision = models.CharField(max_length=40)
    variant = models.CharField(max_length=40)
    version = models.PositiveIntegerField(default=1)
    is_current = models.BooleanField(default=True)
    facts = models.JSONField()
    looks = models.JSONField(default=dict)
    """What the eye can see, for the identification key: feature id -> value id."""
    notes = models.JSONField(default=list)
    """Values with where they come from and how sure they are: [{what, value, source, confidence}]."""

    class Meta:
        constraints = (
            models.UniqueConstraint(fields=["variant", "version"], name="one_sheet_per_version"),
            models.UniqueConstraint(fields=["variant"], condition=models.Q(is_current=True), name="one_current_sheet"),
        )
        ordering = ("maker", "console", "revision")

    def __str__(self) -> str:
        """Return console, revision and variant."""
        return f"{self.maker} {self.console} {self.revision}, {self.variant}"
