"""Who works here."""

from __future__ import annotations

from typing import ClassVar

from django.contrib.auth.models import AbstractUser, UserManager
from django.db import models


class Role(models.TextChoices):
    """What somebody does here."""

    COUNTER = "counter", "Counter"
    TECHNICIAN = "technician", "Technician"
    MANAGER = "manager", "Manager"


class User(AbstractUser):
    """A person who signs in."""

    role = models.CharField(max_length=20, choices=Role, default=Role.COUNTER)

    objects: ClassVar[UserManager[User]] = UserManager()
