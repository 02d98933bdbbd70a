"""Keeping the week worked out, and what closed jobs teach."""

from __future__ import annotations

from collections.abc import Callable

from apps.day.services import draw_unseen, refresh
from apps.record.learning import taught
from apps.record.replaying import replay_closed
from django.utils import timezone


def keep_day(goes_on: Callable[[], bool]) -> None:
    """Work the week out if something has changed; else a job that nobody has drawn yet; else what closed jobs teach, and a few of them played again."""
    if not refresh(timezone.now(), goes_on) and not draw_unseen(goes_on):
        taught()
        replay_closed(goes_on)
