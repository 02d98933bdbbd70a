"""Recordings made by hand for the tests: what is heard in them is said, not heard."""

from spindle.sound.answers import ear_of
from spindle.sound.kinds import Event, Kind
from spindle.sound.listening import Heard
from spindle.sound.quality import Grade, Quality


def quality(*, grade=Grade.GOOD, snr_db=25.0, length_s=20.0, steady=True):
    """A recording that can be trusted, unless something is said of it."""
    return Quality(grade, -20.0, 0.0, snr_db, length_s, steady, () if grade is Grade.GOOD else ("Too quiet.",))


def events(text):
    """Events from words like ``spin_up 3-5 0.9, hold 5-9, ticking 9-11 rate_hz=16``; 0.95 sure if nothing is said."""
    return tuple(_event(e.split()) for e in text.split(",") if e.strip())


def _event(words):
    kind, span, *rest = words
    start, end = (float(s) for s in span.split("-"))
    p = next((float(w) for w in rest if "=" not in w), 0.95)
    return Event(Kind(kind), start, end, p, {k: float(v) for k, v in (w.split("=") for w in rest if "=" in w)})


def heard_of(text, *, knocks=0, **said):
    """What was heard in a recording with these events."""
    made = quality(**said)
    return Heard(made, events(text), knocks, 0.0, made.length_s)


def ear(text="", *, knocks=0, **said):
    """What such a recording is good for."""
    return ear_of(quality(**said), events(text), knocks)


KEPT = {
    "a": heard_of("load 2-3.5, chirp 4-4.2, spin_up 5-7, hold 7-8, spin_down 8-8.8, load 9-9.5, spin_up 10-12, hold 12-13", length_s=18.0),
    "b": heard_of("spin_up 5-7 0.7, hold 7-12 0.7", grade=Grade.POOR),
}
"""The recordings that the house has, by their hash."""
