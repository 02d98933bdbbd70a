"""Playing practice units. Nothing here touches a job, the shelf, the day or what the record teaches."""

from __future__ import annotations

import secrets
from dataclasses import asdict
from typing import Final

from apps.practice.models import Run
from apps.practice.selectors import read_move as read
from apps.practice.selectors import session_with, written_move
from apps.writing.once import Command, once
from django.utils import timezone
from spindle.errors import NotFoundError, NotNowError
from spindle.practice.debrief import scored
from spindle.practice.lessons import lesson
from spindle.practice.state import Move
from spindle.words.duty import Duty

MOST_SEEDS: Final = 2_000_000_000


def begin_run(command: Command, name: str, *, tells_each: bool = False) -> Run:
    """Begin a practice unit of a lesson: nobody knows which. ``tells_each``: what the planner would have done is told after each move.

    Raises
    ------
    NotFoundError
        If there is no such lesson.
    """
    lesson(name)
    with once(command, Duty.NOTE, "practice", {"lesson": name, "tells_each": tells_each}) as write:
        if write.is_replay:
            return Run.objects.get(pk=int(write.result))
        run = Run.objects.create(by=command.user, lesson=name, tells_each=tells_each, seed=secrets.randbelow(MOST_SEEDS), begun_at=write.at)
        write.result = str(run.pk)
        return run


def make_move(command: Command, number: int, move: Move, *, after: int) -> Run:
    """Make a move on a practice unit that has had ``after`` moves, and score it if it is over.

    Raises
    ------
    NotFoundError
        If it is nobody's, or somebody else's.
    NotNowError
        If it went on in another window, or is over.
    InvalidError
        If there is no such question, repair or part.
    """
    with once(command, Duty.NOTE, "practice_move", {"run": number, "move": written_move(move), "after": after}) as write:
        run = Run.objects.select_for_update().filter(pk=number, by=command.user).first()
        if run is None:
            raise NotFoundError("There is no such practice unit of yours.")
        if write.is_replay:
            return run
        if len(run.moves) != after:
            raise NotNowError("This unit went on in another window: this is how it stands now.", reason="went_on")
        session = session_with(run, (*(read(m) for m in run.moves), move))
        run.moves = [*run.moves, written_move(move)]
        if session.is_over:
            run.ended_at, run.score = timezone.now(), asdict(scored(session))
        run.save(update_fields=["moves", "ended_at", "score"])
        return run
