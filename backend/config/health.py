"""Is it alive, and can it work: for a proxy and whoever watches. No cookie, nothing of what is in the shop."""

from __future__ import annotations

import shutil
from typing import Final

from django.conf import settings
from django.core.cache import cache
from django.db import DatabaseError, connection
from django.db.migrations.executor import MigrationExecutor
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.views.decorators.http import require_safe

LEAST_FREE: Final = 500_000_000
"""Bytes of disk: with less, a photo, a recording or a backup may fail soon."""
_UP_TO_DATE: Final = "health-up-to-date"


@require_safe
def health(request: HttpRequest) -> HttpResponse:
    """Say that this process answers, whatever else is wrong."""
    return HttpResponse("alive\n", content_type="text/plain")


@require_safe
def ready(request: HttpRequest) -> JsonResponse:
    """Say whether people can work: 200, or 503 with what is wrong in words."""
    wrong = [*_database(), *_disk()]
    return JsonResponse({"is_ready": not wrong, "wrong": wrong}, status=503 if wrong else 200)


def _database() -> list[str]:
    try:
        with connection.cursor() as cursor:
            cursor.execute("SELECT 1")
        if cache.get(_UP_TO_DATE):
            return []
        plan = MigrationExecutor(connection).loader
        if set(plan.disk_migrations) - set(plan.applied_migrations):
            return ["the database is older than the application: stop it, and start it again"]
    except DatabaseError:
        return ["the database does not answer"]
    cache.set(_UP_TO_DATE, 1, None)
    return []


def _disk() -> list[str]:
    free = shutil.disk_usage(settings.STATE).free
    return [f"only {free // 1_000_000} MB are free on the disk of photos and recordings"] if free < LEAST_FREE else []
