"""Reading who works here."""

from __future__ import annotations

from apps.people.models import OWNERS_HAND, User


def everybody() -> list[User]:
    """Return everybody who ever worked here: who is there still first, by name."""
    return sorted(User.objects.exclude(username=OWNERS_HAND), key=lambda u: (not u.is_active, u.shown_name.lower()))
