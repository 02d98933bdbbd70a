"""Swap plans (C23, C24): "that part, this console". What stays, what moves, in which order, what is lost, and the way back."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Final

from spindle.drives.full_sheet import FullSheet
from spindle.drives.levels import LEVELS, is_within, pieces_of
from spindle.drives.sheet import Pairing
from spindle.errors import RefusedError
from spindle.shipped import read_toml

UNIT: Final = "unit"
DONOR: Final = "donor"
MAT: Final = "mat"
Holding = Mapping[tuple[str, str], str]
"""(whose, level) -> where that piece is: in the unit, at the donor, or on the mat. Whose is where it was at first."""
_WORDS: Final = read_toml("spindle.drives", "swap_words")


class Purpose(StrEnum):
    """What a plan ends in."""

    REPAIR = "repair"
    TEST = "test"
    """The foreign part goes in to see motors run, and comes out again."""


@dataclass(frozen=True, slots=True)
class Shift:
    """One piece changes its place."""

    whose: str
    level: str
    origin: str
    to: str


@dataclass(frozen=True, slots=True)
class PlanStep:
    """One thing to do, with its cautions, the sheet's screws and connectors that belong to it, and what changes place by it."""

    kind: str
    text: str
    depth: str
    """How far the unit has to be open for it: cover_off, or drive_open."""
    cautions: tuple[str, ...] = ()
    details: tuple[str, ...] = ()
    shifts: tuple[Shift, ...] = ()
    id: str = ""
    """Names it within its plan, there and back: what was done is remembered by it."""


@dataclass(frozen=True, slots=True)
class SwapPlan:
    """How a part goes into a console, and how everything is put back. ``stays`` and ``comes`` are what the console holds at the end."""

    level: str
    purpose: Purpose
    stays: tuple[str, ...]
    """Levels of its own that the plan does not touch."""
    moves: tuple[str, ...]
    """Levels of its own that move across into the other part."""
    comes: tuple[str, ...]
    """Levels of the other part that are in the console at the end."""
    steps: tuple[PlanStep, ...]
    back: tuple[PlanStep, ...]
    lost: str
    """What is lost if the key carrier is damaged; "" where nothing is paired."""
    shows: tuple[str, ...]
    warnings: tuple[str, ...]


def start(unit: FullSheet) -> Holding:
    """Return where every piece is before a swap."""
    return {(who, level): who for level in atoms(unit) for who in (UNIT, DONOR)}


def run(holding: Holding, steps: Iterable[PlanStep]) -> Holding:
    """Return where every piece is after some steps.

    Raises
    ------
    RefusedError
        If a step takes a piece from where it is not: plan and bench have come apart.
    """
    now = dict(holding)
    for step in steps:
        for shift in step.shifts:
            if now[shift.whose, shift.level] != shift.origin:
                raise RefusedError(f"The {LEVELS[shift.level].name.lower()} is not where this step takes it from.", level=shift.level)
            now[shift.whose, shift.level] = shift.to
    return now


def atoms(unit: FullSheet) -> tuple[str, ...]:
    """Return the pieces that are not made of others by themselves, as far as this drive has them."""
    drive = unit.drive
    has = {"chip": drive.pairing is Pairing.CHIP, "fuse": bool(drive.fuse_rating), "belt": drive.has_belt, "capacitors": drive.has_electrolytics}
    return tuple(v.id for v in pieces_of(drive.family) if v.id not in ("drive", "deck") and has.get(v.id, True))


