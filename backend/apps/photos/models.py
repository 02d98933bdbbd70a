"""Photos: what is known of each. The pictures themselves lie outside the database, under the hash of their content."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class Photo(models.Model):
    """One picture, made anew from what was sent. Which job it is of is said by that job's tape; the same content is one picture."""

    hash = models.CharField(max_length=64, unique=True)
    width = models.PositiveIntegerField()
    height = models.PositiveIntegerField()
    size = models.PositiveIntegerField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField(db_index=True)

    def __str__(self) -> str:
        """Return the beginning of the hash."""
        return self.hash[:12]
