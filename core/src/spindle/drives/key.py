"""The identification key (C21): which drive variant is this, from what the eye can see, in any order.

Naive Bayes over the variants that have a sheet, with slips of the eye allowed for: one wrong answer lowers the right variant and
never rules it out. The next question is the one with the most information for the way to it.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from math import log, prod, sqrt
from typing import Final

from spindle.drives.features import FEATURES, Feature
from spindle.errors import UnknownWordError

CANT_SEE: Final = "cant_see"
SETTLED: Final = 0.97
"""From this probability on the key says "this one": at 0.9 one slip in eleven settled on a wrong drive in our study, at 0.97 none."""
WORTH_ASKING: Final = 0.02
"""Information in nat below which a question tells nothing any more."""


@dataclass(frozen=True, slots=True)
class Variant:
    """One drive variant with its looks: feature id -> value id. A feature that is not in it is not known."""

    id: str
    looks: Mapping[str, str]
    weight: float = 1.0
    """How often this shop sees it."""


@dataclass(frozen=True, slots=True)
class Candidate:
    """A variant that it can be, with the answers that speak against it."""

    id: str
    p: float
    against: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Reading:
    """Where the key stands. ``differ`` are the features in which the first two candidates still differ."""

    candidates: tuple[Candidate, ...]
    next_feature: str
    is_settled: bool
    differ: tuple[str, ...]


def p_answer(feature: Feature, value: str, looks: Mapping[str, str]) -> float:
    """Return P(the eye says ``value`` | a variant with these looks)."""
    n = len(feature.values)
    if feature.id not in looks:
        return 1.0 / n
    return 1.0 - feature.p_slip if looks[feature.id] == value else feature.p_slip / (n - 1)


def check_answers(answers: Mapping[str, str]) -> None:
    """Refuse what no eye can see.

    Raises
    ------
    UnknownWordError
        If an answer names an unknown feature or value.
    """
    for name, value in answers.items():
        if name not in FEATURES:
            raise UnknownWordError(f"/answers/{name}", "feature", name, FEATURES)
        if value != CANT_SEE and value not in FEATURES[name].values:
            raise UnknownWordError(f"/answers/{name}", "value", value, [*FEATURES[name].values, CANT_SEE])


def read_key(variants: tuple[Variant, ...], answers: Mapping[str, str]) -> Reading:
    """Return the candidates, likeliest first, and the most telling question next.

    Parameters
    ----------
    answers : mapping of feature id to value id, or :data:`CANT_SEE`

    Raises
    ------
    UnknownWordError
        If an answer names an unknown feature or value.
    """
    check_answers(answers)
    seen = {name: value for name, value in answers.items() if value != CANT_SEE}
    weights = {v.id: v.weight * prod(p_answer(FEATURES[f], a, v.looks) for f, a in seen.items()) for v in variants}
    total = sum(weights.values()) or 1.0
    p = {name: w / total for name, w in weights.items()}
    ranked = sorted(variants, key=lambda v: (-p[v.id], v.id))
    candidates = tuple(Candidate(v.id, p[v.id], tuple(f for f, a in seen.items() if v.looks.get(f, a) != a)) for v in ranked)
    is_settled = bool(candidates) and candidates[0].p >= SETTLED
    next_feature = "" if is_settled else _most_telling(variants, p, answers)
    return Reading(candidates, next_feature, is_settled, _differ(ranked[:2]))


def _differ(pair: list[Variant]) -> tuple[str, ...]:
    if len(pair) < 2:
        return ()
    one, two = pair
    return tuple(f for f in FEATURES if f in one.looks and f in two.looks and one.looks[f] != two.looks[f])


def information(feature: Feature, variants: tuple[Variant, ...], p: Mapping[str, float]) -> float:
    """Return the expected information of a feature, in nat."""
    gain = 0.0
    for value in feature.values:
        rows = [(p[v.id], p_answer(feature, value, v.looks)) for v in variants]
        marginal = sum(w * chance for w, chance in rows)
        gain += sum(w * chance * log(chance / marginal) for w, chance in rows if w > 0.0)
    return gain


def _most_telling(variants: tuple[Variant, ...], p: Mapping[str, float], answers: Mapping[str, str]) -> str:
    """Return the open feature with the most information for the way to it; what is open already costs nothing more."""
    reached = max((FEATURES[f].reach for f in answers), default=1)
    best, found = 0.0, ""
    for feature in FEATURES.values():
        if feature.id in answers:
            continue
        gain = information(feature, variants, p)
        worth = gain / sqrt(max(feature.reach / reached, 1.0))
        if gain >= WORTH_ASKING and worth > best:
            best, found = worth, feature.id
    return found
