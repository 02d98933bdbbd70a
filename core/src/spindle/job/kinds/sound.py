"""A recording of the drive: kept elsewhere under the hash of its content, with what was heard in it. It weighs nothing by itself."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Annotated, Any, Final

from spindle.errors import NotNowError
from spindle.formats.case_file import read_changes, write_stock
from spindle.job.asking import OPEN, AskKind, Decision, LineKind, Needs, Speech, World, one
from spindle.job.line import Line
from spindle.job.recordings import Sound
from spindle.job.sounds import in_words, read_heard, written_heard
from spindle.job.value import Job
from spindle.sound.quality import Grade
from spindle.words.bounds import CONTENT_HASH, Short, TextBound


class Did(StrEnum):
    """What was done while it ran."""

    INSERT = "insert"
    EJECT = "eject"
    POWER_UP = "power_up"
    PLAY = "play"
    OTHER = "other"


DID_WORDS: Final = {
    Did.INSERT: "a disc goes in",
    Did.EJECT: "a disc comes out",
    Did.POWER_UP: "power comes on",
    Did.PLAY: "it plays",
    Did.OTHER: "something else",
}


@dataclass(frozen=True, slots=True)
class KeepSound:
    """A recording that was sent before is kept with this job."""

    hash: Annotated[str, TextBound(64, CONTENT_HASH)]
    did: Did = Did.INSERT
    disc: Short = ""
    cover: Annotated[str, TextBound(3, "^(|on|off)$")] = ""
    microphone: Short = ""
    """Where it stood: compared is what was heard from the same place."""
    knocked: bool = False
    """Somebody knocked twice on the case first: the recording shows that it hears."""


def _decide(job: Job, ask: KeepSound, world: World) -> Decision:
    """One recording is kept once: it would be counted twice."""
    again = next((s.line for s in job.sounds.values() if s.hash == ask.hash), None)
    if again is not None:
        raise NotNowError(f"This recording is with this job already, in line {again}: one recording counts once.", reason="kept_already")
    heard = world.heard(ask.hash)
    heard = heard if ask.knocked else replace(heard, knocks=0)
    told = {"did": ask.did.value, "disc": ask.disc.strip(), "cover": ask.cover, "microphone": ask.microphone.strip()}
    fitted = [write_stock(c) for c in job.on_trial]
    return one("sound", {"hash": ask.hash, **told, "heard": written_heard(heard), "fitted": fitted})


def _fold(job: Job, line: Line) -> Job:
    if line.number in job.struck:
        return job
    b = line.body
    heard, fitted = read_heard(b["heard"]), read_changes(b["fitted"], f"/tape/{line.number}/fitted")
    told = {"cover": b["cover"], "microphone": b["microphone"], "disc": b["disc"]}
    kept = Sound(line.number, b["hash"], b["did"], heard.events, heard, line.at, line.by, fitted=fitted, **told)
    return replace(job, sounds={**job.sounds, line.number: kept})


def _says(body: Mapping[str, Any], _speech: Speech) -> str:
    heard = read_heard(body["heard"])
    poor = " (a poor recording)" if heard.quality.grade is Grade.POOR else ""
    return f"Recording of {heard.quality.length_s:.0f} s, {DID_WORDS[Did(body['did'])]}{poor}: {in_words(heard.events)}"


KIND: Final = LineKind("sound", _says, _fold, (AskKind("keep_sound", KeepSound, _decide, Needs(OPEN)),))
