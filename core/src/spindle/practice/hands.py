"""What hands do to a practice unit beside looks and repairs: they open and shut it and turn the mains, and what they are careless about is answered."""

from __future__ import annotations

from dataclasses import replace
from typing import Final

import numpy as np

from spindle.diagnosis.given.compiled import Floats
from spindle.diagnosis.planning.lookahead import Position
from spindle.diagnosis.planning.plan import MAINS_MIN
from spindle.diagnosis.planning.problem import Flags, depth_in, is_live_in, state_of
from spindle.errors import InvalidError, NotNowError
from spindle.faults.model import QuestionKind
from spindle.practice.advice import LEVEL, moved_by_hand
from spindle.practice.hidden import Hidden, thrown_fault
from spindle.practice.state import Care, Do, Done, Move, Session
from spindle.words.bench import DEPTH_NAMES, Depth, Mains

DRY_MIN, LOOK_MIN = 5.0, 1.0
"""Minutes: cleaner that dries, every flex looked over before it is shut."""
LEFT_OUT: Final = 1 / 11
"""The chance that a step leaves a flex or a latch out: the fault model's own."""
BLOWS: Final = 0.6
"""How often power with something loose or wet inside does harm."""
LOOSE: Final = "Power with something loose inside: the fuse is gone."
OVERDRIVEN: Final = "The level was past its limit already: the diode is dark now."
FORGOTTEN: Final = "A flex or a latch was left out on closing."
CARE_MIN: Final = {Care.DRY: DRY_MIN, Care.LOOK_OVER: LOOK_MIN, Care.OWN_BOARD: 0.0}
_SPOILT: Final = 0.5
"""Of the belief after our own step made it worse: it is our step."""
Came = tuple[Hidden, str, tuple[str, ...]]
"""What came of something that hands did: what is hidden then, what went wrong in words, and the traps."""


def opened(s: Session, move: Move) -> Session:
    """Open or shut the unit so far by hand, with the mains out.

    Raises
    ------
    InvalidError
        If a unit is not open so far in any way.
    NotNowError
        If it is so far open already, or the mains is in.
    """
    if move.what.upper() not in Depth.__members__:
        raise InvalidError("what", f"A unit is {', '.join(d.name.lower() for d in Depth)}: not {move.what!r}.")
    depth, now = Depth[move.what.upper()], Depth(depth_in(s.at.state))
    if depth is now:
        raise NotNowError(f"It is {DEPTH_NAMES[depth]} already.", reason="as_it_is")
    if is_live_in(s.at.state):
        raise NotNowError("Not with the mains in: take the plug out first, and wait as long as the label says.", reason="live")
    care = Care.LOOK_OVER in move.care
    minutes = hand_minutes(s, depth) + LOOK_MIN * (care and depth < now)
    came: Came = (s.hidden, "", ())
    if shuts(now, depth) and not care and s.rng.random() < LEFT_OUT:
        came = (s.hidden.with_fault(thrown_fault("left_out", s.ready, s.rng)), FORGOTTEN, ("T17",))
    return _by_hand(s, move, minutes, state_of(depth, is_live=False), came)


def shuts(now: Depth, depth: Depth) -> bool:
    """Tell whether an open drive is shut on the way: a flex can be forgotten then."""
    return depth < Depth.DRIVE_OPEN <= now


def hand_minutes(s: Session, depth: Depth) -> float:
    """Return the bench minutes to open or shut the unit so far from where it is, without looking anything over."""
    depths, now = s.ready.model.model.depths, depth_in(s.at.state)
    return depths.open_min[depth] - depths.open_min[now] if depth > now else depths.close_min[now] - depths.close_min[depth]


def switched(s: Session, move: Move) -> Session:
    """Put the mains in, or take it out.

    Raises
    ------
    InvalidError
        If it is not said whether in or out.
    NotNowError
        If it is so already.
    """
    if move.mains is Mains.ANY:
        raise InvalidError("mains", "Say whether the mains goes in (live) or out.")
    is_live = move.mains is Mains.LIVE
    if is_live == is_live_in(s.at.state):
        raise NotNowError(f"The mains is {'in' if is_live else 'out'} already.", reason="as_it_is")
    return _by_hand(s, move, MAINS_MIN, state_of(depth_in(s.at.state), is_live=is_live), powered(s) if is_live else (s.hidden, "", ()))


def _by_hand(s: Session, move: Move, minutes: float, state: int, came: Came) -> Session:
    _, mishap, traps = came
    eur = minutes * s.ready.plan.economy.rate_eur_per_min
    beside = replace(moved_by_hand(s, state, eur), traps=traps)
    at = replace(s.at, state=state)
    tips = s.tips and replace(s.tips, mains=move.mains) if move.do is Do.MAINS else None  # whoever opens or shuts takes the tips off
    done = Done(move, f"{DEPTH_NAMES[Depth(depth_in(state))]}, mains {'in' if is_live_in(state) else 'out'}.".capitalize(), "", eur, minutes, beside, mishap)
    return replace(hurt(s, came), tips=tips, at=worse(at, s) if mishap else at, done=(*s.done, done))


def hurt(s: Session, came: Came) -> Session:
    """Return the session with what came of something: what went wrong since the last clean trial has made it worth nothing."""
    hidden, mishap, _ = came
    return replace(s, hidden=hidden, is_clean=s.is_clean and not mishap, is_proved=s.is_proved and not mishap)


def powered(s: Session) -> Came:
    """Return what power does to the unit as it lies: what is hidden then, what went wrong, and the trap."""
    if not s.knows_loose:
        return s.hidden, "", ()
    rng = s.rng
    if rng.random() >= BLOWS:
        return s.hidden, "", ("T35",)
    return s.hidden.with_fault(thrown_fault("fuse_open", s.ready, rng)), LOOSE, ("T35",)


def is_past_limit(s: Session) -> bool:
    """Tell whether the light of this drive reads high already: more of it is what the diode does not bear (trap T29)."""
    for q, asked in enumerate(s.ready.plan.asks):
        if asked.question is not None and asked.id == LEVEL:
            bad = np.array([float(o.id in asked.question.bad) for o in asked.question.outcomes])
            return asked.question.outcomes[s.hidden.shows(q, 0, bad)].id == "high"
    return False


def worse(at: Position, s: Session) -> Position:
    """Our own step is suspected first, and what was seen may be seen anew."""
    ours = np.array([s.ready.model.prior[i] if f.opened_by else 0.0 for i, f in enumerate(s.ready.model.faults)])
    if not ours.sum():
        ours = np.array([float(bool(f.opened_by)) for f in s.ready.model.faults])
    w = (1.0 - _SPOILT) * at.w / at.w.sum() + _SPOILT * ours / ours.sum()
    return replace(at, w=w, open_=reopened(at, s))


def reopened(at: Position, s: Session) -> Flags:
    """What the drive does can be asked again after something new has happened to it."""
    again = [a.question is not None and a.question.kind in (QuestionKind.BASELINE, QuestionKind.DISC_CLASS) for a in s.ready.plan.asks]
    return np.asarray(at.open_ | np.array(again))


def kept(w: Floats, before: Floats) -> Floats:
    """A belief that would be left with nothing stays as it was: the world is stranger than the model."""
    total = float(w.sum())
    return np.asarray(w / total) if total > 1e-12 else before
