"""What a practice unit sounds like: a scene of the library's sounds made from what this unit shows."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Final

import numpy as np

from spindle.errors import NotNowError
from spindle.practice.state import Session
from spindle.sound.library.clips import Clip, clip_of
from spindle.sound.library.scenes import Scene, read_steps
from spindle.sound.library.voices import draw_voice

SNR_DB: Final = 22.0
RATE: Final = 22_050
HEARD: Final = ("spins", "sled_sound", "tray_sound", "load_sound", "nudges_out", "spin_sound")
"""Questions whose answers can be heard in a recording of a practice unit."""
_LOADS: Final = {
    "smooth": "load:1-2 clunk rest:0.4-0.8",
    "whirrs": "(slip:1.2-2.4 rest:0.8-1.4)x2-3",
    "grinds": "load:1.6-2.4/grinds clunk rest:0.4-0.8",
    "hums": "(hum:1-2.2 rest:0.8-1.4)x2-3",
    "strains": "(hum:1-2.2 rest:0.8-1.4)x2-3",
    "nothing": "rest:2-3",
}
_HOW: Final = {"rough": "/rough", "wobbles": "/wobbles", "scrapes": "/scrapes"}


def scene_of(told: Mapping[str, str], family: str) -> Scene:
    """Return a scene in which these answers are heard; what is not told is as on a healthy unit."""
    load = _LOADS[told.get("tray_sound", told.get("load_sound", "smooth"))] if family != "lid" else "clunk rest:0.4-0.8"
    sled, how = told.get("sled_sound", "seeks"), _HOW.get(told.get("spin_sound", ""), "")
    first = {"seeks": "home", "hammers": "tick:0.9-2 rest:0.4-0.8", "silent": ""}[sled]
    seeks = "/seeks" if sled == "seeks" else ""
    again = "load:0.5-0.9 rest:0.2-0.3 load:0.5-0.9 rest:0.4-0.8" if told.get("nudges_out") == "yes" else ""
    spin = {
        "holds": f"focus:0.6-1.4 up{how} hold:6-9{how}{seeks} down",
        "cycles": f"focus:0.6-1.4 (up{how} hold:1.2-2.2{how}{seeks} down rest:0.5-1 {again})x2-2 up{how} hold:1.2-2{how} down",
        "twitches": "(jerk rest:0.6-1.4)x3-5",
        "never": "rest:4-6",
    }[told.get("spins", "holds")]
    return Scene("unit", "This unit", (family,), read_steps(f"{load} {first} {spin} rest:1.5-2.5"))


def recorded(s: Session) -> Clip:
    """Return a recording of an insert on this unit as it is now: always the same one until something in it changes.

    Raises
    ------
    NotNowError
        If nobody has listened to it as it is now.
    """
    if not s.may_play:
        raise NotNowError("Listen first: a disc goes in, and it takes two minutes.", reason="not_listened")
    rng, voice = np.random.default_rng([s.seed, 74, len(s.hidden.units)]), draw_voice(np.random.default_rng([s.seed, 75]))
    return clip_of(scene_of(shown(s), s.lesson.family), s.lesson.family, voice, SNR_DB, rng, rate=RATE)


def shown(s: Session) -> dict[str, str]:
    """Return what this unit shows now to the questions that can be heard."""
    told = {}
    for n, asked in enumerate(s.ready.plan.asks):
        if asked.id in HEARD and asked.question is not None:
            bad = np.array([float(o.id in asked.question.bad) for o in asked.question.outcomes])
            told[asked.id] = asked.question.outcomes[s.hidden.shows(n, 0, bad)].id
    return told
