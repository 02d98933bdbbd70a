"""Sessions that know whose they are. The engine of ``SESSION_ENGINE``."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from apps.people.models import SignedIn, User
from django.contrib.auth import SESSION_KEY
from django.contrib.sessions.backends.db import SessionStore as Stored
from django.utils import timezone

DEVICE, BEGAN = "device", "began_at"


class SessionStore(Stored):
    """Django's own store, with the user beside the data."""

    @classmethod
    def get_model_class(cls) -> type[SignedIn]:
        """Return the model."""
        return SignedIn

    def create_model_instance(self, data: dict[str, Any]) -> SignedIn:
        """Return the row of a session, with whose it is."""
        row = super().create_model_instance(data)
        assert isinstance(row, SignedIn)  # of get_model_class
        row.user_id = int(data[SESSION_KEY]) if data.get(SESSION_KEY) else None
        row.device, row.began_at = data.get(DEVICE, ""), datetime.fromisoformat(data[BEGAN]) if data.get(BEGAN) else None
        return row


def device_of(agent: str) -> str:
    """Return what a browser looks like, in a word: nobody needs to know more of it.

    >>> device_of("Mozilla/5.0 (Linux; Android 14; Mobile) …"), device_of("")
    ('phone', 'computer')
    """
    words = agent.lower()
    if "ipad" in words or "tablet" in words or ("android" in words and "mobile" not in words):
        return "tablet"
    return "phone" if "mobile" in words else "computer"


def sessions_of(user: User) -> list[SignedIn]:
    """Return where somebody is signed in, the newest first."""
    return list(SignedIn.objects.filter(user=user, expire_date__gt=timezone.now()).order_by("-began_at"))


def end_others(user: User, key: str | None) -> int:
    """End every session of somebody's but the one of that key, and return how many."""
    gone, _ = SignedIn.objects.filter(user=user).exclude(session_key=key).delete()
    return gone
