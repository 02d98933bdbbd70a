"""Reading practice runs, and where each stands."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from apps.drives.consoles import opening_of
from apps.drives.models import Sheet
from apps.drives.selectors import current_sheets, model_of
from apps.people.models import User
from apps.people.permissions import require
from apps.practice.models import Run
from spindle.bench.opening.steps import Opening
from spindle.errors import NotFoundError, NotNowError
from spindle.formats.drive_facts import read_drive
from spindle.practice.hidden import WORLD, suits
from spindle.practice.lessons import LESSONS, Lesson
from spindle.practice.meter import Tips
from spindle.practice.session import after, begin
from spindle.practice.state import Care, Do, Move, Session
from spindle.words.bench import Mains
from spindle.words.duty import Duty

MOST_KEPT = 512
"""Steps of sessions that a process keeps: a move then costs a move, not all before it."""


@dataclass(frozen=True, slots=True)
class _Unit:
    """What a practice unit is drawn from."""

    lesson: str
    seed: int
    sheet: int | None
    is_judged: bool


@lru_cache(MOST_KEPT)
def _after(unit: _Unit, moves: tuple[Move, ...]) -> Session:
    if moves:
        return after(_after(unit, moves[:-1]), moves[-1])
    return begin(unit.lesson, unit.seed, drive=None if unit.sheet is None else model_of(unit.sheet), is_judged=unit.is_judged)


def session_of(run: Run) -> Session:
    """Return where a run stands."""
    return session_with(run, tuple(read_move(m) for m in run.moves))


def opening_of_run(run: Run) -> Opening:
    """Return how the unit of a run is opened: by its sheets, which say nothing of a lesson's own drive."""
    return opening_of(run.sheet) if run.sheet else Opening()


def session_with(run: Run, moves: tuple[Move, ...]) -> Session:
    """Return where a run stands after these moves."""
    return _after(_Unit(run.lesson, run.seed, run.sheet_id, run.tells_each), moves)


def read_move(body: Mapping[str, Any]) -> Move:
    """Return a move as it was written."""
    return Move(Do(body["do"]), body["what"], frozenset(Care(c) for c in body["care"]), body["percent"], Mains(body.get("mains", "any")))


def written_move(move: Move) -> dict[str, Any]:
    """Return a move as it is written."""
    return {"do": move.do.value, "what": move.what, "care": sorted(move.care), "percent": move.percent, "mains": move.mains.value}


def run_of(user: User, number: int) -> Run:
    """Return a run of one's own.

    Raises
    ------
    NotFoundError
        If there is none of that number, or it is somebody else's.
    """
    run = Run.objects.select_related("sheet").filter(pk=number, by=user).first()
    if run is None:
        raise NotFoundError("There is no such practice unit of yours.")
    check_world(run)
    return run


def check_world(run: Run) -> None:
    """Refuse a run that was drawn from other models than these: replayed in them it would be another unit.

    Raises
    ------
    NotNowError
    """
    if run.world != WORLD:
        raise NotNowError("This practice unit is from before an upgrade, and would be another one now; its score stands. Begin anew.", reason="upgraded")


def tips_of(username: str) -> Tips | None:
    """Return where the meter's tips lie on the unit that somebody practises on; None if on none."""
    run = Run.objects.filter(by__username=username, ended_at=None, world=WORLD).order_by("-begun_at").first()
    return session_of(run).tips if run else None


@dataclass(frozen=True)
class OwnDrive:
    """A drive of the shop's sheets, and the lessons that can be played on it."""

    sheet: Sheet
    lessons: tuple[str, ...]


def own_drives() -> list[OwnDrive]:
    """Return the drives of all sheets in use that a lesson can be played on."""
    drives = [(s, read_drive(s.facts, "/drive")) for s in current_sheets()]
    found = [OwnDrive(s, tuple(name for name, x in LESSONS.items() if suits(x, drive))) for s, drive in drives]
    return [d for d in found if d.lessons]


@dataclass(frozen=True)
class Learnt:
    """How far somebody is with a lesson."""

    lesson: Lesson
    tries: int
    is_mastered: bool
    best_times: float | None
    """The least that it cost, in times of what the planner paid."""
    open_run: int | None
    """The number of a run that is not over."""


def learnt(user: User) -> list[Learnt]:
    """Return how far somebody is with every lesson, in their order."""
    runs: dict[str, list[Run]] = {}
    for run in Run.objects.filter(by=user).order_by("begun_at"):
        runs.setdefault(run.lesson, []).append(run)
    return [_learnt(lesson, runs.get(name, [])) for name, lesson in LESSONS.items()]


def _learnt(lesson: Lesson, runs: list[Run]) -> Learnt:
    over = [r.score for r in runs if r.score]
    times = [s["times"] for s in over if s["is_repaired"] or s["is_mastered"]]
    open_ = next((r.pk for r in reversed(runs) if r.ended_at is None and r.world == WORLD), None)
    return Learnt(lesson, len(over), any(s["is_mastered"] for s in over), min(times, default=None), open_)


@dataclass(frozen=True)
class InClass:
    """One person in the class view."""

    name: str
    mastered: tuple[str, ...]
    tries: int
    mean_times: float | None
    traps: tuple[tuple[str, int], ...]


def in_class(user: User) -> list[InClass]:
    """Return everybody who has practised: what is mastered, and which traps they walk into most. For who runs the shop.

    Raises
    ------
    NotAllowedError
    """
    require(user, Duty.SHOP)
    by: dict[User, list[Run]] = {}
    for run in Run.objects.exclude(score=None).select_related("by").order_by("by__username"):
        by.setdefault(run.by, []).append(run)
    return [_in_class(who.shown_name, runs) for who, runs in by.items()]


def _in_class(name: str, runs: Iterable[Run]) -> InClass:
    scores = [(r.lesson, r.score) for r in runs if r.score]
    traps = Counter(trap for _, score in scores for trap in score["traps"])
    times = [s["times"] for _, s in scores]
    mastered = tuple(x for x in LESSONS if any(lesson == x and s["is_mastered"] for lesson, s in scores))
    return InClass(name, mastered, len(scores), sum(times) / len(times) if times else None, tuple(traps.most_common(4)))
