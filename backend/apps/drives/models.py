"""Drive sheets, versioned: a job keeps the version it was done with. And what the shop says about which part fits where."""

from __future__ import annotations

from typing import Final

from django.conf import settings
from django.db import models
from spindle.drives.matching import VERDICT_NAMES
from spindle.drives.tables import ORIGIN_NAMES, Confidence

BODY: Final = ("facts", "looks", "tables", "sources")
"""What of a sheet is a hundred times the rest of its row; read where the sheet itself is, and by nobody who only names it."""


class Sheet(models.Model):
    """One version of the sheet of one drive variant, in the parts of the sheet format. A version never changes."""

    maker = models.CharField(max_length=80)
    console = models.CharField(max_length=80)
    revision = models.CharField(max_length=40)
    variant = models.CharField(max_length=40)
    version = models.PositiveIntegerField(default=1)
    is_current = models.BooleanField(default=True)
    is_retired = models.BooleanField(default=False)
    """Nobody takes such a unit in any more: jobs and the past keep it."""
    facts = models.JSONField()
    """The drive object of the case format."""
    looks = models.JSONField(default=dict)
    """What the eye can see, for the identification key: feature id -> value id."""
    tables = models.JSONField(default=dict)
    """Table id -> rows."""
    sources = models.JSONField(default=dict)
    """Fact -> where it comes from and how sure it is."""
    why = models.CharField(max_length=300, blank=True)
    """What changed against the version before."""
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, null=True)
    at = models.DateTimeField(null=True)

    class Meta:
        constraints = (
            models.UniqueConstraint(fields=["variant", "version"], name="one_sheet_per_version"),
            models.UniqueConstraint(fields=["variant"], condition=models.Q(is_current=True), name="one_current_sheet"),
        )
        ordering = ("maker", "console", "revision")

    def __str__(self) -> str:
        """Return console, revision and variant."""
        return f"{self.maker} {self.console} {self.revision}, {self.variant}"


class Console(models.Model):
    """One version of the sheet of one console revision: what is outside its drive, whichever of several it carries. A version never changes."""

    maker = models.CharField(max_length=80)
    console = models.CharField(max_length=80)
    revision = models.CharField(max_length=40)
    version = models.PositiveIntegerField(default=1)
    is_current = models.BooleanField(default=True)
    tables = models.JSONField(default=dict)
    """Table id -> rows."""
    why = models.CharField(max_length=300, blank=True)
    """What changed against the version before."""
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField()

    class Meta:
        constraints = (
            models.UniqueConstraint(fields=["maker", "console", "revision", "version"], name="one_console_per_version"),
            models.UniqueConstraint(fields=["maker", "console", "revision"], condition=models.Q(is_current=True), name="one_current_console"),
        )
        ordering = ("maker", "console", "revision")

    def __str__(self) -> str:
        """Return maker, console and revision."""
        return f"{self.maker} {self.console} {self.revision}"


class Layer(models.Model):
    """What closed jobs taught, as it was put to use: a version. Nothing of it changes but whether it is in use."""

    number = models.PositiveIntegerField(unique=True)
    body = models.JSONField()
    """The numbers that take the place of shipped ones, those of the parts in use alone."""
    parts = models.JSONField()
    """Which parts of what was learnt are in it, each with how it was judged."""
    jobs = models.PositiveIntegerField()
    """How many closed jobs taught it."""
    through = models.DateTimeField()
    """When the last of them closed."""
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="layers")
    at = models.DateTimeField()
    is_used = models.BooleanField(default=True)
    ended_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, null=True, related_name="layers_ended")
    ended_at = models.DateTimeField(null=True)

    class Meta:
        constraints = (models.UniqueConstraint(fields=["is_used"], condition=models.Q(is_used=True), name="one_layer_in_use"),)
        ordering = ("-number",)


class Saying(models.Model):
    """Somebody says whether a kind of part fits a drive variant. Never changed: who thinks otherwise says so anew."""

    level = models.CharField(max_length=20)
    code = models.CharField(max_length=60)
    variant = models.CharField(max_length=40)
    verdict = models.CharField(max_length=12, choices=[(v.value, name) for v, name in VERDICT_NAMES.items()])
    reason = models.CharField(max_length=300, blank=True)
    works = models.JSONField(default=list)
    """Functions in which it works, where it fits in part."""
    origin = models.CharField(max_length=12, choices=[(o.value, name) for o, name in ORIGIN_NAMES.items()])
    confidence = models.CharField(max_length=12, choices=[(c.value, c.value) for c in Confidence])
    said = models.CharField(max_length=120, blank=True)
    """Whose claim it is, or in which job it was found."""
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField()

    class Meta:
        ordering = ("pk",)
        indexes = (models.Index(fields=["variant", "level"]), models.Index(fields=["level", "code"]))
