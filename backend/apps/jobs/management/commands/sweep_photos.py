"""Throw away pictures that were sent and never kept with a job or a sheet."""

from __future__ import annotations

from typing import Any

from apps.drives.consoles import pictures_of_sheets
from apps.jobs.models import TapeLine
from apps.photos.services import sweep
from django.core.management.base import BaseCommand
from django.utils import timezone


class Command(BaseCommand):
    """``manage.py sweep_photos``"""

    help = __doc__

    def handle(self, *_: Any, **__: Any) -> None:
        """Throw them away, and say how many."""
        named = [*TapeLine.objects.filter(kind="photo").values_list("body__hash", flat=True), *pictures_of_sheets()]
        self.stdout.write(f"{sweep(named, timezone.now())} pictures that neither a tape nor a sheet names are gone")
