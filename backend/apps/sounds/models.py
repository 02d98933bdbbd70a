"""Recordings: what is known of each, and which is a healthy one of its model. The files lie outside the database, under the hash of their content."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class Sound(models.Model):
    """One recording as it was sent, with what was heard in it then. Which job it is of is said by that job's tape; the same content is one recording."""

    hash = models.CharField(max_length=64, unique=True)
    size = models.PositiveIntegerField()
    heard = models.JSONField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField(db_index=True)

    def __str__(self) -> str:
        """Return the beginning of the hash."""
        return self.hash[:12]


class Reference(models.Model):
    """A recording of a healthy unit, kept for its model: what later ones are laid beside."""

    sound = models.ForeignKey(Sound, on_delete=models.PROTECT)
    variant = models.CharField(max_length=40, db_index=True)
    tag = models.CharField(max_length=20)
    microphone = models.CharField(max_length=120, blank=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField()
    ended_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+", null=True)
    ended_at = models.DateTimeField(null=True)

    class Meta:
        """One standing reference for each recording."""

        constraints = (models.UniqueConstraint(fields=["sound"], condition=models.Q(ended_at=None), name="one_standing_reference"),)

    def __str__(self) -> str:
        """Return the model and the unit."""
        return f"{self.variant} {self.tag}"