def swap_plan(unit: FullSheet, level: str, *, broken: frozenset[str] = frozenset(), is_key_dead: bool = False, from_donor: bool = True) -> SwapPlan:
    """Return how another part of that level goes into this console.

    Parameters
    ----------
    broken : levels that are taken to be at fault, so far as is known
    is_key_dead : the key itself is burnt or gone
    from_donor : the part sits in a donor still, with its own follower and no shorting bridge; False for a new one from the shelf

    Raises
    ------
    RefusedError
        If it would leave the console without its key (a foreign key chip, a key that is dead), or the drive has no such part.
    """
    carrier = unit.key_carrier
    _refuse(level, carrier, is_key_dead=is_key_dead)
    whole = tuple(a for a in atoms(unit) if is_within(a, level))
    if not whole:
        raise RefusedError(_said(_WORDS["refused"]["absent"], level, ""), level=level)
    kept_root = _kept(level, carrier, unit.drive.pairing, broken)
    kept = tuple(a for a in whole if kept_root and is_within(a, kept_root))
    purpose = Purpose.TEST if level == "board" and carrier == "board" else Purpose.REPAIR
    taken = tuple(a for a in whole if a not in kept)
    forward = _forward(unit, level, (whole, kept, taken), kept_root, from_donor=from_donor)
    if purpose is Purpose.TEST:
        forward = forward[:-1]
    back = _back(forward, level, kept_root)
    stays = tuple(a for a in atoms(unit) if a not in whole)
    if purpose is Purpose.TEST:  # the own board lies on the mat meanwhile, and goes back
        forward, back, taken, stays = (*forward, _step("look", level, kept_root), *back), (), (), atoms(unit)
    forward, back = _named(forward, "there"), _named(back, "back")
    return SwapPlan(
        level, purpose, stays, kept, taken, forward, back, _lost(level, unit), _shows(purpose, kept_root), _warnings(unit, level, (whole, kept), broken)
    )


def _named(steps: tuple[PlanStep, ...], way: str) -> tuple[PlanStep, ...]:
    """Give each step its id: the way, its kind, and which of that kind it is."""
    seen: dict[str, int] = {}
    named = []
    for step in steps:
        seen[step.kind] = seen.get(step.kind, 0) + 1
        named.append(replace(step, id=f"{way}_{step.kind}_{seen[step.kind]}"))
    return tuple(named)


def _refuse(level: str, carrier: str, *, is_key_dead: bool) -> None:
    if level == "chip":
        raise RefusedError(_WORDS["refused"]["foreign_chip" if carrier == "chip" else "no_chip"], level=level)
    if carrier and is_key_dead and (is_within(carrier, level) or is_within(level, "board")):
        raise RefusedError(_WORDS["refused"]["dead_key"], level=level)


def _kept(level: str, carrier: str, pairing: Pairing, broken: frozenset[str]) -> str:
    """Return what has to move across into the other part: the board as a whole, unless it is the board that is broken and a chip can leave it."""
    if level == "drive" and carrier:
        return "chip" if pairing is Pairing.CHIP and any(is_within(b, "board") and b != "chip" for b in broken) else "board"
    return "chip" if level == "board" and carrier == "chip" else ""


def _forward(unit: FullSheet, level: str, sets: tuple[tuple[str, ...], ...], kept_root: str, *, from_donor: bool) -> tuple[PlanStep, ...]:
    whole, kept, taken = sets
    steps = [_step("photo", level)]
    steps += [_row_step(r["action"], level, r) for r in _transfers(unit, level, "read", "compare")]
    wires = [str(r["wires"]) for r in unit.rows("assemblies", level) if r["wires"]]
    steps += [_step("wires", level, wires="; ".join(wires))] if wires else []
    steps.append(_step("own_out", level, details=_details(unit, level), shifts=_shift(UNIT, whole, UNIT, MAT)))
    if from_donor:
        steps.append(_step("other_out", level, shifts=_shift(DONOR, whole, DONOR, MAT)))
    if kept_root:
        steps.append(_step("carry_chip" if kept_root == "chip" else "carry_board", level, kept_root, details=_details(unit, kept_root)))
    if not from_donor:
        steps += [_row_step("move", level, r) for r in _transfers(unit, level, "move")]
    into = _shift(DONOR, taken, MAT if from_donor else DONOR, UNIT) + _shift(UNIT, kept, MAT, UNIT)
    steps.append(_step("other_in", level, details=_details(unit, level), shifts=into))
    steps += [_row_step(r["action"], level, r) for r in _transfers(unit, level, *(() if from_donor else ("clear",)), "prove")]
    rest = _shift(UNIT, taken, MAT, DONOR) + (_shift(DONOR, kept, MAT, DONOR) if from_donor else ())
    steps.append(_step("keep", level, shifts=rest))
    return tuple(steps)


