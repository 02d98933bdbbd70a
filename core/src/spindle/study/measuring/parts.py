"""Invented fuses, belts, shims and capacitor kits against what a careful hand would do by brute force."""

from __future__ import annotations

from dataclasses import replace
from itertools import permutations
from typing import Any, Final

import numpy as np

from spindle.bench.belts import opening as belts
from spindle.bench.belts.geometry import Belt, Pulleys
from spindle.bench.capacitors import Capacitor, cost, plan, why_not
from spindle.bench.fuse import CAUSES, PRIOR, SIGNS, Candidate, chance_of, judge_fuse, power_after, why_blown
from spindle.bench.fuse import Place as FusePlace
from spindle.bench.shim import TOLERANCE_DEG, best_shim, tilts
from spindle.bench.verdict import Verdict


def study_fuse(n: int, seed: int) -> dict[str, Any]:
    """Return how many candidates were let in that are unsafe, or judged without a reason; how well ohms forbid power; how often the cause comes first."""
    rng = np.random.default_rng([seed, 11])
    unsafe = unexplained = 0
    markings = ["F{a}A {v}V", "T{a}A {v}V", "{a} A fast", "{a} A slow {v} V", "wire", "", "solder bridge"]
    for _ in range(n):
        rule, volts = float(rng.choice([0.5, 1, 1.5, 2, 3])), float(rng.choice([5, 12, 24, 42]))
        amps, rated_v = float(rng.choice([0.25, 0.5, 1, 1.5, 2, 3, 5])), int(rng.choice([0, 12, 32, 63, 250]))
        marking = str(rng.choice(markings)).format(a=f"{amps:g}", v=rated_v)
        length = None if rng.random() < 0.3 else float(rng.uniform(1, 8))
        place = FusePlace(f"{rule:g} A fast", volts, 2.0, 6.0, 2.0)
        found = judge_fuse(Candidate("x", marking, length, ohm=None if rng.random() < 0.2 else float(rng.choice([0.1, 40.0]))), place)
        fuse = found.fuse
        bad = fuse is None or fuse.rated_a > rule or fuse.speed != "fast" or (0 < fuse.rated_v < volts) or found.candidate.ohm != 0.1
        bad = bad or (length is not None and not 2.5 <= length <= 7.0)
        unsafe += bool(bad and found.verdict is Verdict.ALLOWED)
        unexplained += found.verdict is not Verdict.ALLOWED and not found.reasons
    return {"candidates": n, "unsafe": unsafe, "unexplained": unexplained, **_power(n, rng), **_causes(n, rng)}


def _power(n: int, rng: np.random.Generator) -> dict[str, float]:
    """Shorts have ohms far under what blows the fuse; sound loads draw a share of the rating."""
    missed = held = 0
    for _ in range(n):
        volts, amps = float(rng.choice([5, 12])), float(rng.choice([0.5, 1, 1.5, 2]))
        short = float(rng.lognormal(np.log(0.15 * volts / (2 * amps)), 0.6))
        sound = float(rng.lognormal(np.log(6.0 * volts / amps), 0.75))
        missed += power_after(short, volts, amps).may is not False
        held += power_after(sound, volts, amps).may is False
    return {"shorts_missed_percent": round(100 * missed / n, 2), "held_back_for_nothing_percent": round(100 * held / n, 2)}


def _causes(n: int, rng: np.random.Generator) -> dict[str, float]:
    names, prior = list(CAUSES), np.array([PRIOR[c] for c in CAUSES])
    right = 0
    for cause in rng.choice(names, n, p=prior / prior.sum()):
        signs = {s: bool(rng.random() < chance_of(s, str(cause))) for s in SIGNS if s != "held_a_while" and rng.random() < 0.8}
        right += next(iter(why_blown(signs))) == cause
    return {"cause_first_percent": round(100 * right / n, 1)}


