"""What is kept for a stated time only: answers of the idempotency table, ended sessions, records of signing in."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Final

from apps.people.models import SignedIn
from apps.writing.models import UsedKey
from axes.models import AccessAttempt, AccessFailureLog, AccessLog

KEPT_DAYS: Final = 30
"""Nobody sends a write again after a month, and who signed in when is nobody's business for longer."""


def clear_old(now: datetime) -> int:
    """Throw away what is older than :data:`KEPT_DAYS`, and sessions that have ended; return how many rows went."""
    limit = now - timedelta(days=KEPT_DAYS)
    gone = UsedKey.objects.filter(at__lt=limit).delete()[0] + SignedIn.objects.filter(expire_date__lt=now).delete()[0]
    for kind in (AccessAttempt, AccessFailureLog, AccessLog):
        gone += kind.objects.filter(attempt_time__lt=limit).delete()[0]
    return int(gone)
