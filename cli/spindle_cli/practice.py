"""``./spindle practice``: a unit with something hidden in it, played in the terminal."""

from __future__ import annotations

import sys
from collections.abc import Callable, Iterable
from dataclasses import asdict
from typing import Any, Final, TextIO

from spindle.errors import SpindleError
from spindle.job.sounds import in_words as heard_in_words
from spindle.practice.advice import in_words
from spindle.practice.debrief import Score, scored
from spindle.practice.learners import played
from spindle.practice.lessons import LESSONS
from spindle.practice.session import after, begin
from spindle.practice.sounds import recorded
from spindle.practice.state import Care, Do, Move, Session
from spindle.words.bench import Mains

HELP: Final = """look QUESTION [out|live]   what the drive does, or shows; what is measured, with the mains out or running (as its limit is, if left out)
repair REPAIR [dry] [look_over] [own_board]   a repair and its trial, with what care
swap REPAIR [dry] [look_over]   the same with a donor's part, of which nobody knows how good it is
list [looks|repairs|parts]                    what there is
guess PART PERCENT     your first guess, once
open closed|cover_off|drive_open|deck_out [look_over]   open or shut it so far by hand, with the mains out
mains out|live         turn the mains
listen                 a disc goes in: what is heard, in words
hint                   the best move, for two euro
prove                  three passes more, after a clean trial
back                   hand the unit back
quit                   leave it"""


def practice(lesson: str, seed: int, by: str | None) -> dict[str, Any] | None:
    """Play a lesson: by a scripted learner as JSON, else with whoever types."""
    if by is not None:
        return score_json(scored(played(lesson, seed, by)))
    _talk(begin(lesson, seed), sys.stdin, sys.stdout)
    return None


def _talk(session: Session, said: Iterable[str], out: TextIO) -> None:
    lesson = LESSONS[session.lesson.id]
    out.write(f"PRACTICE, not a customer's unit. Lesson {lesson.number}: {lesson.name}. {lesson.family} drive.\n")
    out.writelines(f"The counter has seen: {q} {o}\n" for q, o in session.hidden.told.items())
    out.write(f"{HELP}\n> ")
    out.flush()
    for line in said:
        words = line.split()
        if words[:1] == ["quit"]:
            return
        if words:
            session = _heard(session, words, out)
        if session.is_over:
            _tell(scored(session), out)
            return
        out.write("> ")
        out.flush()


def _heard(session: Session, words: list[str], out: TextIO) -> Session:
    try:
        if words[0] == "list":
            _list(session, words[1:] or ["looks", "repairs", "parts"], out)
            return session
        if words[0] == "help" or words[0] not in _MOVES:
            out.write(f"{HELP}\n")
            return session
        session = after(session, _MOVES[words[0]](words[1:]))
    except (SpindleError, ValueError, IndexError) as error:
        out.write(f"  {error or 'Say what, as `help` shows.'}\n")
        return session
    done = session.done[-1]
    if done.move.do is Do.LISTEN:
        out.write(f"  {heard_in_words(recorded(session).events)}\n")
    out.write(f"  {in_words(done.move, session)}\n  {done.says} {done.mishap}\n  {session.cost_eur:.2f} euro, {session.minutes:.0f} min so far\n")
    return session


_MOVES: Final[dict[str, Callable[[list[str]], Move]]] = {
    "look": lambda w: Move(Do.LOOK, w[0], mains=Mains(w[1]) if w[1:] else Mains.ANY),
    "repair": lambda w: Move(Do.REPAIR, w[0], frozenset(Care(c) for c in w[1:])),
    "swap": lambda w: Move(Do.SWAP, w[0], frozenset(Care(c) for c in w[1:])),
    "guess": lambda w: Move(Do.GUESS, w[0], percent=int(w[1])),
    "open": lambda w: Move(Do.OPEN, w[0], frozenset(Care(c) for c in w[1:])),
    "mains": lambda w: Move(Do.MAINS, mains=Mains(w[0])),
    "listen": lambda _: Move(Do.LISTEN),
    "hint": lambda _: Move(Do.HINT),
    "prove": lambda _: Move(Do.PROVE),
    "back": lambda _: Move(Do.HAND_BACK),
}


def _list(session: Session, what: list[str], out: TextIO) -> None:
    rows = {
        "looks": [(a.id, a.title) for a in session.ready.plan.asks],
        "repairs": [(r.id, r.name) for r in session.ready.plan.repairs],
        "parts": [(p.id, p.name) for p in session.ready.model.parts],
    }
    for name in what:
        out.writelines(f"  {i:<22} {text}\n" for i, text in rows.get(name, []))


def _tell(score: Score, out: TextIO) -> None:
    out.write(f"\nHidden: {', '.join(score.hidden)}.\n")
    out.write(f"You {score.cost_eur:.2f} euro in {score.minutes:.0f} min; the planner {score.planner_eur:.2f} in {score.planner_minutes:.0f}.\n")
    for n, step in enumerate(score.steps, start=1):
        more = f" [{step.regret_eur:.2f} euro more than: {step.best}]" if step.regret_eur else ""
        out.write(f"{n:>3} {step.did}: {step.says} {step.mishap}{more}{''.join(f' TRAP: {t}.' for t in step.traps)}\n")
    out.write("Mastered.\n" if score.is_mastered else "Not mastered yet.\n")


def score_json(score: Score) -> dict[str, Any]:
    """Return a score as JSON values."""
    return {"format": "tidy-spindle-practice", "version": 1, **asdict(score)}
