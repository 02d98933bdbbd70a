"""Addresses that open by knowing them: a secret that is kept nowhere, made anew from the server's own key, and found by its hash."""

from __future__ import annotations

import base64
import hashlib
import hmac

from django.conf import settings


def secret_of(what: str, pk: int) -> str:
    """Return the secret of a thing: 256 bits that nobody can make without the server's own key."""
    made = hmac.digest(settings.SECRET_KEY.encode(), f"{what}:{pk}".encode(), "sha256")
    return base64.urlsafe_b64encode(made).decode().rstrip("=")


def hash_of(secret: str) -> str:
    """Return what a thing is found by."""
    return hashlib.sha256(secret.encode()).hexdigest()
