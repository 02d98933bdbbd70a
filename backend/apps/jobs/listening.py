"""The recordings of a job: what each offers, what its offers would move, and what it is laid beside."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from apps.jobs.selectors import OpenJob
from apps.sounds.models import Reference
from apps.sounds.selectors import is_here, pictured, references
from spindle.diagnosis.belief.posterior import believe, log_odds_db
from spindle.diagnosis.explaining.diagnose import SHOWN_FROM_DB, PartWeight
from spindle.diagnosis.given.case import Answer, Finding
from spindle.job.recordings import Sound
from spindle.job.sounds import is_older, offers, read_heard, seen_itself, softly
from spindle.sound.answers import HeardAnswer
from spindle.sound.reference import CROWD, Difference, beside, beside_crowd, hiss


@dataclass(frozen=True)
class Offered:
    """An offer, what it would move (decibans, by part, the most first), the line by which it was taken already, and that by which
    the bench has seen it itself."""

    offer: HeardAnswer
    moves: tuple[PartWeight, ...]
    taken: int | None
    seen: int | None


@dataclass(frozen=True)
class Compared:
    """A recording beside others: which, in words, and what is different."""

    what: str
    differences: tuple[Difference, ...]


@dataclass(frozen=True)
class ShownSound:
    """A recording with everything that its screen shows; ``is_here`` is False if its file is gone."""

    sound: Sound
    is_here: bool
    offered: tuple[Offered, ...]
    compared: tuple[Compared, ...]
    is_reference: bool
    is_older: bool
    """Something has been tried since: nothing can be taken from it any more."""


def shown_sounds(shown: OpenJob) -> list[ShownSound]:
    """Return the recordings of a job, newest first."""
    known = list(references(shown.unit.drive.variant))
    return [_shown(sound, shown, known) for sound in reversed(list(shown.job.sounds.values()))]


def _shown(sound: Sound, shown: OpenJob, known: list[Reference]) -> ShownSound:
    offered = tuple(_offered(o, sound, shown) for o in offers(shown.job, sound))
    return ShownSound(
        sound, is_here(sound.hash), offered, tuple(_compared(sound, shown, known)), any(r.sound.hash == sound.hash for r in known), is_older(shown.job, sound)
    )


def _offered(offer: HeardAnswer, sound: Sound, shown: OpenJob) -> Offered:
    taken, answer = sound.taken.get(offer.question), softly(offer, shown.job, sound)
    seen = seen_itself(shown.job, answer) if taken is None else None
    is_open = offer.says_something and taken is None and seen is None and not is_older(shown.job, sound)
    return Offered(offer, _moves(answer, shown) if is_open else (), taken, None if seen is None else int(seen))


def _moves(answer: Answer, shown: OpenJob) -> tuple[PartWeight, ...]:
    """Return what an answer would move if it were taken now."""
    model, case, before = shown.job.model, shown.state.case, shown.state.belief
    after = believe((*case.findings, Finding("offer", answer)), model)
    moved = log_odds_db(after.p_part) - log_odds_db(before.p_part)
    order = np.argsort(-np.abs(moved))[:4]
    return tuple(PartWeight(model.parts[i].id, float(moved[i])) for i in order if abs(moved[i]) >= SHOWN_FROM_DB)


def _compared(sound: Sound, shown: OpenJob, known: list[Reference]) -> list[Compared]:
    """Lay it beside the first recording of this unit, and among the healthy ones of other units of its model."""
    found = []
    first = next(iter(shown.job.sounds.values()))
    if first.line != sound.line:
        is_unmoved = first.cover == sound.cover and first.microphone != "" and first.microphone == sound.microphone
        shape = hiss(pictured(sound.hash), pictured(first.hash)) if is_unmoved and is_here(sound.hash) and is_here(first.hash) else []
        found.append(Compared(f"beside the first recording, line {first.line}", (*beside(sound.events, first.events), *shape)))
    others = [read_heard(r.sound.heard).events for r in known if r.tag != shown.row.tag]
    if others:
        few = f": fewer than {CROWD} say nothing" if len(others) < CROWD else ""
        found.append(Compared(f"among healthy recordings of this model, {len(others)} of them{few}", tuple(beside_crowd(sound.events, others))))
    return found
