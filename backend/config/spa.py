"""The page that holds the interface."""

from __future__ import annotations

from functools import lru_cache

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.views.decorators.cache import never_cache
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_safe


@lru_cache(maxsize=1)
def _index(mtime: float) -> bytes:
    return bytes((settings.FRONTEND_DIST / "index.html").read_bytes())


@require_safe
@never_cache
@ensure_csrf_cookie
def spa(request: HttpRequest) -> HttpResponse:
    """Return the built page for every address of the interface."""
    file = settings.FRONTEND_DIST / "index.html"
    if not file.exists():
        return HttpResponse("The front end is not built yet: run ./start.", status=503, content_type="text/plain")
    return HttpResponse(_index(file.stat().st_mtime))
