"""A practice unit on the bench: what the learner does, and what the world answers. A session is its moves; replaying them gives it back exactly."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import replace
from typing import Final

import numpy as np

from spindle.diagnosis.given.compiled import CompiledModel
from spindle.diagnosis.planning.lookahead import Pick
from spindle.diagnosis.planning.outlook import unseen
from spindle.errors import InvalidError, NotNowError
from spindle.practice.advice import RAISE, besides, careful, with_care
from spindle.practice.donors import Donor, donor_of, left_after
from spindle.practice.hands import (
    BLOWS,
    CARE_MIN,
    FORGOTTEN,
    LEFT_OUT,
    LOOSE,
    OVERDRIVEN,
    hurt,
    is_past_limit,
    kept,
    opened,
    powered,
    reopened,
    switched,
    worse,
)
from spindle.practice.hidden import FAILS_SHARE, bench, bench_of, draw_hidden, suits, thrown_fault
from spindle.practice.lessons import lesson
from spindle.practice.meter import POINTS, Tips
from spindle.practice.state import Beside, Care, Do, Done, Move, Session, look_cost, repair_cost
from spindle.practice.traps import traps_of
from spindle.words.bench import Depth, Mains

PROVE_MIN, LISTEN_MIN = 4.0, 2.0
"""Minutes: three passes more, a recording with its quiet."""
HINT_EUR: Final = 2.0
KEYLESS_EUR: Final = 24.0
"""Fitting a drive a second time because its board was not the console's own."""
MOST_MOVES: Final = 120
RESULTS: Final = {
    "clean": "The trial comes out clean.",
    "worse": "Worse than before: something is new.",
    "changed": "Part of the trouble is gone, not all of it.",
    "no_change": "No change.",
}


def begin(name: str, seed: int, *, drive: CompiledModel | None = None, is_judged: bool = False) -> Session:
    """Return a practice unit as it comes in: what the counter has seen is known, nothing else.

    ``drive`` is the model of a drive sheet; without it the unit is the well-equipped one of the lesson's family.

    Raises
    ------
    NotFoundError
        If there is no such lesson.
    InvalidError
        If that drive cannot have what the lesson hides.
    """
    one = lesson(name)
    if drive is not None and not suits(one, drive.sheet):
        raise InvalidError("sheet", "This drive cannot have what the lesson hides: take another lesson, or another drive.")
    ready = bench(one.family) if drive is None else bench_of(drive)
    model, hidden = ready.model, draw_hidden(one, seed, ready)
    at = unseen(model, ready.plan)
    w = at.w
    for question, outcome in hidden.told.items():
        w = w * model.likelihood[question][[o.id for o in model.questions[question].outcomes].index(outcome)]
    return Session(one, seed, ready, hidden, replace(at, w=w / w.sum()), answers=dict(hidden.told), is_judged=is_judged)


def replay(name: str, seed: int, moves: Iterable[Move], *, drive: CompiledModel | None = None, is_judged: bool = False) -> Session:
    """Return the session that these moves make."""
    session = begin(name, seed, drive=drive, is_judged=is_judged)
    for move in moves:
        session = after(session, move)
    return session


def after(session: Session, move: Move) -> Session:
    """Return the session after a move, as the world answers it.

    Raises
    ------
    NotNowError
        If the session is over, or the move is not possible in it.
    InvalidError
        If there is no such question, repair or part.
    """
    if session.is_over:
        raise NotNowError("This unit has been handed back. Begin another one.", reason="over")
    if len(session.done) >= MOST_MOVES:
        raise NotNowError("Nobody goes on so long: hand it back.", reason="over")
    return _DO[move.do](session, move)


