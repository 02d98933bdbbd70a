"""Keeping pictures: on the disk under the hash of their content, and a row for each."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime, timedelta
from typing import Final

from apps.people.models import User
from apps.people.permissions import require
from apps.photos.models import Photo
from apps.photos.pictures import remade
from apps.photos.selectors import files
from django.utils import timezone
from spindle.words.duty import Duty

UNNAMED_DAYS: Final = 2
"""A picture that neither a tape nor a sheet names after so long was never kept by anybody: its upload was given up."""


def keep_photo(user: User, raw: bytes) -> Photo:
    """Keep a picture, made anew. The same picture is kept once.

    Raises
    ------
    NotAllowedError
        If the user's role may note nothing.
    InvalidError
        If it is no picture, or too large.
    """
    require(user, Duty.NOTE)
    picture = remade(raw)
    files().put(picture.hash, picture.content)
    own = {"width": picture.width, "height": picture.height, "size": len(picture.content)}
    now = {"at": timezone.now()}  # sent again, it is as young as its last sending: nothing sweeps it away before it is named
    return Photo.objects.update_or_create(hash=picture.hash, defaults=now, create_defaults={**own, **now, "by": user})[0]


def sweep(named: Iterable[str], now: datetime) -> int:
    """Throw away what nothing names and nobody has just sent; return how many."""
    old = Photo.objects.filter(at__lt=now - timedelta(days=UNNAMED_DAYS)).exclude(hash__in=list(named))
    gone = list(old.values_list("hash", flat=True))
    old.delete()
    for name in gone:
        files().drop(name)
    return len(gone)
