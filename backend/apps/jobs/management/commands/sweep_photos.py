"""Throw away pictures that were sent and never kept with a job."""

from __future__ import annotations

from typing import Any

from apps.jobs.models import TapeLine
from apps.photos.services import sweep
from django.core.management.base import BaseCommand
from django.utils import timezone


class Command(BaseCommand):
    """``manage.py sweep_photos``"""

    help = __doc__

    def handle(self, *_: Any, **__: Any) -> None:
        """Throw them away, and say how many."""
        named = TapeLine.objects.filter(kind="photo").values_list("body__hash", flat=True)
        self.stdout.write(f"{sweep(named, timezone.now())} pictures that no tape names are gone")