def _look(s: Session, move: Move) -> Session:
    q = _index([a.id for a in s.ready.plan.asks], move.what, "question")
    question = s.ready.plan.asks[q].question
    if question is None:
        raise InvalidError("what", f"{move.what!r} is no question.")
    beside, (eur, minutes) = besides(s, Pick("ask", q)), look_cost(s, q)
    mains = question.mains if move.mains is Mains.ANY or move.what not in POINTS else move.mains
    came = powered(s) if mains is Mains.LIVE else (s.hidden, "", ())
    hidden, mishap, traps = came
    bad = np.array([float(o.id in question.bad) for o in question.outcomes])
    n = s.looks.get(move.what, 0)
    o = hidden.shows(q, n, bad)
    outcome = question.outcomes[o]
    tips = Tips(POINTS[move.what], mains, outcome.id, (s.seed, 74, s.lesson.number, len(s.done))) if move.what in POINTS else None
    shown = tips.says(s.rng) if tips else ""
    says = f"{shown}. The limit is {tips.point.limit}." if tips else outcome.line
    s = replace(hurt(s, came), tips=tips or s.tips, readings={**s.readings, **({move.what: shown} if tips else {})})
    beside = replace(beside, traps=traps)
    if tips and not tips.tells:  # a number of another state: the minutes are gone, and nothing is known
        if s.is_judged:
            beside = replace(beside, regret_eur=eur, best=replace(move, mains=tips.point.mains))
        return replace(s, done=(*s.done, Done(move, says, "", eur, minutes, beside, mishap)))
    at = s.at.after_answer(q, o, s.ready.problem) if n == 0 and s.at.open_[q] else s.at
    speaks_against = np.array([r.blocked_by == f"{move.what}={outcome.id}" for r in s.ready.plan.repairs])
    at = replace(at, w=kept(at.w, s.at.w), free=at.free & ~speaks_against, open_=reopened(at, s) if mishap else at.open_)
    done = Done(move, says, outcome.id, eur, minutes, beside, mishap)
    return replace(s, at=at, answers={**s.answers, move.what: outcome.id}, looks={**s.looks, move.what: n + 1}, done=(*s.done, done))


def _listen(s: Session, move: Move) -> Session:
    """A disc goes in, and somebody listens: what it sounds like can be played until a repair is tried."""
    came = powered(s)
    _, mishap, traps = came
    eur = LISTEN_MIN * s.ready.plan.economy.rate_eur_per_min
    done = Done(move, "What it sounds like can be played now.", eur=eur, minutes=LISTEN_MIN, beside=Beside(0.0, None, traps), mishap=mishap)
    return replace(hurt(s, came), listened_at=len(s.tried), done=(*s.done, done))


def _swap(s: Session, move: Move) -> Session:
    """A donor's part goes in: it stays if it helped, and comes out again if it did not."""
    a = _index([r.id for r in s.ready.plan.repairs], move.what, "repair")
    donor = donor_of(s, a)
    if donor is None:
        raise InvalidError("what", f"No donor here has a part for it: {s.ready.plan.repairs[a].name}.")
    tried = _repair(s, move, donor)
    done, helps = tried.done[-1], tried.done[-1].has_cured
    eur = done.eur + (donor.eur if helps else 0.0)
    traps = done.beside.traps if done.beside else ()
    done = replace(done, eur=eur, beside=Beside(0.0, None, traps))  # the planner has no donors: what it would have saved, nobody can say
    if helps or done.mishap:
        return replace(tried, tried=s.tried, done=(*s.done, done))
    at = replace(s.at, w=kept(left_after(s.at.w, s.ready.problem.success[a]), s.at.w), state=tried.at.state)
    return replace(tried, at=at, tried=s.tried, swapped=(*s.swapped, move.what), done=(*s.done, done))


