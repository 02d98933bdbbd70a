"""``manage.py clear_old``: throw away what is kept for a stated time only."""

from __future__ import annotations

from typing import Any

from apps.writing.clearing import KEPT_DAYS, clear_old
from django.core.management.base import BaseCommand
from django.utils import timezone


class Command(BaseCommand):
    """Clear used keys, ended sessions and records of signing in."""

    help = f"Throw away used keys and records of signing in older than {KEPT_DAYS} days, and sessions that have ended."

    def handle(self, *args: Any, **options: Any) -> None:
        """Run."""
        clear_old(timezone.now())
