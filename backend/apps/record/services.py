"""Putting what was learnt to use, and taking it back: one press each, and the open jobs reckon with it at once."""

from __future__ import annotations

from apps.drives.models import Layer
from apps.record.learning import taught
from apps.refusals import StaleWriteError
from apps.writing.once import Command, lock, once
from spindle.errors import NotNowError
from spindle.words.duty import Duty


def use_what_was_learnt(command: Command, *, jobs: int) -> None:
    """Put what closed jobs teach to use, as a new layer in place of the one in use.

    Parameters
    ----------
    jobs : how many closed jobs it was shown over: with others it would be another one

    Raises
    ------
    NotAllowedError, KeyReusedError
    StaleWriteError
        If jobs have closed since it was shown.
    NotNowError
        If no part of it predicts better than the shipped models.
    """
    with once(command, Duty.SHOP, "use_layer", {"jobs": jobs}) as write:
        if write.is_replay:
            return
        lock("layer")
        found = taught()
        if found.jobs != jobs:
            raise StaleWriteError("A job has closed since this was worked out. Look at what it says now, then put it to use.", version=found.jobs)
        if not any(judged.is_better for judged in found.judged.values()):
            raise NotNowError("Nothing that was learnt predicts the next jobs better yet: the shipped figures stay.", reason="not_better")
        _stop(command, write.at)
        Layer.objects.create(
            number=(Layer.objects.values_list("number", flat=True).first() or 0) + 1,
            body=found.layer.written(),
            parts=[{"part": part.value, "n": j.n, "gain": j.gain, "error": j.error, "is_used": j.is_better} for part, j in found.judged.items()],
            jobs=jobs,
            through=found.through,
            by=command.user,
            at=write.at,
        )


def take_it_back(command: Command) -> None:
    """Let the shipped figures stand alone again. Nothing that was learnt is lost: it can be put to use anew.

    Raises
    ------
    NotAllowedError, KeyReusedError
    """
    with once(command, Duty.SHOP, "drop_layer", {}) as write:
        if not write.is_replay:
            lock("layer")
            _stop(command, write.at)


def _stop(command: Command, at: object) -> None:
    Layer.objects.filter(is_used=True).update(is_used=False, ended_by=command.user, ended_at=at)