def _repair(s: Session, move: Move, donor: Donor | None = None) -> Session:
    a = _index([r.id for r in s.ready.plan.repairs], move.what, "repair")
    repair, (eur, minutes), rng = s.ready.plan.repairs[a], repair_cost(s, a), s.rng
    is_good = donor is None or donor.is_good
    if donor is not None:
        eur, minutes = donor.minutes * s.ready.plan.economy.rate_eur_per_min, donor.minutes
    beside = besides(s, Pick("repair", a))
    traps = traps_of(s, move, beside.regret_eur)
    care_min = sum(CARE_MIN[c] for c in move.care)
    eur += care_min * s.ready.plan.economy.rate_eur_per_min
    hidden, mishap = s.hidden.without(a) if is_good else s.hidden, ""
    if "T30" in traps:
        hidden, mishap, eur = s.hidden, "The console does not know this drive’s board: it reads nothing until the own board is moved across.", eur + KEYLESS_EUR
    elif repair.id == RAISE and is_past_limit(s):
        hidden, mishap, traps = s.hidden.with_fault(thrown_fault("pickup_dead", s.ready, rng)), OVERDRIVEN, (*traps, "T29")
    elif "T35" in traps and rng.random() < BLOWS:
        hidden = hidden.with_fault(thrown_fault("still_wet" if repair.wet else "fuse_open", s.ready, rng))
        mishap = "Power on what was not dry." if repair.wet else LOOSE
    elif repair.depth > Depth.COVER_OFF and Care.LOOK_OVER not in move.care and rng.random() < LEFT_OUT:
        hidden, mishap, traps = hidden.with_fault(thrown_fault("left_out", s.ready, rng)), FORGOTTEN, (*traps, "T17")
    has_cured = any(u.cures[a] for u in s.hidden.units) and is_good and not {"T29", "T30"} & set(traps)
    is_clean = not hidden.units or (hidden.comes_and_goes and not mishap and rng.random() >= FAILS_SHARE)
    outcome = "clean" if is_clean else "worse" if mishap else "changed" if has_cured else "no_change"
    at = s.at.after_repair(a, s.ready.problem)
    at = replace(at, w=kept(at.w, s.at.w))
    if mishap:
        at = worse(at, s)
    elif has_cured:
        at = replace(at, open_=reopened(at, s))
    done = Done(move, RESULTS[outcome], outcome, eur, minutes + care_min, replace(beside, traps=traps), mishap, has_cured)
    return replace(s, hidden=hidden, at=at, tried=(*s.tried, repair.id), listened_at=-1, tips=None, is_clean=is_clean, is_proved=False, done=(*s.done, done))


def _prove(s: Session, move: Move) -> Session:
    if not s.is_clean:
        raise NotNowError("There is nothing to prove: the last trial was not clean.", reason="not_clean")
    holds = not s.hidden.units or (s.hidden.comes_and_goes and bool(np.all(s.rng.random(3) >= FAILS_SHARE)))
    eur = PROVE_MIN * s.ready.plan.economy.rate_eur_per_min
    done = Done(move, "Three passes more, all clean." if holds else "It fails again at one of them.", "clean" if holds else "fails", eur, PROVE_MIN)
    return replace(s, is_clean=holds, is_proved=holds, done=(*s.done, done))


def _hand_back(s: Session, move: Move) -> Session:
    economy, works = s.ready.plan.economy, not s.hidden.units
    closing = float(s.ready.problem.close[s.at.state])
    beside = besides(s, Pick("stop"))
    lost = 0.0 if works else economy.return_eur if s.is_clean else economy.give_up_eur
    says = "It works, and goes home." if works else "It comes back within a week: the fault was still there." if s.is_clean else "It goes home unrepaired."
    outcome, minutes = "works" if works else "returns" if s.is_clean else "given_up", closing / economy.rate_eur_per_min
    done = Done(move, says, outcome, closing + lost, minutes, replace(beside, traps=traps_of(s, move, beside.regret_eur)))
    return replace(s, is_over=True, is_repaired=works, done=(*s.done, done))


def _hint(s: Session, move: Move) -> Session:
    return replace(s, done=(*s.done, Done(move, with_care(careful(s), s), eur=HINT_EUR)))


def _guess(s: Session, move: Move) -> Session:
    if s.guess is not None:
        raise NotNowError("The first guess is made once.", reason="guessed")
    if s.has_repaired:
        raise NotNowError("A first guess is made before the first repair.", reason="too_late")
    if move.what not in {p.id for p in s.ready.model.parts}:
        raise InvalidError("what", f"{move.what!r} is no part of this drive.")
    if not 0 <= move.percent <= 100:
        raise InvalidError("percent", "A guess is from 0 to 100 percent.")
    return replace(s, guess=(move.what, move.percent), done=(*s.done, Done(move, f"Noted: {move.percent} percent.")))


_DO: Final[dict[Do, Callable[[Session, Move], Session]]] = {
    Do.LOOK: _look,
    Do.REPAIR: _repair,
    Do.SWAP: _swap,
    Do.PROVE: _prove,
    Do.HAND_BACK: _hand_back,
    Do.LISTEN: _listen,
    Do.HINT: _hint,
    Do.GUESS: _guess,
    Do.OPEN: opened,
    Do.MAINS: switched,
}


def _index(known: list[str], word: str, kind: str) -> int:
    if word not in known:
        raise InvalidError("what", f"This drive has no {kind} {word!r}.")
    return known.index(word)
