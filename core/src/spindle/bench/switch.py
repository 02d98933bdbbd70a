"""A switch at its pads: what its two states say, and whether it is sound, dirty, dead, late or stuck."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from scipy.special import betaln

from spindle.errors import InvalidError

CLOSED_OHM: Final = 50.0
"""Under it a contact counts as closed: a dirty one has ohms, an open one has megohms, and a board's own parts across the pads have kilohms."""
SOUND_OHM: Final = (math.log(0.15), 0.6)
"""Log-mean and spread of a sound contact's resistance, leads subtracted: a new one has 0.1, an old clean one 0.3."""
DIRTY_OHM: Final = (math.log(3.0), 1.0)
WIPED: Final = 0.2
"""Share of dirty contacts that have worn a clean spot: they read like sound ones whenever they meet, and still miss."""
SOUND_MISS: Final = 0.01
DIRTY_MISS: Final = (1.2, 3.0)
"""Beta of the share of presses that a dirty contact misses: most make more often than not, which is what makes it hard to catch."""
TRAVEL: Final = (0.55, 0.12)
"""Share of its travel at which a sound switch closes, and the spread."""
LATE_TRAVEL: Final = (0.6, 1.0)
"""A late one closes evenly anywhere in the rest of it: some are only just late, and those are not told from sound ones."""


@dataclass(frozen=True, slots=True)
class Press:
    """One press: whether it closed as it should, its ohms closed, and at which share of its travel; None where not read."""

    closes: bool
    ohm: float | None = None
    travel: float | None = None


@dataclass(frozen=True, slots=True)
class Table:
    """What two states say together."""

    kind: str
    """no, nc, never or always."""
    agrees: bool | None
    """With the sheet; None where the sheet does not know."""
    text: str


def is_closed(ohm: float) -> bool:
    """Tell whether so many ohms are a closed contact."""
    return ohm < CLOSED_OHM


def expected_table(rest_ohm: float, pressed_ohm: float, *, at_rest: str = "not known") -> Table:
    """Return what the readings at rest and pressed say of the switch, against the sheet's "open", "closed" or "not known"."""
    rest, pressed = is_closed(rest_ohm), is_closed(pressed_ohm)
    if rest and pressed:
        return Table("always", None, "Closed in both: stuck, or closed elsewhere on the board. Free one leg or pull its plug, and read again.")
    if not rest and not pressed:
        return Table(
            "never", None, "Open in both: the actuator does not reach it, it is dead, or these are the wrong pads. Press the plunger itself and read again."
        )
    kind = "nc" if rest else "no"
    if at_rest == "not known":
        return Table(kind, None, f"{'Closed' if rest else 'Open'} at rest, {'open' if rest else 'closed'} pressed. The sheet does not say which it should be.")
    agrees = (at_rest == "closed") == rest
    if agrees:
        return Table(kind, True, f"{'Closed' if rest else 'Open'} at rest and {'open' if rest else 'closed'} pressed, as the sheet says.")
    return Table(kind, False, "The opposite of the sheet: doubt the sheet or the pads before the switch.")


STATES: Final = ("sound", "dirty", "dead", "late", "stuck")


