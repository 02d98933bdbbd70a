"""From events to answers of the drive's own questions. A part is never named from a sound, and what was not heard is seldom an answer."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from enum import StrEnum
from itertools import pairwise
from types import MappingProxyType
from typing import Final

import numpy as np

from spindle.sound.hearing.decoding import overlap_s
from spindle.sound.hearing.onsets import STEP_S, levels
from spindle.sound.hearing.pictures import Pictures
from spindle.sound.kinds import Event, Kind, Lane
from spindle.sound.measures import WOBBLES
from spindle.sound.quality import Grade, Quality
from spindle.sound.words import measured_words

SURE_P, RATHER_P = 0.85, 0.55
"""What an answer rests on has at least this chance."""
HOLD_S: Final = 4.0
TICKING_S: Final = 0.45
GRINDS_SHARE, FALLS_OCT, REOPENS_S = 0.4, 0.25, 1.0
HEARS_S, HEARS_DB, HEARS_SURE_DB = 15.0, 12.0, 20.0
"""What a recording needs before its silence says something."""
KNOCK_DB, KNOCKS, KNOCK_APART_S = 15.0, 2, 0.12
"""Two blows of so much, so far apart: one that rings is one."""


class Sureness(StrEnum):
    """How sure an answer is."""

    SURE = "sure"
    RATHER = "rather"


def sure_words(p: float) -> str:
    """Return how sure a chance is, in words."""
    return Sureness.SURE.value if p >= SURE_P else Sureness.RATHER.value if p >= RATHER_P else "a guess"


UNRELIABLE: Final = MappingProxyType({Sureness.SURE: 0.1, Sureness.RATHER: 0.4})
"""How often such an answer is a draw of the hat. The library says 0.05 for a sure one; no real drive has been heard yet, so it starts at twice that."""


@dataclass(frozen=True, slots=True)
class HeardAnswer:
    """An offer: somebody listens, and takes it, changes it or drops it.

    Attributes
    ----------
    outcome : id of the question's answer; empty for "can't tell"
    why : in words, what it rests on or what is missing
    rests_on : the events; somebody who doubts it listens there
    """

    question: str
    outcome: str
    sureness: Sureness
    why: str
    rests_on: tuple[Event, ...] = ()

    @property
    def says_something(self) -> bool:
        """Whether it is an answer at all."""
        return self.outcome != ""


@dataclass(frozen=True, slots=True)
class Ear:
    """What the recording is good for: the grade, whether the lead-in was steady, and the chance that silence is silence (0: can't tell)."""

    is_poor: bool
    is_steady: bool
    silence_p: float
    why_deaf: str = ""


PERFECT: Final = Ear(is_poor=False, is_steady=True, silence_p=1.0)
_Said = tuple[str, float, str, Sequence[Event]]
"""Outcome, chance, why, and the events."""


def ear_of(quality: Quality, events: Iterable[Event], knocks_heard: int) -> Ear:
    """Return what silence may say: the recording is not poor, long enough, stands out of the room, and proves that it hears."""
    is_poor = quality.grade is Grade.POOR
    proves = knocks_heard >= KNOCKS or any(e.p >= SURE_P for e in events)
    checks = (
        (is_poor, "The recording is poor."),
        (quality.length_s < HEARS_S, f"{quality.length_s:.0f} s are too short to call it silent: record {HEARS_S:.0f} s."),
        (not proves, "Nothing shows that the microphone hears the drive: knock twice on the case first, and say so."),
        (quality.snr_db < HEARS_DB and knocks_heard < KNOCKS, "The room is too loud to call it silent."),
    )
    why = next((text for so, text in checks if so), "")
    p = 0.0 if why else SURE_P + 0.05 if quality.snr_db >= HEARS_SURE_DB else RATHER_P + 0.1
    return Ear(is_poor, quality.lead_in_steady, p, why)


def answers_of(events: Sequence[Event], family: str, ear: Ear) -> list[HeardAnswer]:
    """Return what the events say to each question that a sound can speak to, in a fixed order; "can't tell" with its reason included."""
    found = []
    for question, (families, rule) in _RULES.items():
        if family in families and (said := rule(events, ear, family)) is not None:
            outcome, p, why, rests_on = said
            if outcome and p < RATHER_P:
                outcome, why = "", f"{why} But that is not sure enough: listen yourself."
            sure = Sureness.SURE if p >= SURE_P and not ear.is_poor else Sureness.RATHER
            found.append(HeardAnswer(question, outcome, sure, why, tuple(rests_on)))
    return found


def knocks_of(of: Pictures, until_s: float) -> int:
    """Return how many blows of 15 dB over the room's first second were heard before ``until_s``."""
    level = levels(of.x).mean(axis=1)
    over = level - np.median(level[: round(1.0 / STEP_S)])
    starts = np.flatnonzero(np.diff((over[: int(until_s / STEP_S)] > KNOCK_DB).astype(int), prepend=0) == 1)
    return len([s for n, s in enumerate(starts) if n == 0 or (s - starts[n - 1]) * STEP_S > KNOCK_APART_S])


def _of(events: Iterable[Event], *kinds: Kind) -> list[Event]:
    return [e for e in events if e.kind in kinds]


def _silence(ear: Ear, outcome: str, why: str) -> _Said:
    return (outcome, ear.silence_p, why, ()) if ear.silence_p else ("", 0.0, ear.why_deaf, ())


def _spins(events: Sequence[Event], ear: Ear, _family: str) -> _Said | None:
    ups, holds, jerks = _of(events, Kind.SPIN_UP), _of(events, Kind.HOLD), _of(events, Kind.JERK)
    if len(ups) >= 2:
        return "cycles", sorted(e.p for e in ups)[-2], f"{len(ups)} spin-ups.", ups
    if ups:
        held = next((h for h in holds if h.start_s >= ups[0].end_s - 0.2 and h.length_s >= HOLD_S), None)
        if held is not None:
            return "holds", min(ups[0].p, held.p), f"One spin-up, and a hold of {held.length_s:.0f} s.", (ups[0], held)
        return "", 0.0, "One spin-up and no hold of four seconds: record longer.", ups
    if holds:
        return "", 0.0, "The disc turned before the recording began: begin it before the disc goes in.", holds
    if jerks and ear.is_steady:
        return "twitches", max(e.p for e in jerks), f"{len(jerks)} {'start' if len(jerks) == 1 else 'starts'} given up at once.", jerks
    if jerks:
        return "", 0.0, "A start that is given up, perhaps; but the room was not quiet.", jerks
    return _silence(ear, "never", "No spin-up was heard.")


def _sled(events: Sequence[Event], ear: Ear, _family: str) -> _Said | None:
    ticking = [e for e in _of(events, Kind.TICKING) if e.length_s >= TICKING_S]
    if ticking:
        best = max(ticking, key=lambda e: e.p)
        return "hammers", best.p, f"{best.length_s:.1f} s of ticking{', ' if measured_words(best) else ''}{measured_words(best)}.", ticking
    chirps = _of(events, Kind.CHIRP)
    if chirps:
        return "seeks", max(e.p for e in chirps), f"{len(chirps)} {'chirp' if len(chirps) == 1 else 'chirps'}.", chirps
    return _silence(ear, "silent", "No chirp and no ticking was heard.")


def _load(events: Sequence[Event], ear: Ear, family: str) -> _Said | None:
    is_tray = family == "tray"
    for kind, outcome in ((Kind.SLIP, "whirrs" if is_tray else ""), (Kind.HUM, "hums" if is_tray else "strains")):
        found = _of(events, kind)
        if found and kind is Kind.HUM and not ear.is_steady:
            return "", 0.0, "Something like a hum, but the room was not quiet.", found
        if found:
            return (
                outcome,
                max(e.p for e in found),
                "The pitch of the motor rises, and no end stop." if kind is Kind.SLIP else "A hum at one pitch, and no run.",
                found,
            )
    runs = _of(events, Kind.LOAD)
    if not runs:
        return _silence(ear, "nothing", "No load run was heard.")
    for run in runs:
        ground = [g for g in _of(events, Kind.GRIND) if overlap_s(g, run) > GRINDS_SHARE * run.length_s]
        if ground:
            return "grinds", min(run.p, max(g.p for g in ground)), "Grinding through the load run.", (run, *ground)
    fallen = [r for r in runs if r.measures.get("falls_oct", 0.0) >= FALLS_OCT]
    if fallen and not is_tray and ear.is_steady:
        return "strains", fallen[0].p, f"The pitch of the load run falls by {fallen[0].measures['falls_oct']:.1f} octaves.", fallen
    if fallen:
        return "", 0.0, "The pitch of the load run falls: listen yourself.", fallen
    return "smooth", max(r.p for r in runs), f"{len(runs)} even {'run' if len(runs) == 1 else 'runs'} of the load motor.", runs


def _takes(events: Sequence[Event], _ear: Ear, _family: str) -> _Said | None:
    dips = [r for r in _of(events, Kind.LOAD) if r.measures.get("dips", 0.0) >= 1]
    return ("hesitates", dips[0].p, f"The load run gives way {dips[0].measures['dips']:.0f} times.", dips) if dips else None


def _nudges(events: Sequence[Event], _ear: Ear, _family: str) -> _Said | None:
    ups = _of(events, Kind.SPIN_UP)
    if len(ups) < 2:
        return None
    between = [r for r in _of(events, Kind.LOAD) if ups[0].end_s < r.start_s < ups[-1].start_s]
    if between:
        return "yes", min(max(r.p for r in between), sorted(u.p for u in ups)[-2]), "The load motor runs between two tries.", (*ups, *between)
    return "no", sorted(u.p for u in ups)[-2], f"{len(ups)} tries, and the load motor does not run between them.", ups


def _lens(events: Sequence[Event], ear: Ear, _family: str) -> _Said | None:
    found = [e for e in _of(events, Kind.FOCUS) if e.p >= SURE_P]
    return ("searches", max(e.p for e in found), "Faint buzzes of the lens.", found) if found and ear.is_steady else None


def _shuts(events: Sequence[Event], _ear: Ear, _family: str) -> _Said | None:
    runs = _of(events, Kind.LOAD)
    pairs = [(a, b) for a, b in pairwise(runs) if b.start_s - a.end_s < REOPENS_S]
    return ("reopens", min(pairs[0][0].p, pairs[0][1].p), "Two runs of the tray, one straight after the other.", pairs[0]) if pairs else None


def _lid(events: Sequence[Event], _ear: Ear, _family: str) -> _Said | None:
    found = [e for e in events if e.lane in (Lane.SPINDLE, Lane.SLED) or e.kind is Kind.FOCUS]
    return ("starts", max(e.p for e in found), "Something of the drive moves once the lid is shut.", found) if found else None


def _home(events: Sequence[Event], _ear: Ear, _family: str) -> _Said | None:
    ticking = [e for e in _of(events, Kind.TICKING) if e.length_s >= TICKING_S]
    return ("hammers", max(e.p for e in ticking), "Rapid ticking at the end stop.", ticking) if ticking else None


def _rough(events: Sequence[Event], _ear: Ear, _family: str) -> _Said | None:
    holds = [e for e in _of(events, Kind.HOLD) if e.length_s >= 1.0]
    if not holds:
        return None
    for kind, outcome, words in (
        (Kind.GRIND, "rough", "Grinding in time with the turns."),
        (Kind.SCRAPE, "scrapes", "Something bright that touches, without a beat."),
    ):
        found = [e for e in _of(events, kind) if any(overlap_s(e, h) > 0.5 for h in holds)]
        if found:
            return outcome, max(e.p for e in found), words, found
    beat = max(holds, key=lambda e: e.measures.get("wobble", 0.0))
    if beat.measures.get("wobble", 0.0) > WOBBLES:
        return "wobbles", beat.p, f"The rush beats once a turn, {beat.measures['turns_hz']:.0f} times a second.", (beat,)
    longest = max(holds, key=lambda e: e.length_s)
    return ("even", longest.p, "A level rush without a beat.", (longest,)) if longest.length_s >= HOLD_S else None


_ALL: Final = ("tray", "slot", "lid")
_RULES: Final[MappingProxyType[str, tuple[tuple[str, ...], Callable[[Sequence[Event], Ear, str], _Said | None]]]] = MappingProxyType(
    {
        "spins": (_ALL, _spins),
        "sled_sound": (_ALL, _sled),
        "load_sound": (("slot",), _load),
        "tray_sound": (("tray",), _load),
        "takes_disc": (("slot",), _takes),
        "nudges_out": (("slot",), _nudges),
        "lens_seek": (_ALL, _lens),
        "tray_shuts": (("tray",), _shuts),
        "lid_starts": (("lid",), _lid),
        "sled_home_look": (("lid",), _home),
        "spin_sound": (_ALL, _rough),
    }
)
QUESTIONS: Final = tuple(_RULES)
"""Ids of the questions that a sound can speak to."""
