"""Throw away recordings that were never kept with a job, and those whose jobs were closed half a year ago. References stay, and so does what was heard."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from apps.jobs.models import TapeLine
from apps.sounds.services import CLOSED_DAYS, sweep
from django.core.management.base import BaseCommand
from django.utils import timezone


class Command(BaseCommand):
    """``manage.py sweep_sounds``"""

    help = __doc__

    def handle(self, *_: Any, **__: Any) -> None:
        """Throw them away, and say how many."""
        now = timezone.now()
        wanted = TapeLine.objects.filter(kind="sound").exclude(job__closed_at__lt=now - timedelta(days=CLOSED_DAYS))
        self.stdout.write(f"{sweep(wanted.values_list('body__hash', flat=True), now)} recordings whose time is over are gone")
