"""Browsers in which somebody has signed in before. Wrong passwords from elsewhere lock the door for strangers, and never for them:
who shares an address with the bench, or knows a name, cannot keep its owner out (OWASP, "Slow down online guessing attacks with device cookies").
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, Final

from django.conf import settings
from django.core import signing
from django.http import HttpRequest, HttpResponse

COOKIE: Final = "known_here"
SALT: Final = "known-browser"
KEPT_S: Final = 180 * 24 * 3600
MOST: Final = 12
"""Names that one browser remembers: a bench's tablet is everybody's."""


def counted_name(request: HttpRequest, credentials: Mapping[str, Any] | None = None) -> str:
    """Return the name under which a wrong password is counted: somebody known in this browser is counted apart from strangers."""
    name = str((credentials or {}).get("username", ""))
    return f"{name} (known here)" if name in _known(request) else name


def remember(request: HttpRequest, answer: HttpResponse, username: str) -> None:
    """Let the browser prove later that this name has signed in here."""
    names = [username, *(n for n in _known(request) if n != username)][:MOST]
    value = signing.dumps(names, salt=SALT)
    answer.set_cookie(COOKIE, value, max_age=KEPT_S, httponly=True, samesite="Lax", secure=settings.SESSION_COOKIE_SECURE)


def _known(request: HttpRequest) -> list[str]:
    try:
        return list(signing.loads(request.COOKIES.get(COOKIE, ""), salt=SALT, max_age=KEPT_S))
    except signing.BadSignature:
        return []
