"""The page that an owner answers a proposal on: reached by a secret, for a while, once."""

from __future__ import annotations

from apps.jobs.models import Job
from django.conf import settings
from django.db import models


class OwnerPage(models.Model):
    """One page. Its secret is not kept: the server makes it anew from its own key, and finds the page by the secret's hash."""

    job = models.ForeignKey(Job, on_delete=models.PROTECT, related_name="owner_pages")
    token_hash = models.CharField(max_length=64, unique=True)
    proposal = models.PositiveIntegerField()
    """Number of the line that it is about: another proposal withdraws it."""
    told = models.JSONField()
    """What it says, as it was when it was made: what the owner agrees to is what stood there."""
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField()
    ends_at = models.DateTimeField()
    seen_at = models.DateTimeField(null=True)
    answered_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ("-pk",)
        indexes = (models.Index(fields=["job"]),)

    def __str__(self) -> str:
        """Return what it is about, never its secret."""
        return f"page of {self.job_id} for line {self.proposal}"
