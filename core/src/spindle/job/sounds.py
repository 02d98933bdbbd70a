"""What the lines about recordings share: an event as it stands on the tape, what a recording offers, and how an offer speaks."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict
from typing import Any

from spindle.diagnosis.given.case import Answer, Setting, Trial, Weight
from spindle.job.recordings import Sound
from spindle.job.value import Job
from spindle.sound.answers import UNRELIABLE, HeardAnswer, answers_of
from spindle.sound.kinds import KIND_WORDS, Event, Kind
from spindle.sound.listening import Heard
from spindle.sound.quality import Grade, Quality
from spindle.words.witness import Witness


def written(event: Event) -> dict[str, Any]:
    """Return an event as it stands on the tape."""
    return {
        "kind": event.kind.value,
        "start_s": event.start_s,
        "end_s": event.end_s,
        "p": round(event.p, 3),
        "measures": {k: round(float(v), 3) for k, v in event.measures.items()},
    }


def read_event(body: Mapping[str, Any]) -> Event:
    """Return an event of the tape."""
    return Event(Kind(body["kind"]), body["start_s"], body["end_s"], body["p"], dict(body["measures"]))


def written_heard(heard: Heard) -> dict[str, Any]:
    """Return what was heard as it stands on the tape, and beside the recording."""
    quality = {**asdict(heard.quality), "grade": heard.quality.grade.value, "reasons": list(heard.quality.reasons)}
    return {"quality": quality, "events": [written(e) for e in heard.events], "knocks": heard.knocks, "from_s": heard.from_s, "to_s": heard.to_s}


def read_heard(body: Mapping[str, Any]) -> Heard:
    """Return what was heard, as it was written."""
    told = body["quality"]
    quality = Quality(**{**told, "grade": Grade(told["grade"]), "reasons": tuple(told["reasons"])})
    return Heard(quality, tuple(read_event(e) for e in body["events"]), body["knocks"], body["from_s"], body["to_s"])


def in_words(events: tuple[Event, ...]) -> str:
    """Return how often each kind was heard, in words."""
    counted = {kind: sum(e.kind is kind for e in events) for kind in Kind}
    return ", ".join(f"{n} × {KIND_WORDS[kind]}" if n > 1 else KIND_WORDS[kind] for kind, n in counted.items() if n) or "nothing that can be told"


def offers(job: Job, sound: Sound) -> list[HeardAnswer]:
    """Return what a recording offers to the questions that this drive's family has."""
    asked = job.model.questions
    return [a for a in answers_of(sound.events, job.model.sheet.family, sound.ear) if a.question in asked]


def softly(offer: HeardAnswer, job: Job, sound: Sound) -> Answer:
    """Return an offer as an answer with its weights: right but for so often, else a draw of the hat (unreliable sources, as ``diagnosis.md`` has them)."""
    outcomes = [o.id for o in job.model.family_questions[offer.question].outcomes]
    unreliable = UNRELIABLE[offer.sureness]
    shares = {o: unreliable / len(outcomes) + (1.0 - unreliable) * (o == offer.outcome) for o in outcomes}
    return Answer(offer.question, offer.outcome, weights=tuple(Weight(o, round(s, 9)) for o, s in shares.items()), setting=setting_of(sound))


def setting_of(sound: Sound) -> Setting:
    """Return the state in which it was recorded, as far as it was said."""
    return Setting(cover=sound.cover, fitted=sound.fitted)


def is_older(job: Job, sound: Sound) -> bool:
    """Tell whether something has been tried since it was recorded: it speaks of the unit as it was then."""
    return any(isinstance(f.what, Trial) and not f.is_struck and int(f.id) > sound.line for f in job.findings)


def seen_itself(job: Job, answer: Answer) -> str | None:
    """Return the finding by which the bench answered this question itself since the last trial, with the same things in it."""
    found = None
    for finding in job.findings:
        what = finding.what
        if finding.is_struck:
            continue
        if isinstance(what, Trial):
            found = None
        elif (
            isinstance(what, Answer)
            and what.question == answer.question
            and what.source is Witness.BENCH
            and not what.weights
            and what.setting.fitted == answer.setting.fitted
        ):
            found = finding.id
    return found
