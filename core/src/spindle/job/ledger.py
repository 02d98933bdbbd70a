"""The one room where it is decided what may happen to a job: fold a tape, decide an ask, say a line.

Kinds of line live in :mod:`spindle.job.kinds`, one module each; a new module there is a new kind, and nothing else has to know of it.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from dataclasses import replace
from datetime import datetime
from importlib import import_module
from pkgutil import iter_modules
from typing import Any

from spindle.errors import CaseError, ModelError
from spindle.job import kinds
from spindle.job.asking import AskKind, Decision, LineKind, Speech, World
from spindle.job.effects import UseSheet
from spindle.job.line import Line
from spindle.job.value import Job, Start


def _shipped() -> Iterator[LineKind]:
    for module in iter_modules(kinds.__path__):
        yield import_module(f"{kinds.__name__}.{module.name}").KIND


KINDS: dict[str, LineKind] = {}
"""Every kind of line, by its name."""
ASKS: dict[type, AskKind] = {}
"""Every kind of ask, by the type of its body."""


def register(kind: LineKind) -> None:
    """Make a kind of line known.

    Raises
    ------
    ModelError
        If there is one of that name: its tapes would be read by the other's rules.
    """
    if kind.name in KINDS:
        raise ModelError(f"there are two kinds of line called {kind.name!r}")
    KINDS[kind.name] = kind
    ASKS.update({ask.body: ask for ask in kind.asks})


for _kind in _shipped():
    register(_kind)


def fold(start: Start, lines: Iterable[Line]) -> Job:
    """Return the job that a tape amounts to.

    The tape is whole, and what is struck is known, before anything is folded: a strike and a restore are exact inverses, whatever the
    line did.

    Parameters
    ----------
    lines : in order of their number, from 1 without a gap

    Raises
    ------
    CaseError
        If a line cannot be read.
    """
    tape = tuple(lines)
    struck: dict[int, Line] = {}
    for line in tape:
        with _named(line):
            strikes = _kind_of(line).strikes
            if strikes is not None:
                strikes(struck, line)
    return _through(Job(start, start.notes, lines=tape, struck=struck), tape)


def grown(job: Job, lines: Iterable[Line]) -> Job:
    """Return a job whose tape has grown by some lines: the same as folding it whole, for the price of those lines where nothing is struck by them.

    Raises
    ------
    CaseError
        If a line cannot be read.
    """
    new = tuple(lines)
    if any(_kind_of(line).strikes for line in new):
        return fold(job.start, (*job.lines, *new))
    return _through(replace(job, lines=(*job.lines, *new)), new)


def _through(job: Job, lines: Iterable[Line]) -> Job:
    for line in lines:
        with _named(line):
            job = _kind_of(line).fold(job, line)
    return job


def _kind_of(line: Line) -> LineKind:
    if line.kind not in KINDS:
        raise CaseError(f"line {line.number}", f"nobody here knows what a line of the kind {line.kind} means")
    return KINDS[line.kind]


@contextmanager
def _named(line: Line) -> Iterator[None]:
    try:
        yield
    except (LookupError, TypeError, ValueError) as error:
        raise CaseError(f"line {line.number}", f"this {line.kind} cannot be read ({error!r})") from error


def decide(job: Job, ask: Any, world: World) -> Decision:
    """Return what comes of an ask, or raise why it may not be. Pure: nothing is changed.

    Raises
    ------
    NotNowError, NotFoundError, InvalidError, GoneError, RefusedError
    """
    kind = ASKS[type(ask)]
    kind.needed(ask).check(job, world.now)
    return kind.decide(job, ask, world)


def after(job: Job, decision: Decision, *, at: datetime, by: str) -> Job:
    """Return the job after a decision: its lines are one version together. What changes nothing raises no version."""
    if not decision.drafts:
        return job
    version = job.version + 1
    new = [Line(job.next_number + n, version, draft.kind, draft.body, at, by) for n, draft in enumerate(decision.drafts)]
    start = next((replace(job.start, sheet=e.sheet) for e in decision.effects if isinstance(e, UseSheet)), job.start)
    return grown(job, new) if start is job.start else fold(start, (*job.lines, *new))


def says(line: Line, speech: Speech) -> str:
    """Return a line in plain words."""
    return KINDS[line.kind].says(line.body, speech)
