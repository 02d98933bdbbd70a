"""Who works here."""

from __future__ import annotations

from typing import Final

from django.contrib.auth.models import AbstractUser
from django.contrib.sessions.base_session import AbstractBaseSession
from django.db import models


class Role(models.TextChoices):
    """What somebody does here."""

    COUNTER = "counter", "Counter"
    TECHNICIAN = "technician", "Technician"
    MANAGER = "manager", "Manager"


def shown_name(first: str, last: str, username: str) -> str:
    """Return the name that stands on screens and tape."""
    return f"{first} {last}".strip() or username


def names_of(path: str) -> tuple[str, ...]:
    """Return the fields that :func:`shown_name` takes, for whoever needs the name of many rows and no user."""
    return tuple(f"{path}__{name}" for name in ("first_name", "last_name", "username"))


OWNERS_HAND: Final = "owners-page"
"""The name under which an owner's answer is written: nobody signs in with it, and it is nobody of the shop."""


class User(AbstractUser):
    """A person who signs in."""

    role = models.CharField(max_length=20, choices=Role, default=Role.COUNTER)
    has_first_password = models.BooleanField(default=False)
    """Somebody else set the password: nothing else can be done before it is changed."""

    @property
    def shown_name(self) -> str:
        """The name that stands on screens and tape."""
        return shown_name(self.first_name, self.last_name, self.username)


class SignedIn(AbstractBaseSession):
    """A session, with whose it is: so that somebody can see where they are signed in, and end it there."""

    user = models.ForeignKey(User, on_delete=models.CASCADE, null=True, related_name="sessions")
    device = models.CharField(max_length=20, blank=True)
    """What it looked like: a phone, a tablet, a computer."""
    began_at = models.DateTimeField(null=True)


class SecondFactor(models.Model):
    """A code that changes every half minute, from a device that its owner carries (RFC 6238)."""

    user = models.OneToOneField(User, on_delete=models.CASCADE, related_name="factor")
    secret = models.CharField(max_length=64)
    is_on = models.BooleanField(default=False)
    """It is on from the first code that was right."""
    last_step = models.BigIntegerField(default=0)
    """The half minute of the last code: no code is taken twice."""
    recovery = models.JSONField(default=list)
    """Hashes of the codes on paper that are left, each good for one sign-in."""
