"""Who works here."""

from __future__ import annotations

from typing import Final

from django.contrib.auth.models import AbstractUser
from django.db import models
from django.db.models.functions import Coalesce, Concat, NullIf, Trim


class Role(models.TextChoices):
    """What somebody does here."""

    COUNTER = "counter", "Counter"
    TECHNICIAN = "technician", "Technician"
    MANAGER = "manager", "Manager"


def shown_name_of(path: str) -> Coalesce:
    """Return :attr:`User.shown_name` as the database computes it, for whoever needs the name of many rows and no user."""
    full = Trim(Concat(f"{path}__first_name", models.Value(" "), f"{path}__last_name"))
    return Coalesce(NullIf(full, models.Value("")), f"{path}__username")


OWNERS_HAND: Final = "owners-page"
"""The name under which an owner's answer is written: nobody signs in with it, and it is nobody of the shop."""


class User(AbstractUser):
    """A person who signs in."""

    role = models.CharField(max_length=20, choices=Role, default=Role.COUNTER)
    has_first_password = models.BooleanField(default=False)
    """Somebody else set the password: nothing else can be done before it is changed."""
    looks = models.PositiveIntegerField(default=0)
    """How often a deeper look was asked for: an older one is given up when this has moved on."""

    @property
    def shown_name(self) -> str:
        """The name that stands on screens and tape."""
        return self.get_full_name() or self.username
