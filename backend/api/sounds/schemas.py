"""Recordings on the wire."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from api.common import OnceIn, View
from pydantic import Field, StringConstraints
from spindle.words.bounds import CONTENT_HASH

Hash = Annotated[str, StringConstraints(pattern=CONTENT_HASH)]


class SoundSentView(View):
    """A recording that has arrived, and whether it can be trusted: a job's tape names it by its hash."""

    hash: str
    length_s: float
    grade: str
    reasons: list[str]
    heard: str


class SoundEventView(View):
    """One sound: where it is, what it is, how sure, and what was measured on it, in words."""

    kind: str
    name: str
    lane: str
    start_s: float
    end_s: float
    sureness: str
    says: str


class OfferedMoveView(View):
    """How far an offer would move a part."""

    part: str
    name: str
    db: float


class OfferView(View):
    """What a recording says to a question of the drive."""

    question: str
    ask: str
    outcome: str
    says: str
    sureness: str
    why: str
    from_s: float | None
    """Where it rests: who doubts it listens there."""
    moves: list[OfferedMoveView]
    taken: int | None
    seen: int | None
    answers: list[SoundChoiceView]


class SoundChoiceView(View):
    """One of a few."""

    id: str
    name: str


class DifferenceView(View):
    """One difference from another recording."""

    text: str
    is_worse: bool


class ComparedView(View):
    """What a recording was laid beside, and what is different."""

    what: str
    differences: list[DifferenceView]


class LaneView(View):
    """A lane of the picture, and the kinds that stand in it."""

    id: str
    name: str
    kinds: list[SoundChoiceView]


class SoundView(View):
    """A recording of a job, with everything that its screen shows."""

    line: int
    hash: str
    did: str
    disc: str
    microphone: str
    length_s: float
    grade: str
    reasons: list[str]
    at: datetime
    by: str
    retold: int
    is_here: bool
    is_reference: bool
    is_older: bool
    picture_from_s: float
    picture_to_s: float
    says: str
    events: list[SoundEventView]
    offers: list[OfferView]
    compared: list[ComparedView]


class SoundsView(View):
    """The recordings of a job, newest first; what may be said of them, and how long they are kept."""

    sounds: list[SoundView]
    lanes: list[LaneView]
    did: list[SoundChoiceView]
    kept: str


class ReferenceIn(OnceIn):
    """A recording of a healthy unit is kept for its model, or is one no longer."""

    line: Annotated[int, Field(ge=1, le=2_000_000_000)]
    is_reference: bool


OfferView.model_rebuild()
