"""Reading pictures."""

from __future__ import annotations

from pathlib import Path

from apps.photos.models import Photo
from apps.writing.files import Files
from django.conf import settings
from spindle.errors import NotFoundError


def is_kept(name: str) -> bool:
    """Tell whether there is a picture of that hash."""
    return Photo.objects.filter(hash=name).exists()


def files() -> Files:
    """Return where the pictures lie."""
    return Files(Path(settings.PHOTOS), ".jpg", "picture")


def file_of(name: str) -> Path:
    """Return where the picture of that hash lies."""
    return files().path(name)


def content_of(name: str) -> bytes:
    """Return a picture, a JPEG.

    Raises
    ------
    NotFoundError
        If nobody kept it, or its file is not where it was put.
    """
    if not is_kept(name):
        raise NotFoundError("There is no such picture.")
    return files().read(name)
