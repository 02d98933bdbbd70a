"""In which order: the least minutes from a state of the unit to a depth or a part, and back. Exact for units of some dozens of steps.

Where a step needs one of several before it, every choice is tried; within a choice what needs no turning and no other tool is done at once (an
exchange argument: moved forward it costs nothing and lets more follow), and what is left is searched whole.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass
from functools import cache
from itertools import product
from typing import Final

from spindle.bench.opening.steps import Opening, OpeningStep
from spindle.errors import NotFoundError
from spindle.words.bench import Depth

TURN_MIN: Final = 0.5
"""Minutes to turn a unit over and lay it down again: lift, cushion, look."""
TOOL_MIN: Final = 0.1
"""Minutes to lay one tool down and find the next."""
CARE_MIN: Final = 2.0
"""More minutes for turning while something lies loose that falls out: it is held or taped first."""
MOST_CHOICES: Final = 512
"""Ways to choose among alternatives: nine forks of two; a console has one or two."""


@dataclass(frozen=True, slots=True)
class Move:
    """One step of a way, the turn before it ("" for none), and what could fall out by that turn."""

    step: OpeningStep
    turn_to: str = ""
    holds: tuple[OpeningStep, ...] = ()


@dataclass(frozen=True, slots=True)
class Way:
    """Steps in order, and their minutes with turning and tools."""

    moves: tuple[Move, ...] = ()
    minutes: float = 0.0


def way_in(opening: Opening, done: Iterable[str], goal: Iterable[str], side: str = "") -> Way:
    """Return the quickest way from what is open to one of the goal's steps.

    Parameters
    ----------
    done : ids of the steps that are done
    goal : ids of steps of which one has to be done
    side : the side that lies up now; "" if any

    Raises
    ------
    NotFoundError
        If the goal names no step.
    """
    open_now, goals = frozenset(done).intersection(opening.steps), [g for g in goal if g in opening.steps]
    if not goals:
        raise NotFoundError("No step of the sheet leads there: add it to the sheet, or record it while you open.")
    if open_now & set(goals):
        return Way()
    choices = {c for g in goals for c in _closures(opening, g, open_now)}
    return min((_ordered(opening, c, open_now, side, is_back=False) for c in choices), key=lambda w: (w.minutes, [m.step.id for m in w.moves]))


def steps_between(opening: Opening, now: Depth, depth: Depth) -> list[OpeningStep]:
    """Return what is undone from one depth to a deeper one, in its order; nothing to a shallower one, and where the sheets do not say."""
    goals = {d: opening.leading_to(d) for d in Depth}
    if depth <= now or not goals[depth]:
        return []
    done = [m.step.id for d in Depth if d <= now and goals[d] for m in way_in(opening, (), goals[d]).moves]
    return [m.step for m in way_in(opening, done, goals[depth]).moves]


def way_back(opening: Opening, done: Iterable[str], keep: Iterable[str] = (), side: str = "") -> Way:
    """Return the quickest way to put back what is open, but for what is kept open and what that needs."""
    open_now = frozenset(done).intersection(opening.steps)
    stays: set[str] = set()
    for step in keep:
        stays |= held_by(opening, step, open_now) | ({step} & open_now)
    return _ordered(opening, open_now - frozenset(stays), open_now, side, is_back=True)


def held_by(opening: Opening, step: str, done: frozenset[str]) -> set[str]:
    """Return what has to stay open for a step to stay open: of alternatives all that are open."""
    found: set[str] = set()
    todo = [step]
    while todo:
        for clause in opening.steps[todo.pop()].after:
            for other in clause & done - found:
                found.add(other)
                todo.append(other)
    return found


def first_needed(opening: Opening, step: str, done: frozenset[str]) -> str:
    """Return the id of a step that has to be done before this one; "" if nothing stands in its way."""
    return next((min(clause) for clause in opening.steps[step].after if not clause & done), "")


def resting_on(opening: Opening, step: str, done: frozenset[str]) -> str:
    """Return the id of an open step that needs this one open; "" if it can be put back."""
    rest = done - {step}
    return next((o for o in opening.steps if o in rest and first_needed(opening, o, rest)), "")


def _closures(opening: Opening, goal: str, done: frozenset[str]) -> Iterator[frozenset[str]]:
    """Yield every set of steps that leads to a goal, one for each choice among alternatives."""
    forks = sorted({c for s in opening.steps.values() for c in s.after if len(c) > 1 and not c & done}, key=sorted)
    seen: set[frozenset[str]] = set()
    for n, picks in enumerate(product(*map(sorted, forks))):
        if n >= MOST_CHOICES:
            return
        found = _closure(opening, goal, done, dict(zip(forks, picks, strict=True)))
        if found is not None and found not in seen:
            seen.add(found)
            yield found


def _closure(opening: Opening, goal: str, done: frozenset[str], pick: Mapping[frozenset[str], str]) -> frozenset[str] | None:
    found: set[str] = set()

    def visit(step: str, trail: frozenset[str]) -> bool:
        if step in trail:
            return False
        if step in done or step in found:
            return True
        if not all(visit(pick.get(clause, min(clause)), trail | {step}) for clause in opening.steps[step].after if not clause & done):
            return False
        found.add(step)
        return True

    return frozenset(found) if visit(goal, frozenset()) else None


def _ordered(opening: Opening, chosen: frozenset[str], done: frozenset[str], side: str, *, is_back: bool) -> Way:
    """Return the quickest order of these steps."""
    steps = opening.steps

    def is_free(step: str, left: frozenset[str]) -> bool:
        now = done | (chosen - left) if not is_back else done - (chosen - left)
        return not (resting_on(opening, step, now) if is_back else first_needed(opening, step, now))

    search = _search(steps, chosen, done, is_free, is_back=is_back)
    return Way(*_told(steps, search(chosen, side, "")))


_Found = tuple[float, tuple[tuple[str, str, tuple[str, ...]], ...]]


def _search(
    steps: Mapping[str, OpeningStep], chosen: frozenset[str], done: frozenset[str], is_free: Callable[[str, frozenset[str]], bool], *, is_back: bool
) -> Callable[[frozenset[str], str, str], _Found]:
    rank = {s: n for n, s in enumerate(steps)}

    def loose(left: frozenset[str]) -> tuple[str, ...]:
        now = done | (chosen - left) if not is_back else done - (chosen - left)
        return tuple(s for s in steps if s in now and steps[s].falls)

    def own(step: str) -> float:
        return steps[step].back_min if is_back else steps[step].minutes

    sides = frozenset(steps[s].side for s in chosen) - {""}
    forks = frozenset().union(*(c for s in steps.values() for c in s.after if len(c) > 1))

    def is_harmless(step: str) -> bool:
        """Tell whether doing it now takes no choice away: one way of several that is shut binds the others, and what falls out makes turns dear."""
        return step not in forks if is_back else not steps[step].falls

    @cache
    def best(left: frozenset[str], side: str, tool: str) -> _Found:
        if not left:
            return 0.0, ()
        free = sorted((s for s in left if is_free(s, left)), key=rank.__getitem__)
        at_once = [s for s in free if steps[s].side in ("", side) and steps[s].tool in ("", tool) and is_harmless(s)]
        ways = []
        for step in at_once[:1] or free:
            for up in (steps[step].side,) if steps[step].side else (side, *sorted(sides - {side})):  # it may be turned beforehand, while nothing lies loose yet
                turns = side not in (up, "")
                falls = loose(left) if turns else ()
                cost = own(step) + (TURN_MIN if turns else 0.0) + (CARE_MIN if falls else 0.0) + (TOOL_MIN if steps[step].tool not in ("", tool) else 0.0)
                rest, then = best(left - {step}, up, steps[step].tool or tool)
                ways.append((cost + rest, ((step, up if turns else "", falls), *then)))
        return min(ways, key=lambda w: w[0])

    return best


def _told(steps: Mapping[str, OpeningStep], found: _Found) -> tuple[tuple[Move, ...], float]:
    minutes, order = found
    return tuple(Move(steps[name], turn_to, tuple(steps[f] for f in falls)) for name, turn_to, falls in order), minutes
