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
