"""Reading recordings, and what is heard in them."""

from __future__ import annotations

from functools import lru_cache
from pathlib import Path

from apps.sounds.models import Reference, Sound
from apps.writing.files import Files
from django.conf import settings
from django.db.models import QuerySet
from spindle.errors import NotFoundError
from spindle.job.sounds import read_heard
from spindle.sound.listening import Heard, Pictured, listen
from spindle.sound.wav import read_wav

MOST_KEPT = 24
"""Pictures that a process keeps: some recordings of each job that is on the benches. What was heard is kept with the recording."""


def files() -> Files:
    """Return where the recordings lie."""
    return Files(Path(settings.SOUNDS), ".wav", "recording")


def is_here(name: str) -> bool:
    """Tell whether the file of a recording is there."""
    return files().path(name).exists()


def content_of(name: str) -> bytes:
    """Return a recording, a WAV file.

    Raises
    ------
    NotFoundError
        If nobody kept it, or its file is not where it was put.
    """
    _row(name)
    return files().read(name)


def heard_in(name: str) -> Heard:
    """Return what was heard in a recording when it was sent.

    Raises
    ------
    NotFoundError
        If nobody kept it.
    """
    return read_heard(_row(name).heard)


def _row(name: str) -> Sound:
    found = Sound.objects.filter(hash=name).first()
    if found is None:
        raise NotFoundError("There is no such recording: it was never kept, or its time was over.")
    return found


def pictured(name: str) -> Pictured:
    """Return what is heard in a recording, with its picture.

    Raises
    ------
    NotFoundError
        If its file is not there.
    """
    if not is_here(name):
        raise NotFoundError("The recording itself is gone: its time was over.")
    return _pictured(files().path(name))


@lru_cache(MOST_KEPT)
def _pictured(file: Path) -> Pictured:
    return listen(read_wav(file.read_bytes()))


def references(variant: str) -> QuerySet[Reference]:
    """Return the standing references of a model, newest first."""
    return Reference.objects.filter(variant=variant, ended_at=None).select_related("sound").order_by("-at")
