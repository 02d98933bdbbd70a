"""Every error that the core raises.

::

    SpindleError
    ├── ModelError            a fault model's declarations contradict themselves
    ├── CaseError             a case (or case file) is wrong at a place
    │   └── UnknownWordError  an id that the vocabulary does not have
    ├── SheetError            a drive sheet is wrong at a place
    ├── RefusedError          somebody would get hurt or a unit lost: not done, whoever asks
    └── AskError              something asked for cannot be done as things stand
        ├── NotFoundError     there is no such thing
        ├── NotNowError       the state does not allow it (mains, stage, rattle)
        ├── InvalidError      a value is wrong, with its place
        ├── InputsError       several values are wrong, each with its place
        ├── GoneError         somebody else took the last one; says who has it and what else fits
        └── SoundError        a recording cannot be read; a code for each reason

Each has a stable snake_case ``code``, says what was wrong, where, what was expected and what came, and
carries the same as ``params`` for a screen that wants to say it in its own words.
"""

from __future__ import annotations

from collections.abc import Iterable
from difflib import get_close_matches


class SpindleError(Exception):
    """Base of all errors of the core."""

    code: str = "spindle_error"

    def __init__(self, message: str, **params: object) -> None:
        super().__init__(message)
        self.message = message
        self.params = params


class ModelError(SpindleError):
    """A fault model's declarations contradict themselves (a row that does not sum to 100, an unknown fault)."""

    code = "model_error"


class _PlacedError(SpindleError):
    def __init__(self, place: str, message: str, **params: object) -> None:
        super().__init__(f"{place}: {message}", place=place, **params)
        self.place = place


class CaseError(_PlacedError):
    """A case is wrong at ``place`` (a JSON pointer into the case file)."""

    code = "case_invalid"


class UnknownWordError(CaseError):
    """``place`` names something that the vocabulary of this drive does not have."""

    code = "unknown_word"

    def __init__(self, place: str, kind: str, word: str, known: Iterable[str]) -> None:
        near = get_close_matches(word, list(known), n=1)
        hint = f"; did you mean {near[0]!r}?" if near else "; `./spindle vocabulary` lists them"
        super().__init__(place, f"no {kind} is called {word!r}{hint}", kind=kind, word=word, near=near)


class SheetError(_PlacedError):
    """A drive sheet is wrong at ``place``."""

    code = "sheet_invalid"


class RefusedError(SpindleError):
    """The step would hurt somebody or lose the unit. There is no flag that allows it."""

    code = "refused"


class AskError(SpindleError):
    """Something asked for cannot be done as things stand. Nothing has changed."""

    code = "ask_error"

    def __init__(self, message: str, *, reason: str = "", **params: object) -> None:
        super().__init__(message, **params, **({"reason": reason} if reason else {}))


class NotFoundError(AskError):
    """There is no such thing."""

    code = "not_found"


class NotNowError(AskError):
    """The state of the job, or of what it asks for, does not allow it; ``reason`` says which."""

    code = "not_now"


class InvalidError(AskError):
    """A value is wrong; ``place`` says which."""

    code = "invalid"

    def __init__(self, place: str, message: str) -> None:
        super().__init__(message, place=place)


class InputsError(AskError):
    """Values are wrong: ``faults`` names every one with its place."""

    code = "inputs_invalid"

    def __init__(self, faults: Iterable[tuple[str, str]]) -> None:
        self.faults = tuple(faults)
        message = " ".join(f"{place}: {text}" for place, text in self.faults)
        super().__init__(message, faults=[{"place": place, "text": text} for place, text in self.faults])


class GoneError(AskError):
    """The last one was taken by somebody else; ``holders`` says by whom, ``others`` what else fits."""

    code = "gone"


class SoundError(AskError):
    """A recording cannot be read. Each reason has its own code (``sound_not_wav``, ``sound_too_short``, …)."""

    code = "sound"

    def __init__(self, code: str, message: str, **params: object) -> None:
        super().__init__(message)
        self.params = params
        self.code = code
