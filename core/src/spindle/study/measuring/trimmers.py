"""Invented trimmers in invented hands: tapers, play, tremble, a dirty wiper, the wrong screw."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any, Final

import numpy as np

from spindle.bench.reading import Accuracy
from spindle.bench.trimming.creeping import Creep, creep_step, reserve, worn
from spindle.bench.trimming.stops import LOOKS, Stop, Trimmer
from spindle.bench.trimming.turning import Aim, Next, next_step

BROKEN: Final = ("wrong_screw", "open_wiper", "dirty_wiper", "slipping")
METER: Final = Accuracy(0.8, 3, 0.0)


@dataclass(frozen=True, slots=True)
class Hands:
    """How a hand turns: its scatter as a share and in degrees, play in the screw, and how often it turns the wrong way."""

    share: float = 0.12
    deg: float = 0.8
    play_deg: float = 2.5
    wrong_way: float = 0.01
    taper: float = 0.35


HARSH: Final = Hands(share=0.3, deg=2.0, play_deg=5.0, wrong_way=0.05, taper=0.8)


class SimulatedTrimmer:
    """A trimmer with a hand at it. ``angle`` is what the wiper is at, in degrees clockwise; ``z`` what the drive is at, in half bands."""

    def __init__(self, rng: np.random.Generator, hands: Hands, *, broken: str = "", powered: bool | None = None) -> None:
        self._rng, self._hands, self.broken = rng, hands, broken
        self._slope = float(np.exp(rng.normal(np.log(0.09), 0.5))) * rng.choice([-1, 1])
        self._slope = float(np.clip(abs(self._slope), 0.03, 0.35) * np.sign(self._slope))
        self._bend = rng.uniform(0.3, 1.0) * hands.taper
        self._phase = rng.uniform(0, 2 * np.pi)
        self._zero = float(rng.uniform(0.9, 4.5) * rng.choice([-1, 1]))
        is_powered = bool(rng.random() < 0.35) if powered is None else powered
        centre, share = 10 ** rng.uniform(2.0, 3.6), rng.uniform(0.05, 0.2)
        kind, centre = ("voltage", rng.uniform(0.4, 2.5)) if is_powered else ("resistance", centre)
        self._sign = int(rng.choice([-1, 1])) if kind == "resistance" else 1
        knows = rng.random() < 0.6
        reading_way = self._sign * (1 if self._slope > 0 else -1)
        strong_z = 1.0 + rng.uniform(0.3, 1.5)
        half = centre * share
        accuracy = METER.half_width(centre) / np.sqrt(3)
        self.trimmer = Trimmer(
            low=centre - half,
            high=centre + half,
            kind=kind,
            more_drive=self._sign,
            clockwise=reading_way if knows else 0,
            strong=centre + self._sign * half * strong_z,
            is_powered=is_powered,
            u=float(max(accuracy, 0.004 * centre)) / 2,
        )
        self.z_strong = strong_z
        self._spread = 0.0015 * centre
        self._angle, self._slack = 0.0, 0.0

    @property
    def z(self) -> float:
        """Where the drive is, in half bands."""
        return self._z(self._angle)

    def _z(self, angle: float) -> float:
        return float(self._zero + self._slope * (angle + self._bend * 40.0 * (np.sin(angle / 40.0 + self._phase) - np.sin(self._phase))))

    def turn(self, deg: float) -> None:
        """Turn by hand: not quite so far, after the play is taken up, now and then the wrong way."""
        rng, hands = self._rng, self._hands
        made = deg * (1 + rng.normal(0, hands.share)) + rng.normal(0, hands.deg)
        made = -made if rng.random() < hands.wrong_way else made
        if self.broken == "wrong_screw":
            return
        play = hands.play_deg / 2 * (0.6 if self.broken != "slipping" else 6)
        moved = self._slack + made
        carried = max(moved - play, 0.0) + min(moved + play, 0.0)
        self._slack = moved - carried
        self._angle += carried

    def look(self) -> float:
        """Read it once."""
        trimmer, rng = self.trimmer, self._rng
        spread = self._spread * (40 if self.broken == "dirty_wiper" else 1)
        z = 9.0 if self.broken == "open_wiper" else self.z
        return float(trimmer.reading(z) + rng.normal(0, spread))

    def looks(self) -> tuple[float, ...]:
        """Read it as often as a stop wants."""
        return tuple(self.look() for _ in range(LOOKS))


@dataclass(frozen=True, slots=True)
class Set:
    """How one setting went."""

    done: bool
    turns: int
    z: float
    over: bool
    alarm: str


def set_by_the_law(unit: SimulatedTrimmer, aim: Aim) -> tuple[Set, list[Stop]]:
    """Follow the assistant until it is done or stops. What the room does not cover is turned with the mains out and read in ohms, as it says."""
    stops: list[Stop] = [Stop(0.0, unit.looks())]
    over, in_ohms = False, False
    off = replace(unit.trimmer, is_powered=False)
    while True:
        step = next_step(off if in_ohms else unit.trimmer, stops, aim)
        is_off, in_ohms = in_ohms, (not in_ohms and step.alarms == ("no_room",)) or not step.may_power
        last = stops[-1]
        if step.what is Next.LOOK:
            stops[-1] = Stop(last.turned_deg, (*last.looks, *unit.looks()))
        elif step.what is Next.TAP:
            stops[-1] = Stop(last.turned_deg, last.looks, unit.looks())
        elif step.what is Next.TURN:
            unit.turn(step.turn_deg)
            over = over or (unit.trimmer.is_powered and not is_off and step.may_power and unit.z > unit.z_strong)
            stops.append(Stop(step.turn_deg, unit.looks()))
        elif not in_ohms or step.alarms != ("no_room",):
            return Set(step.what is Next.DONE, len(stops) - 1, unit.z, over, step.alarms[0] if step.what is Next.STOP else ""), stops


def _healthy_start(rng: np.random.Generator, hands: Hands, powered: bool | None = None) -> SimulatedTrimmer:
    """A trimmer that a laser may run with as found: what is beyond is read in ohms first."""
    while True:
        unit = SimulatedTrimmer(rng, hands, powered=powered)
        if not unit.trimmer.is_powered or unit.z < unit.z_strong - 2 * unit.trimmer.u_z:
            return unit


def study_trimmer(n: int, seed: int) -> dict[str, Any]:
    """Return how often the assistant sets a trimmer, in how many turns, how often past the limit, and what it says of broken ones."""
    found: dict[str, Any] = {}
    for name, hands in (("usual", Hands()), ("harsh", HARSH)):
        rng = np.random.default_rng([seed, len(name)])
        went = [(u := _healthy_start(rng, hands), set_by_the_law(u, Aim())[0]) for _ in range(n)]
        sets = [s for _, s in went]
        done = [s for s in sets if s.done]
        powered = [s for u, s in went if u.trimmer.is_powered]
        turns = np.array([s.turns for s in done])
        found[name] = {
            "units": n,
            "done_percent": _share(s.done for s in sets),
            "in_band_percent": _share(abs(s.z) <= 1.0 for s in done),
            "turns_mean": round(float(turns.mean()), 2),
            "turns_p90": float(np.quantile(turns, 0.9)),
            "under_power": len(powered),
            "over_limit_under_power_percent": _share(s.over for s in powered),
            "false_alarm_percent": _share(s.alarm in ("nothing_moves", "wiper_dirty", "wanders") for s in sets),
            "no_room_percent": _share(s.alarm == "no_room" for s in sets),
        }
    rng = np.random.default_rng([seed, 99])
    broken = [set_by_the_law(SimulatedTrimmer(rng, Hands(), broken=str(rng.choice(BROKEN[:3])), powered=False), Aim())[0] for _ in range(max(n // 4, 50))]
    found["broken"] = {"units": len(broken), "done_percent": _share(s.done for s in broken)}
    return found


def _share(found: Any) -> float:
    return round(100.0 * float(np.mean(list(found) or [0])), 3)


def study_creep(n: int, seed: int) -> dict[str, Any]:
    """Return how the other school fares: up from less drive until it reads, its reserve as a judge of wear."""
    rng = np.random.default_rng([seed, 7])
    over = read = healthy = back = backs = 0
    chances: list[float] = []
    judged: list[tuple[float, bool]] = []
    for _ in range(n):
        unit = _healthy_start(rng, Hands(), powered=True)
        is_worn = bool(rng.random() < 0.5)
        needs = float(rng.normal(0.85, 0.25) if is_worn else rng.normal(-0.9, 0.3)) * unit.z_strong
        end = _creep(unit, needs, rng)
        over += end.over
        if not is_worn:
            healthy += 1
            read += end.reads
        if end.reads:
            chances.append(_reads_at(unit.z, needs))
        else:
            backs += 1
            back += abs(unit.z - end.as_found) <= 0.5
        judged.append((end.reserve, is_worn))
    return {
        "units": n,
        "over_limit_percent": round(100 * over / n, 3),
        "healthy_read_percent": round(100 * read / max(healthy, 1), 2),
        "chance_of_reading_at_the_end": round(float(np.mean(chances)), 3),
        "back_percent": round(100 * back / max(backs, 1), 2),
        "reserve_auc": round(_auc(judged), 3),
        "worn_percent_by_reserve": {name: _share(w for r, w in judged if worn(r) == name) for name in ("ample", "fair", "little", "none")},
    }


def _reads_at(z: float, needs: float) -> float:
    """Chance that a disc reads at a drive, if so much is needed: rises over a fifth of a half band."""
    return float(0.98 / (1 + np.exp(-(z - needs) / 0.08)))


@dataclass(frozen=True, slots=True)
class _Crept:
    reads: bool
    over: bool
    reserve: float
    as_found: float


def _creep(unit: SimulatedTrimmer, needs: float, rng: np.random.Generator) -> _Crept:
    stops: list[Stop] = [Stop(0.0, unit.looks())]
    as_found, over = unit.z, False
    chance = _reads_at(unit.z, needs)
    passes = int(rng.binomial(3, chance))
    stops[0] = Stop(0.0, stops[0].looks, passes=passes, tries=3)
    for _ in range(120):
        creep: Creep = creep_step(unit.trimmer, stops)
        last = stops[-1]
        if creep.what == "turn":
            unit.turn(creep.turn_deg)
            over = over or (not creep.going_back and unit.z > unit.z_strong)  # the way back is turned with the power off
            stops.append(Stop(creep.turn_deg, unit.looks()))
        elif creep.what == "look":
            stops[-1] = Stop(last.turned_deg, (*last.looks, *unit.looks()), last.after_tap, last.passes, last.tries)
        elif creep.what == "tap":
            stops[-1] = Stop(last.turned_deg, last.looks, unit.looks(), last.passes, last.tries)
        elif creep.what == "try":
            made = int(rng.binomial(creep.tries, _reads_at(unit.z, needs)))
            stops[-1] = Stop(last.turned_deg, last.looks, last.after_tap, last.passes + made, last.tries + creep.tries)
        else:
            z_first = unit.trimmer.z(stops[-1].value) if creep.what == "reads" else unit.trimmer.z_limit
            return _Crept(creep.what == "reads", over, reserve(unit.trimmer, z_first), as_found)
    return _Crept(False, over, 0.0, as_found)


def _auc(judged: list[tuple[float, bool]]) -> float:
    """Chance that a worn one has less reserve than a healthy one (Mann and Whitney's statistic)."""
    worn_ones = np.array([r for r, w in judged if w])
    sound = np.array([r for r, w in judged if not w])
    less = (worn_ones[:, None] < sound[None, :]).mean() + 0.5 * (worn_ones[:, None] == sound[None, :]).mean()
    return float(less)
