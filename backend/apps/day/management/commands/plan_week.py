"""Work the week out once, now. The server keeps it worked out by itself."""

from __future__ import annotations

from typing import Any

from apps.day.services import draw_unseen, refresh
from django.core.management.base import BaseCommand
from django.utils import timezone


class Command(BaseCommand):
    """``manage.py plan_week``"""

    help = __doc__

    def handle(self, *_: Any, **__: Any) -> None:
        """Work it out, and say what was done."""
        self.stdout.write(f"the week is {'worked out anew' if refresh(timezone.now()) else 'as it was'}; {draw_unseen()} drives drawn")
