"""Keeping recordings: on the disk under the hash of their content, and a row for each; and references of a model."""

from __future__ import annotations

import hashlib
from collections.abc import Iterable
from datetime import datetime, timedelta
from typing import Final

from apps.people.models import User
from apps.people.permissions import require
from apps.sounds.models import Reference, Sound
from apps.sounds.selectors import files
from apps.writing.once import Command, once
from django.utils import timezone
from spindle.errors import NotFoundError, NotNowError
from spindle.job.sounds import read_heard, written_heard
from spindle.sound.listening import listen
from spindle.sound.quality import Grade
from spindle.sound.wav import read_wav
from spindle.words.duty import Duty

UNNAMED_DAYS: Final = 2
"""A recording that no tape names after so long was never kept by anybody: its upload was given up."""
CLOSED_DAYS: Final = 180
"""So long after its job is closed a recording is kept: half a year is when returns come. What was heard stays on the tape; a model's reference stays."""


def keep_sound(user: User, raw: bytes) -> Sound:
    """Keep a recording with what is heard in it. The same recording is kept once.

    Raises
    ------
    NotAllowedError
        If the user's role does not work at the bench.
    SoundError
        If it cannot be read; nothing is kept then.
    """
    require(user, Duty.BENCH)
    recording, name, now = read_wav(raw), hashlib.sha256(raw).hexdigest(), {"at": timezone.now()}
    if Sound.objects.filter(hash=name).update(**now):  # sent again, it is as young as its last sending: nothing sweeps it away before it is named
        files().put(name, raw)
        return Sound.objects.get(hash=name)
    heard = written_heard(listen(recording))
    files().put(name, raw)
    return Sound.objects.get_or_create(hash=name, defaults={"size": len(raw), "heard": heard, **now, "by": user})[0]


def keep_reference(command: Command, name: str, *, variant: str, tag: str, microphone: str) -> None:
    """Keep a recording as a healthy one of its model.

    Raises
    ------
    NotFoundError
        If there is no such recording.
    NotNowError
        If it is a poor one: what is laid beside it would differ by the room.
    """
    own = {"variant": variant, "tag": tag, "microphone": microphone}
    with once(command, Duty.BENCH, "keep_reference", {"hash": name, **own}) as write:
        if write.is_replay:
            return
        sound = Sound.objects.select_for_update().filter(hash=name).first()
        if sound is None:
            raise NotFoundError("There is no such recording.")
        if read_heard(sound.heard).quality.grade is Grade.POOR:
            raise NotNowError("A poor recording is no reference: what is laid beside it would differ by the room.", reason="poor")
        Reference.objects.get_or_create(sound=sound, ended_at=None, defaults={**own, "by": command.user, "at": write.at})


def end_reference(command: Command, name: str) -> None:
    """Take a recording out of the references; it stays with its job.

    Raises
    ------
    NotFoundError
        If it is none.
    """
    with once(command, Duty.BENCH, "end_reference", {"hash": name}) as write:
        if write.is_replay:
            return
        if not Reference.objects.filter(sound__hash=name, ended_at=None).update(ended_at=write.at, ended_by=command.user):
            raise NotFoundError("This recording is no reference.")


def sweep(wanted: Iterable[str], now: datetime) -> int:
    """Throw away what nobody has just sent and no tape wants any more; return how many. References stay."""
    old = Sound.objects.filter(at__lt=now - timedelta(days=UNNAMED_DAYS)).exclude(pk__in=Reference.objects.filter(ended_at=None).values("sound"))
    gone = old.exclude(hash__in=list(wanted))
    names = list(gone.values_list("hash", flat=True))
    Reference.objects.filter(sound__hash__in=names).delete()
    gone.delete()
    for name in names:
        files().drop(name)
    return len(names)
