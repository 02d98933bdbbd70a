"""How well the ear hears: events against exact labels, answers against what follows from the labels."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field

from spindle.sound.answers import PERFECT, Sureness, answers_of
from spindle.sound.kinds import Event, Kind
from spindle.sound.library.clips import Clip
from spindle.sound.listening import Heard, listen

END_S, LONG_SHARE = 0.3, 0.25
"""Both ends of an event are right within so many seconds, or a quarter of a long one."""
SILENT = ("never", "silent", "nothing")
"""Answers that rest on what was not heard."""


def is_right(found: Event, label: Event) -> bool:
    """Whether an event is where a label of its kind is."""
    near = max(END_S, LONG_SHARE * label.length_s)
    return found.kind is label.kind and abs(found.start_s - label.start_s) <= near and abs(found.end_s - label.end_s) <= near


def matched(found: Sequence[Event], labels: Sequence[Event]) -> tuple[list[tuple[Event, Event]], list[Event], list[Event]]:
    """Return pairs of what is right, what was heard and is not there, and what was missed; each label is found once, by the nearest."""
    left, pairs, wrong = list(labels), [], []
    for event in sorted(found, key=lambda e: -e.p):
        there = [label for label in left if is_right(event, label)]
        if there:
            best = min(there, key=lambda label: abs(label.start_s - event.start_s) + abs(label.end_s - event.end_s))
            left.remove(best)
            pairs.append((event, best))
        else:
            wrong.append(event)
    return pairs, wrong, left


@dataclass(slots=True)
class Tally:
    """Counts over clips; ``confused`` is what a missed label was heard as instead."""

    right: Counter[Kind] = field(default_factory=Counter)
    wrong: Counter[Kind] = field(default_factory=Counter)
    missed: Counter[Kind] = field(default_factory=Counter)
    confused: Counter[tuple[str, str]] = field(default_factory=Counter)
    chances: list[tuple[float, bool]] = field(default_factory=list)
    tries: list[bool] = field(default_factory=list)
    rates: list[float] = field(default_factory=list)
    taus: list[float] = field(default_factory=list)
    answers: list[tuple[str, str, str, bool]] = field(default_factory=list)
    """Question, what was said, what is so, and whether it was said to be sure."""
    seconds: float = 0.0

    def take(self, clip: Clip, heard: Heard) -> None:
        """Count one clip."""
        pairs, wrong, missed = matched(heard.events, clip.events)
        self.right.update(e.kind for e, _ in pairs)
        self.wrong.update(e.kind for e in wrong)
        self.missed.update(e.kind for e in missed)
        self.chances += [(e.p, True) for e, _ in pairs] + [(e.p, False) for e in wrong]
        for label in missed:
            other = next((e.kind.value for e in wrong if min(e.end_s, label.end_s) - max(e.start_s, label.start_s) > 0.5 * label.length_s), "nothing")
            self.confused[(label.kind.value, other)] += 1
        self.tries.append(_tries(heard.events) == _tries(clip.events))
        self.rates += [abs(e.measures["rate_hz"] / label.measures["rate_hz"] - 1.0) for e, label in pairs if e.kind is Kind.TICKING]
        self.taus += [e.measures["tau_s"] / label.measures["tau_s"] for e, label in pairs if "tau_s" in e.measures and e.kind is Kind.SPIN_UP]
        self.seconds += len(clip.samples) / clip.rate
        if clip.family:
            self._answers(clip, heard)

    def _answers(self, clip: Clip, heard: Heard) -> None:
        said = {a.question: a for a in heard.answers(clip.family)}
        for so in answers_of(clip.events, clip.family, PERFECT):
            heard_so = said.get(so.question)
            self.answers.append((so.question, heard_so.outcome if heard_so else "", so.outcome, bool(heard_so and heard_so.sureness is Sureness.SURE)))
        known = {a.question for a in answers_of(clip.events, clip.family, PERFECT)}
        self.answers += [(q, a.outcome, "", a.sureness is Sureness.SURE) for q, a in said.items() if q not in known and a.outcome]

    @property
    def f1(self) -> float:
        """F1 over all kinds."""
        right, off = self.right.total(), self.wrong.total() + self.missed.total()
        return 2.0 * right / max(1, 2 * right + off)

    def f1_of(self, kind: Kind) -> float:
        """F1 of a kind."""
        return 2.0 * self.right[kind] / max(1, 2 * self.right[kind] + self.wrong[kind] + self.missed[kind])

    @property
    def calibration_error(self) -> float:
        """Mean distance between how sure and how often right, over ten bins, by count."""
        bins: list[list[tuple[float, bool]]] = [[] for _ in range(10)]
        for p, so in self.chances:
            bins[min(9, int(10 * p))].append((p, so))
        return sum(abs(sum(p for p, _ in b) - sum(so for _, so in b)) for b in bins) / max(1, len(self.chances))

    def answered(self) -> dict[str, float]:
        """Return shares: said answers that are right, of those said to be sure, of sure silence; and how often it can't tell where something is so."""
        said = [a for a in self.answers if a[1]]
        sure = [a for a in said if a[3]]
        silent = [a for a in sure if a[1] in SILENT]
        so = [a for a in self.answers if a[2]]
        return {
            "right": _share(a[1] == a[2] for a in said),
            "sure_right": _share(a[1] == a[2] for a in sure),
            "sure_silence_right": _share(a[1] == a[2] for a in silent),
            "cant_tell": _share(not a[1] for a in so),
        }


def _tries(events: Iterable[Event]) -> int:
    return sum(e.kind is Kind.SPIN_UP for e in events)


def _share(so: Iterable[bool]) -> float:
    counted = list(so)
    return sum(counted) / len(counted) if counted else 1.0


def judged(clips: Iterable[Clip]) -> Tally:
    """Return the tally over clips."""
    tally = Tally()
    for clip in clips:
        tally.take(clip, listen(clip.recording))
    return tally
