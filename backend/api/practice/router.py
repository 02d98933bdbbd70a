"""Practice: lessons, units that are played, and how the class does. None of it is a job."""

from __future__ import annotations

from typing import Annotated

from api.common import READS, WRITES, SignedIn, view_before_commit
from api.practice.schemas import BeginIn, InClassView, LessonView, OwnDriveView, PracticeMoveIn, PracticeRunView
from api.practice.views import in_class_view, lesson_view, own_drive_view, run_view
from apps.practice.selectors import in_class, learnt, own_drives, run_of, session_of
from apps.practice.services import Wish, begin_run, make_move
from apps.writing.once import Command
from django.http import HttpResponse
from ninja import Path, Router
from spindle.practice.sounds import recorded
from spindle.practice.state import Move
from spindle.sound.wav import write_wav

router = Router(tags=["practice"])
Number = Annotated[int, Path(ge=1, le=2_000_000_000)]


@router.get("/practice/lessons", response={200: list[LessonView], **READS}, operation_id="lessons")
def lessons(request: SignedIn) -> list[LessonView]:
    """Return every lesson in its order, and how far who asks is with it."""
    return [lesson_view(x) for x in learnt(request.user)]


@router.get("/practice/drives", response={200: list[OwnDriveView], **READS}, operation_id="practice_drives")
def drives(request: SignedIn) -> list[OwnDriveView]:
    """Return the shop's own drives that lessons can be played on."""
    return [own_drive_view(x) for x in own_drives()]


@router.get("/practice/class", response={200: list[InClassView], **WRITES}, operation_id="practice_class")
def the_class(request: SignedIn) -> list[InClassView]:
    """Return how everybody does: for who runs the shop."""
    return [in_class_view(x) for x in in_class(request.user)]


@router.post("/practice/runs", response={200: PracticeRunView, **WRITES}, operation_id="begin_practice")
@view_before_commit
def begin(request: SignedIn, body: BeginIn) -> PracticeRunView:
    """Begin a unit of a lesson."""
    return run_view(begin_run(Command(request.user, body.key), body.lesson, Wish(body.sheet, body.tells_each, body.is_led)))


@router.get("/practice/runs/{number}", response={200: PracticeRunView, **WRITES}, operation_id="practice_run")
def show(request: SignedIn, number: Number) -> PracticeRunView:
    """Return a unit of one's own as it stands."""
    return run_view(run_of(request.user, number))


@router.post("/practice/runs/{number}/moves", response={200: PracticeRunView, **WRITES}, operation_id="practice_move")
@view_before_commit
def move(request: SignedIn, number: Number, body: PracticeMoveIn) -> PracticeRunView:
    """Make a move, and return what the world answers."""
    asked = Move(body.do, body.what, frozenset(body.care), body.percent, body.mains)
    return run_view(make_move(Command(request.user, body.key), number, asked, after=body.after))


@router.get("/practice/runs/{number}/sound", response={200: None, **WRITES}, operation_id="practice_sound")
def sound(request: SignedIn, number: Number) -> HttpResponse:
    """Return what an insert on this unit sounds like now, as a WAV file."""
    clip = recorded(session_of(run_of(request.user, number)))
    return HttpResponse(write_wav(clip.samples, clip.rate), content_type="audio/wav")
