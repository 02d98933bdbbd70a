"""``manage.py rebuild_jobs``: what is kept of each job beside its tape, made anew from it."""

from __future__ import annotations

from typing import Any

from apps.jobs.services.rebuilding import rebuild
from django.core.management.base import BaseCommand


class Command(BaseCommand):
    """Make anew what is kept of each job beside its tape."""

    help = "Make anew what lists and searches keep of each open job, from its tape. A job that cannot be read is named."

    def handle(self, *args: Any, **options: Any) -> None:
        """Run."""
        bad = rebuild()
        for tag, why in bad:
            self.stderr.write(f"{tag} cannot be read: {why}")
