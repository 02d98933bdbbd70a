"""Who works here."""

from __future__ import annotations

from django.contrib.auth.models import AbstractUser
from django.db import models


class Role(models.TextChoices):
    """What somebody does here."""

    COUNTER = "counter", "Counter"
    TECHNICIAN = "technician", "Technician"
    MANAGER = "manager", "Manager"


class User(AbstractUser):
    """A person who signs in."""

    role = models.CharField(max_length=20, choices=Role, default=Role.COUNTER)


class Write(models.Model):
    """An idempotency key that was used, and what came of it: the same key writes once."""

    key = models.CharField(max_length=64, unique=True)
    digest = models.CharField(max_length=64)
    result = models.CharField(max_length=60)
    """The tag or name of what was written."""
    by = models.ForeignKey(User, on_delete=models.PROTECT)
    at = models.DateTimeField()
