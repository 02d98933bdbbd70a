"""What is kept of the record, so that nobody waits for it."""

from __future__ import annotations

from apps.jobs.models import Job
from django.db import models


class Kept(models.Model):
    """What the closed jobs teach, as it was last worked out."""

    rests_on = models.CharField(max_length=200)
    body = models.JSONField()


class Replayed(models.Model):
    """A closed job whose cause was confirmed, played again by each way; empty where it cannot be played in the models of today."""

    job = models.OneToOneField(Job, on_delete=models.CASCADE, related_name="replayed")
    version = models.PositiveIntegerField()
    """The job's version that was played."""
    world = models.CharField(max_length=40)
    """The models and figures that it was played by."""
    cents = models.JSONField(default=dict)
    """Way -> what it costs."""
