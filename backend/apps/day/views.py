"""The calendar under its secret address: no cookie, nothing but days, tags and models."""

from __future__ import annotations

from apps.day.addresses import address_by
from apps.day.calendar import calendar_of
from apps.shop.selectors import the_shop
from apps.writing.limiting import is_guessing
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from django.views.decorators.http import require_safe


@require_safe
def calendar(request: HttpRequest, secret: str) -> HttpResponse:
    """Return the shop's days to a calendar program."""
    if address_by(secret) is None:
        return HttpResponse("There is no such calendar.\n", content_type="text/plain", status=429 if is_guessing(request.META.get("REMOTE_ADDR", "")) else 404)
    answer = HttpResponse(calendar_of(the_shop(), timezone.now()), content_type="text/calendar; charset=utf-8")
    answer["Cache-Control"] = "no-store"
    answer["X-Robots-Tag"] = "noindex"
    return answer