def _back(forward: tuple[PlanStep, ...], level: str, kept_root: str) -> tuple[PlanStep, ...]:
    """Return the way back: every step that moved something, turned round."""
    steps = [_step("photo", level)]
    for step in reversed(forward):
        if step.kind in _WORDS["back"]:
            text = step.text if step.kind == "move" else _said(_WORDS["back"][step.kind], level, kept_root)
            shifts = tuple(Shift(s.whose, s.level, s.to, s.origin) for s in reversed(step.shifts))
            said = text.replace("Move across from the old part", "Back to the old part")
            steps.append(PlanStep(f"back_{step.kind}", said, step.depth, step.cautions, step.details, shifts))
    return tuple(steps)


def _transfers(unit: FullSheet, level: str, *actions: str) -> list[dict[str, str]]:
    rows = unit.rows("transfers", level)
    return [{k: str(v or "") for k, v in r.items()} for action in actions for r in rows if r["action"] == action]


def _shift(whose: str, levels: Iterable[str], origin: str, to: str) -> tuple[Shift, ...]:
    return tuple(Shift(whose, v, origin, to) for v in levels)


def _details(unit: FullSheet, level: str) -> tuple[str, ...]:
    screws = [f"{r['count']} screws, {r['head']}, {r['thread_mm']:g} × {r['length_mm']:g} mm: {r['place']}" for r in unit.rows("screws", level)]
    plugs = [f"{r['name']} ({r['latch']}): {r['lets_go']}" for r in unit.rows("connectors", level)]
    return (*screws, *plugs)


def _step(kind: str, level: str, key: str = "", *, wires: str = "", details: tuple[str, ...] = (), shifts: tuple[Shift, ...] = ()) -> PlanStep:
    words = _WORDS["steps"][kind]
    return PlanStep(kind, _said(words["text"], level, key, wires=wires), _depth(kind, level), tuple(words["cautions"]), details, shifts)


def _row_step(kind: str, level: str, row: Mapping[str, str]) -> PlanStep:
    words = _WORDS["steps"][kind]
    return PlanStep(kind, _said(words["text"], level, "", what=row["what"], how=row["how"]).strip(), _depth(kind, level), tuple(words["cautions"]))


def _depth(kind: str, level: str) -> str:
    """Return how far the unit is open: a whole drive comes out of the console closed, what moves between drives needs them open."""
    return "cover_off" if level == "drive" and not kind.startswith("carry") else "drive_open"


def _said(text: str, level: str, key: str, **more: str) -> str:
    return str(text).format(part=LEVELS[level].name.lower(), key=LEVELS[key].name.lower() if key else "", **{"what": "", "how": "", "wires": "", **more})


def _lost(level: str, unit: FullSheet) -> str:
    carrier = unit.key_carrier
    if not carrier or not (is_within(carrier, level) or is_within(level, "board")):
        return ""
    return str(_WORDS["lost"]["unknown" if unit.drive.pairing is Pairing.UNKNOWN else carrier])


def _shows(purpose: Purpose, kept_root: str) -> tuple[str, ...]:
    if purpose is Purpose.TEST:
        return (_WORDS["shows"]["unpaired_board"],)
    return (_WORDS["shows"]["before_carry"],) if kept_root == "board" else ()


def _warnings(unit: FullSheet, level: str, sets: tuple[tuple[str, ...], ...], broken: frozenset[str]) -> tuple[str, ...]:
    whole, kept = sets
    words, pairing, found = _WORDS["warnings"], unit.drive.pairing, []
    for name in sorted(broken):
        if any(is_within(name, k) for k in kept):
            found.append(_said(words["comes_along"], level, kept[0]))
        elif not any(is_within(name, w) or is_within(w, name) for w in whole):
            found.append(_said(words["untouched"], name, ""))
    if level != "board" and is_within(level, "board") and unit.key_carrier:
        found.append(words["heat_near_key"])
    if pairing is Pairing.UNKNOWN and level in ("drive", "board"):
        found.append(words["unknown_pairing"])
    if any(r["soldered"] for r in unit.rows("assemblies", level)) and LEVELS[level].has_wires:
        found.append(words["new_joint"])
    return tuple(dict.fromkeys(found))
