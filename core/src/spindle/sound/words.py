"""What was measured on a sound, in words."""

from __future__ import annotations

from spindle.sound.kinds import Event, Kind
from spindle.sound.measures import WOBBLES


def measured_words(event: Event) -> str:
    """Return what was measured on an event, as it is read aloud; empty if nothing was.

    Examples
    --------
    >>> measured_words(Event(Kind.TICKING, 1.0, 3.0, measures={"rate_hz": 16.0}))
    '16 clicks a second'
    """
    m = event.measures
    match event.kind:
        case Kind.TICKING if m.get("rate_hz"):
            return f"{m['rate_hz']:.0f} clicks a second"
        case Kind.SPIN_UP if "tau_s" in m:
            return f"time constant {m['tau_s']:.1f} s"
        case Kind.HOLD if m.get("wobble", 0.0) > WOBBLES:
            return f"beats {m['turns_hz']:.0f} times a second"
        case Kind.LOAD if m.get("dips"):
            return f"gives way {m['dips']:.0f} times" if m["dips"] > 1 else "gives way once"
        case Kind.LOAD if m.get("falls_oct", 0.0) >= 0.25:
            return f"pitch falls by {m['falls_oct']:.1f} octaves"
        case _:
            return ""
