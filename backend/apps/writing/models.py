"""Which idempotency keys were used."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class UsedKey(models.Model):
    """An idempotency key that was used, and what came of it: the same key writes once."""

    key = models.CharField(max_length=64, unique=True)
    digest = models.CharField(max_length=64)
    result = models.CharField(max_length=60)
    """The tag or name of what was written."""
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField(db_index=True)


class Trace(models.Model):
    """One change of something that has no tape of its own: a figure of the shop, a person, a place on the shelf. Never changed itself."""

    about = models.CharField(max_length=80, db_index=True)
    """What it is of: ``shop``, ``person nia``, ``part P-0012``."""
    field = models.CharField(max_length=40)
    was = models.JSONField(null=True)
    now = models.JSONField(null=True)
    at = models.DateTimeField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
