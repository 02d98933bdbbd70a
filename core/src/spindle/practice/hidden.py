"""What is hidden in a practice unit, with all its dice thrown beforehand: the same seed is the same unit, whoever plays it."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cache, lru_cache
from typing import Final

import numpy as np

from spindle.diagnosis.given.compiled import CompiledModel, Floats, compile_model, faults_of
from spindle.diagnosis.given.economy import Economy
from spindle.diagnosis.planning.futures import Unit, throw_units
from spindle.diagnosis.planning.plan import plan_for
from spindle.drives.sheet import DriveSheet, Pairing
from spindle.faults.library import MODELS
from spindle.practice.lessons import Hides, Lesson
from spindle.shipped import fingerprint
from spindle.study.worlds import SHEETS, Setup

TOLD: Final = ("opened_before", "rattle")
"""What the counter has seen before the bench begins."""
FAILS_SHARE: Final = 0.5
"""How often a fault that comes and goes is there when somebody looks."""
NOTHING: Final = "nothing_wrong"
RULES: Final = 2
"""Raised when the same moves come to something else: a unit that was begun before is not replayed."""


@dataclass(frozen=True)
class Hidden:
    """What is wrong, as units of the study: one for each fault.

    Attributes
    ----------
    units : what each fault shows and which repair cures it
    sound : what is shown where nothing is wrong any more
    comes_and_goes : each look at it may find it well
    dice : ndarray of shape (looks, questions)
        Of a fault that comes and goes: under :data:`FAILS_SHARE` it is there at that look.
    told : question -> outcome: what the counter has seen
    """

    units: tuple[Unit, ...]
    sound: Unit
    comes_and_goes: bool
    dice: Floats
    told: dict[str, str]

    def shows(self, question: int, look: int, bad: Floats) -> int:
        """Return the answer to a question at its so many-th look, of those faults that are left; ``bad`` is 1 at answers that speak of a fault."""
        if not self.units:
            return int(self.sound.shows[question])
        if self.comes_and_goes and self.dice[look % len(self.dice), question] >= FAILS_SHARE:
            return int(self.sound.shows[question])
        said = [int(u.shows[question]) for u in self.units]
        return max(said, key=lambda o: bad[o])

    def without(self, repair: int) -> Hidden:
        """Return what is left after a repair."""
        return replace(self, units=tuple(u for u in self.units if not u.cures[repair]))

    def with_fault(self, unit: Unit) -> Hidden:
        """Return it with one thing more that somebody brought about."""
        return replace(self, units=(*self.units, unit))


WORLD: Final = fingerprint(*(("spindle.faults", name) for name in ("shared", *MODELS)), ("spindle.practice", "lessons"), rules=RULES)
"""Names the models and lessons that practice units are drawn from: the same seed is the same unit only while they are the same."""
KEYED: Final = "T30"
"""The trap that only a drive with a board of its own console sets."""


@cache
def bench(family: str) -> Setup:
    """Return one family's drive, ready to be played; made once."""
    return bench_of(compile_model(SHEETS[family]))


@lru_cache(maxsize=32)
def bench_of(drive: CompiledModel) -> Setup:
    """Return the drive of a sheet, ready to be played: every instrument is there, and parts are ordered."""
    return Setup(drive.sheet.family, drive, plan_for(drive, Economy()))


def suits(lesson: Lesson, drive: DriveSheet) -> bool:
    """Tell whether a drive can have all that a lesson may hide, and set its trap."""
    if drive.family != lesson.family or (lesson.trap == KEYED and drive.pairing is not Pairing.BOARD):
        return False
    return set(lesson.faults) <= {f.id for f in faults_of(drive)}


def draw_hidden(lesson: Lesson, seed: int, ready: Setup) -> Hidden:
    """Return what a lesson hides behind a seed."""
    rng = np.random.default_rng([seed, 71, lesson.number])
    model = ready.model
    allowed = np.array([not f.opened_by and f.id != NOTHING and (not lesson.faults or f.id in lesson.faults) for f in model.faults])
    weights = np.where(allowed, model.prior, 0.0)
    count = {Hides.TWO: 2, Hides.NONE: 0}.get(lesson.kind, 1)
    units: list[Unit] = []
    for _ in range(count):
        unit = _thrown(weights, ready, rng)
        weights[unit.fault] = 0.0
        units.append(unit)
    sound = thrown_fault(NOTHING, ready, rng)
    dice = rng.random((40, len(ready.plan.asks)))
    told = _told(units[0].fault if units else sound.fault, lesson, model, rng)
    return Hidden(tuple(units), sound, lesson.kind is Hides.COMES_AND_GOES, dice, told)


def thrown_fault(fault: str, ready: Setup, rng: np.random.Generator) -> Unit:
    """Return a unit with that very fault."""
    weights = np.array([float(f.id == fault) for f in ready.model.faults])
    return _thrown(weights, ready, rng)


def _thrown(weights: Floats, ready: Setup, rng: np.random.Generator) -> Unit:
    p = ready.problem
    return throw_units(1, weights, p.at_home, p.success, p.first_row, rng, away=(p.p_home, p.away))[0]


def _told(fault: int, lesson: Lesson, model: CompiledModel, rng: np.random.Generator) -> dict[str, str]:
    told = {}
    for name in TOLD:
        if name in model.questions:
            outcomes = [o.id for o in model.questions[name].outcomes]
            told[name] = outcomes[int(rng.choice(len(outcomes), p=model.likelihood[name][:, fault] / model.likelihood[name][:, fault].sum()))]
    if lesson.kind is Hides.TAMPERED:
        told["opened_before"] = "opened"
    return told
