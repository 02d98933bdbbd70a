"""Putting what was learnt to use, and taking it back: one press each, and the open jobs reckon with it at once."""

from __future__ import annotations

from typing import Any

from apps.drives.models import Layer
from apps.drives.selectors import layer_in_use
from apps.record.learning import taught
from apps.refusals import StaleWriteError
from apps.writing.once import Command, lock, once
from spindle.errors import NotNowError
from spindle.learning.judging import Judgement
from spindle.learning.layer import Part
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
        If no part of it predicts better than what is in use.
    """
    with once(command, Duty.SHOP, "use_layer", {"jobs": jobs}) as write:
        if write.is_replay:
            return
        lock("layer")
        found = taught()
        if found.jobs != jobs:
            raise StaleWriteError("A job has closed since this was worked out. Look at what it says now, then put it to use.", version=found.jobs)
        if not any(judged.is_better for judged in found.judged.values()):
            raise NotNowError("Nothing that was learnt predicts the next jobs better yet: the figures in use stay.", reason="not_better")
        before = layer_in_use()
        kept = {} if before is None else {p["part"]: p for p in before.parts if p["is_used"]}
        _stop(command, write.at)
        Layer.objects.create(
            number=(Layer.objects.values_list("number", flat=True).first() or 0) + 1,
            body=found.layer.written(),
            parts=[_judged(part, judged, kept.get(part.value)) for part, judged in found.judged.items()],
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


def _judged(part: Part, judged: Judgement, kept: dict[str, Any] | None) -> dict[str, Any]:
    """Return how a part came into a layer: as it is judged now, or, where it is not better than what was in use, as that was judged then."""
    now = {"part": part.value, "n": judged.n, "gain": judged.gain, "error": judged.error, "is_used": judged.is_better}
    return now if kept is None or judged.is_better else kept


def _stop(command: Command, at: object) -> None:
    Layer.objects.filter(is_used=True).update(is_used=False, ended_by=command.user, ended_at=at)