CASES: Final = {
    "clean_3": (0.03, belts.CLEAN, 0.0, 0.69, 0.07),
    "clean_5": (0.05, belts.CLEAN, 0.0, 0.98, 0.51),
    "clean_8": (0.08, belts.CLEAN, 0.0, 1.0, 0.92),
    "glazed_5": (0.05, belts.GLAZED_RUBBER, 0.0, 0.58, 0.06),
    "glazed_8": (0.08, belts.GLAZED_RUBBER, 0.0, 0.91, 0.36),
}
"""Strain, surface, spacer, and the chances loaded and empty that were measured before."""
PULLEYS: Final = Pulleys(6.0, 28.0, 46.0)


def study_belt(n: int, seed: int) -> dict[str, Any]:
    """Return the path's error against a drawn polygon, the chances of the stated belts, what stopgaps do, and what a spring balance is worth."""
    rng = np.random.default_rng([seed, 12])
    found = {}
    for name, (strain, rubber, spacer, *stated) in CASES.items():
        o = belts.opens(_stretched(strain), rubber, belts.Loader(), rng, n=n, spacer_mm=spacer)
        found[name] = {"loaded": round(o.loaded, 3), "empty": round(o.empty, 3), "stated": stated}
    five = _stretched(0.05)

    def empty(rubber: belts.Rubber, spacer: float = 0.0) -> float:
        return round(belts.opens(five, rubber, belts.Loader(), rng, n=n, spacer_mm=spacer).empty, 3)

    return {
        "path_error": max(_path_error(rng) for _ in range(50)),
        "chances": found,
        "glazed_5_empty": {
            "as_it_is": empty(belts.GLAZED_RUBBER),
            "revived": empty(belts.REVIVED),
            "after_60_days": empty(belts.REVIVED_LATER),
            "spacer_08": empty(belts.GLAZED_RUBBER, 0.8),
        },
        "slips_percent": [round(100 * belts.slips_at_speed(belts.Loader(), rng, n=n, spacer_mm=s), 2) for s in (0.0, 0.8)],
        **_balance(max(n // 10, 500), rng),
    }


def _path_error(rng: np.random.Generator) -> float:
    """The closed form against the hull of two circles drawn with very many corners."""
    from scipy.spatial import ConvexHull  # noqa: PLC0415 -- for this check alone

    small, large = sorted(rng.uniform(2, 20, 2))
    c = float(small + large + rng.uniform(1, 60))
    at = np.linspace(0, 2 * np.pi, 20_001)
    points = np.vstack([np.c_[small * np.cos(at), small * np.sin(at)], np.c_[c + large * np.cos(at), large * np.sin(at)]])
    drawn = float(ConvexHull(points).area)  # of a plane hull, "area" is its perimeter
    return abs(Pulleys(2 * small, 2 * large, c).path(0.0) - drawn) / drawn


def _stretched(strain: float) -> Belt:
    return Belt(PULLEYS.path(1.2) / (1 + strain), 1.2, PULLEYS)


def _balance(n: int, rng: np.random.Generator) -> dict[str, dict[str, float]]:
    """Belts with the pattern "opens loaded, not empty": how often it stays open what it is, and the Brier score, with a balance and without."""
    brier: dict[str, list[float]] = {"without": [], "with": [], "with_and_sheet": [], "with_sheet_and_gauge": []}
    open_: dict[str, list[bool]] = {way: [] for way in brier}
    while len(brier["with"]) < n:
        is_glazed = bool(rng.random() < belts.GLAZED_SHARE)
        belt, ratio, eta = _stretched(float(rng.uniform(0.01, 0.11))), float(rng.uniform(26, 36)), float(rng.uniform(0.45, 0.65))
        known = belts.Loader(ratio=(ratio * 0.97, ratio * 1.03), eta=(eta * 0.95, eta * 1.05))  # the sheet's tray per belt newton
        shore = float(rng.uniform(50, 68))
        rubber = replace(belts.GLAZED_RUBBER if is_glazed else belts.CLEAN, shore=(shore, shore))
        pull, loaded, empty = (float(x[0]) for x in belts.draw(rubber, known, belt, 1, rng))
        if not loaded <= pull < empty:
            continue
        read = _stretched(max(belt.strain + float(rng.normal(0, belts.STRAIN_U)), 0.002))
        shines = bool(rng.random() < belts.SHINES[True][0 if is_glazed else 1])
        hooked = (pull * float(rng.normal(1, 0.08)), empty * float(rng.normal(1, 0.08)))
        for way, loader, (pull_n, need_n), gauge in (
            ("without", belts.Loader(), (None, None), None),
            ("with", belts.Loader(), hooked, None),
            ("with_and_sheet", known, hooked, None),
            ("with_sheet_and_gauge", known, hooked, shore),
        ):
            cause = belts.slack_or_glazed(read, loader, rng, shines=shines, pull_n=pull_n, need_n=need_n, shore=gauge)
            brier[way].append((cause.glazed - is_glazed) ** 2)
            open_[way].append(cause.undecided)
    return {
        "brier": {way: round(float(np.mean(own)), 4) for way, own in brier.items()},
        "undecided_percent": {way: round(100 * float(np.mean(own)), 1) for way, own in open_.items()},
    }


def study_shim(n: int, seed: int) -> dict[str, Any]:
    """Return how often the shim named is inside tolerance where any is, and never worse than before."""
    rng = np.random.default_rng([seed, 13])
    stock = (0.05, 0.1, 0.15, 0.2, 0.3)
    good = worse = possible = 0
    for _ in range(n):
        end, base = float(rng.uniform(0.05, 0.5)), float(rng.uniform(25, 45))
        wear = [max(end * k / 2 + float(rng.normal(0, 0.015)), 0.0) for k in range(3)]
        nm = [int(x) for x in rng.choice([405, 650, 780], int(rng.integers(1, 4)), replace=False)]
        found = best_shim(wear, base, stock, nm)
        worse += found.worst_after > found.worst_before + 1e-12
        sums = {0.0, *stock, *(a + b for a in stock for b in stock)}
        reachable = min(max(abs(t) for t in tilts(wear, base, s)) for s in sums) <= min(TOLERANCE_DEG[x] for x in nm)
        possible += reachable
        good += reachable and found.enough
    return {
        "rails": n,
        "in_tolerance_of_possible_percent": round(100 * good / max(possible, 1), 2),
        "worse": worse,
        "possible_percent": round(100 * possible / n, 1),
    }


def study_capacitors(n: int, seed: int) -> dict[str, Any]:
    """Return in how many small kits the plan is worse than brute force, how many fewer volts were used, and what first come, first served loses."""
    rng = np.random.default_rng([seed, 14])
    differ = low = lost = 0
    for _ in range(n):
        places = [Capacitor(f"C{k}", float(rng.choice([47, 100, 220])), float(rng.choice([6.3, 10, 16])), bool(rng.random() < 0.8)) for k in range(4)]
        kit = [Capacitor(f"K{k}", float(rng.choice([47, 100, 150, 220])), float(rng.choice([6.3, 10, 16, 25])), bool(rng.random() < 0.8)) for k in range(5)]
        found = plan(places, kit)
        pairs = [(f.part, f.place) for f in found.fittings if f.part is not None]
        low += any(part.volt < place.volt for part, place in pairs)
        best = max(_score(places, order) for order in permutations(kit, len(places)))
        score = (len(pairs), -round(sum(cost(part, place) for part, place in pairs), 9))
        differ += score != best
        lost += _first_come(places, kit) < len(pairs)
    return {"kits": n, "worse_than_brute_force": differ, "fewer_volts": low, "first_come_loses_a_place_percent": round(100 * lost / n, 1)}


def _score(places: list[Capacitor], order: tuple[Capacitor, ...]) -> tuple[int, float]:
    fits = [(part, place) for part, place in zip(order, places, strict=True) if not why_not(part, place)]
    return len(fits), -round(sum(cost(part, place) for part, place in fits), 9)


def _first_come(places: list[Capacitor], kit: list[Capacitor]) -> int:
    left, count = list(kit), 0
    for place in places:
        part = next((p for p in left if not why_not(p, place)), None)
        if part is not None:
            left.remove(part)
            count += 1
    return count
