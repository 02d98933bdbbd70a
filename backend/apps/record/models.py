"""What is kept of the record, so that nobody waits for it."""

from __future__ import annotations

from django.db import models


class Kept(models.Model):
    """What the closed jobs teach, as it was last worked out."""

    rests_on = models.CharField(max_length=200)
    body = models.JSONField()
