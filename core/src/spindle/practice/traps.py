"""Traps that a move walks into, by name: each is a named reason for a move that costs more than the best one, or for a careless one."""

from __future__ import annotations

from collections.abc import Callable
from typing import Final

from spindle.diagnosis.planning.lookahead import REAL_WEIGHT
from spindle.practice.state import Care, Do, Move, Session, is_known, needs_board

LEAST_EUR: Final = 0.5
"""A move that costs less than that more than the best one is no mistake."""
_LOADER: Final = frozenset({"load", "rollers", "belt", "tray", "gears", "mechanism", "switch_insert", "switch_shut", "switch_open"})
_SUPPLY_TESTS: Final = ("fuse_test", "flex_board_look", "board_supply")

CARELESS: Final = frozenset({"T17", "T29", "T30", "T35"})
"""Traps that a careful hand does not know, whatever it does."""
NAMES: Final = {
    "T2": "The drive’s own retry, taken for a fault of the loader",
    "T3": "No spin, taken for a dead spindle motor",
    "T6": "Several things dead at once, and three parts before what they share",
    "T7": "Dirt or mechanics, while another disc reads flawlessly",
    "T8": "More drive, for what starts well and stutters later",
    "T12": "More drive, though the level reads high",
    "T14": "A doubtful donor changed nothing, and its place was taken as cleared",
    "T15": "The same part a second time",
    "T17": "Closed without looking over every flex",
    "T18": "Something is new since our own step, and our step was not looked at first",
    "T29": "More light, past what the diode bears",
    "T30": "A drive without the console’s own board",
    "T32": "A dear part, while a cheap cause with real weight stands",
    "T33": "Handed back after one clean trial",
    "T35": "Power with something loose or wet inside",
}


def traps_of(s: Session, move: Move, regret_eur: float) -> tuple[str, ...]:
    """Return the traps that a move walks into, before anything comes of it."""
    if move.do is Do.HAND_BACK:
        return ("T33",) if s.is_clean and not s.is_proved else ()
    repair = next(r for r in s.ready.plan.repairs if r.id == move.what)
    careless = [
        ("T30", needs_board(s, repair.id) and Care.OWN_BOARD not in move.care),
        ("T35", (repair.wet and Care.DRY not in move.care) or (s.knows_loose and repair.id != "remove_object")),
    ]
    dearer = [(name, rule(s, repair.id, repair.part)) for name, rule in _RULES.items()] if regret_eur >= LEAST_EUR else []
    return tuple(name for name, so in (*careless, *dearer) if so)


def _retry(s: Session, _repair: str, part: str) -> bool:
    return part in _LOADER and s.answers.get("nudges_out") == "yes" and s.answers.get("takes_disc") == "takes"


def _no_spin(s: Session, _repair: str, part: str) -> bool:
    return part == "spindle" and s.answers.get("spins") in ("never", "twitches") and not (is_known(s, "spindle_turn") or is_known(s, "spindle_current"))


def _together(s: Session, _repair: str, part: str) -> bool:
    dead = sum(s.answers.get(q) in bad for q, bad in (("takes_disc", ("ignores",)), ("ejects", ("no",)), ("wakes", ("no",)), ("power", ("no",))))
    return dead >= 2 and part not in ("fuse", "flex_board", "supply", "board") and not any(is_known(s, q) for q in _SUPPLY_TESTS)


def _one_light(s: Session, _repair: str, part: str) -> bool:
    classes = [o for q, o in s.answers.items() if q.startswith(("game_", "film_", "music_", "data_"))]
    return "reads" in classes and "fails" in classes and part in ("lens", "sled", "supply")


def _late(s: Session, repair: str, _part: str) -> bool:
    return repair in ("raise_drive", "set_trimmer") and s.answers.get("later_data") == "stutters"


def _high(s: Session, repair: str, _part: str) -> bool:
    return repair == "raise_drive" and s.answers.get("level_reading") == "high"


def _cleared(s: Session, _repair: str, part: str) -> bool:
    """The part that a donor was tried for is still the likeliest, and another goes in."""
    parts = {r.id: r.part for r in s.ready.plan.repairs}
    suspected: dict[str, float] = {}
    for fault, w in zip(s.ready.model.faults, s.at.w, strict=True):
        suspected[fault.part] = suspected.get(fault.part, 0.0) + float(w)
    likeliest = max(suspected, key=lambda p: suspected[p])
    return part != likeliest and likeliest in {parts[r] for r in s.swapped}


def _again(s: Session, repair: str, part: str) -> bool:
    parts = {r.id: r.part for r in s.ready.plan.repairs}
    return repair in s.tried or sum(parts[r] == part for r in s.tried) >= 2


def _ours_first(s: Session, repair: str, _part: str) -> bool:
    last = next((d for d in reversed(s.done) if d.move.do in {Do.REPAIR, Do.SWAP}), None)
    return last is not None and last.outcome == "worse" and repair not in ("redo_last_step", "dry_out", "refit_original", "refit_own_board")


def _dear(s: Session, repair: str, _part: str) -> bool:
    problem, plan = s.ready.problem, s.ready.plan
    a = next(n for n, r in enumerate(plan.repairs) if r.id == repair)
    p = s.at.w / s.at.w.sum()
    cheap = (~problem.buys) & s.at.free & (problem.cost[s.at.state] < 0.5 * problem.cost[s.at.state, a])
    likely = (p >= REAL_WEIGHT) & problem.real & ~problem.targets[a]
    return bool(problem.is_dear[a]) and bool(((problem.success[cheap] >= 0.45) & likely).any())


_RULES: Final[dict[str, Callable[[Session, str, str], bool]]] = {
    "T2": _retry,
    "T3": _no_spin,
    "T6": _together,
    "T7": _one_light,
    "T8": _late,
    "T12": _high,
    "T14": _cleared,
    "T15": _again,
    "T18": _ours_first,
    "T32": _dear,
}