def log_likelihoods(presses: Sequence[Press], *, releases: Sequence[bool] = ()) -> dict[str, float]:
    """Return ``log P(what was read | state)`` of each state of the switch.

    A share that is not known is summed out: Beta-binomial (J. M. Bernardo, A. F. M. Smith, *Bayesian Theory*, 1994, 3.2).

    Parameters
    ----------
    releases : sequence of bool
        Whether it opened again after each press, where that was read.
    """
    n, missed = len(presses), sum(not p.closes for p in presses)
    a, b = DIRTY_MISS
    found = {
        "sound": missed * math.log(SOUND_MISS) + (n - missed) * math.log1p(-SOUND_MISS),
        "dirty": float(betaln(a + missed, b + n - missed) - betaln(a, b)),
        "dead": missed * math.log(0.995) + (n - missed) * math.log(0.005),
        "late": missed * math.log(0.08) + (n - missed) * math.log1p(-0.08),
        "stuck": missed * math.log(0.005) + (n - missed) * math.log(0.995),
    }
    kept = sum(not r for r in releases)
    for state in STATES:
        holds = 0.97 if state == "stuck" else 0.01
        found[state] += kept * math.log(holds) + (len(releases) - kept) * math.log1p(-holds)
    ohms = [math.log(max(p.ohm, 0.03)) for p in presses if p.closes and p.ohm is not None]  # what is under its leads' doubt says no more than that
    sound = sum(_log_normal(x, *SOUND_OHM) for x in ohms)
    dirty = sum(_log_normal(x, *DIRTY_OHM) for x in ohms)
    for state in STATES:
        found[state] += sound if state != "dirty" else float(np.logaddexp(math.log(WIPED) + sound, math.log1p(-WIPED) + dirty))
        found[state] += sum(_travel(press, state) for press in presses)
    return found


def _travel(press: Press, state: str) -> float:
    if press.travel is None or not press.closes:
        return 0.0
    if state == "late":
        low, high = LATE_TRAVEL
        return math.log(1.0 / (high - low)) if low <= press.travel <= high else math.log(0.02)
    return _log_normal(press.travel, *TRAVEL)


def _log_normal(x: float, mean: float, sd: float) -> float:
    return -0.5 * ((x - mean) / sd) ** 2 - math.log(sd) - 0.9189385332046727  # ln sqrt(2 pi)


WEIGHTS: Final = {"dirty": 0.45, "dead": 0.25, "late": 0.2, "stuck": 0.1}
"""How the ways of failing share: old contacts oxidise before they break (the shop's own counts replace this)."""
FAILS: Final = 1.0
"""Prior odds of failing while it is on the bench with a complaint that points at it; the fault model has its own."""


@dataclass(frozen=True, slots=True)
class SwitchFound:
    """What the presses say.

    Attributes
    ----------
    likeliest : a state of :data:`STATES`
    chances : by state, at even odds of sound and failing
    fails_factor : Bayes factor of failing against sound: what goes to the suspects, as ``w_fails : w_works``
    """

    likeliest: str
    chances: dict[str, float]
    fails_factor: float


def judge_switch(presses: Sequence[Press], *, releases: Sequence[bool] = ()) -> SwitchFound:
    """Return what presses say of a switch: five of them with travel are enough to miss one in twenty-five.

    Raises
    ------
    InvalidError
        If nothing was pressed, or a travel is no share from 0 to 1.
    """
    if not presses:
        raise InvalidError("/presses", "Press it at least once; five times is a test.")
    for n, press in enumerate(presses):
        if press.travel is not None and not 0.0 <= press.travel <= 1.0:
            raise InvalidError(f"/presses/{n}/travel", f"Travel is a share of the whole way from 0 to 100 %, got {100 * press.travel:g} %.")
    logs = log_likelihoods(presses, releases=releases)
    failing = float(np.logaddexp.reduce([math.log(w) + logs[s] for s, w in WEIGHTS.items()]))
    factor = math.exp(min(failing - logs["sound"], 700.0))
    odds = {"sound": logs["sound"], **{s: math.log(FAILS * w) + logs[s] for s, w in WEIGHTS.items()}}
    top = max(odds.values())
    shares = {s: math.exp(v - top) for s, v in odds.items()}
    total = sum(shares.values())
    chances = {s: v / total for s, v in shares.items()}
    return SwitchFound(max(chances, key=lambda s: chances[s]), chances, factor)


def answer_weights(found: SwitchFound) -> dict[str, float]:
    """Return the soft weights of the answers of a switch's question: works, misses, stays as pressed, never switches."""
    works = 1.0 / (1.0 + found.fails_factor)
    how = {"fails": found.chances["dirty"] + found.chances["late"], "stuck": found.chances["stuck"], "dead": found.chances["dead"]}
    failing = max(sum(how.values()), 1e-300)
    return {"works": works, **{answer: (1.0 - works) * chance / failing for answer, chance in how.items()}}
