"""Playing practice units. Nothing here touches a job, the shelf, the day or what the record teaches."""

from __future__ import annotations

import secrets
from dataclasses import asdict, dataclass
from typing import Final

from apps.drives.selectors import model_of, sheet
from apps.practice.models import Run
from apps.practice.selectors import check_world, session_with, written_move
from apps.practice.selectors import read_move as read
from apps.writing.once import Command, once
from django.utils import timezone
from spindle.errors import InvalidError, NotFoundError, NotNowError
from spindle.practice.debrief import scored
from spindle.practice.hidden import WORLD, suits
from spindle.practice.lessons import lesson
from spindle.practice.state import Move
from spindle.words.duty import Duty

MOST_SEEDS: Final = 2_000_000_000


@dataclass(frozen=True, slots=True)
class Wish:
    """How a lesson is to be played: on the drive of which sheet (None: the lesson's own), and when the planner's move is told."""

    sheet: int | None = None
    tells_each: bool = False
    is_led: bool = False


def begin_run(command: Command, name: str, wish: Wish) -> Run:
    """Begin a practice unit of a lesson: nobody knows which.

    Raises
    ------
    NotFoundError
        If there is no such lesson, or no such sheet.
    InvalidError
        If that sheet is not in use, or its drive cannot have what the lesson hides.
    """
    with once(command, Duty.NOTE, "practice", {"lesson": name, **asdict(wish)}) as write:
        if write.is_replay:
            return Run.objects.select_related("sheet").get(pk=int(write.result))
        one, drive = lesson(name), None if wish.sheet is None else sheet(wish.sheet)
        if drive is not None and not (drive.is_current and not drive.is_retired and suits(one, model_of(drive.pk).sheet)):
            raise InvalidError("sheet", "This lesson is not for that drive: take one that it names, by the sheet that is in use.")
        run = Run.objects.create(
            by=command.user,
            lesson=name,
            sheet=drive,
            tells_each=wish.tells_each,
            is_led=wish.is_led,
            world=WORLD,
            seed=secrets.randbelow(MOST_SEEDS),
            begun_at=write.at,
        )
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
        run = Run.objects.select_related("sheet").select_for_update(of=("self",)).filter(pk=number, by=command.user).first()
        if run is None:
            raise NotFoundError("There is no such practice unit of yours.")
        if write.is_replay:
            return run
        check_world(run)
        if len(run.moves) != after:
            raise NotNowError("This unit went on in another window: this is how it stands now.", reason="went_on")
        session = session_with(run, (*(read(m) for m in run.moves), move))
        run.moves = [*run.moves, written_move(move)]
        if session.is_over:
            run.ended_at, run.score = timezone.now(), asdict(scored(session, is_led=run.is_led))
        run.save(update_fields=["moves", "ended_at", "score"])
        return run
