"""What a calculator answers, and what it is."""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any, NamedTuple

from spindle.bench.tools.fields import Field, Inputs, read_inputs
from spindle.bench.verdict import Reason, Verdict
from spindle.drives.full_sheet import FullSheet
from spindle.words.bench import Mains


@dataclass(frozen=True, slots=True)
class Number:
    """One number of an answer, as it is read aloud."""

    name: str
    text: str


@dataclass(frozen=True, slots=True)
class Speaks:
    """How the answer speaks to a question of the drive: soft weights on its answers, summing to 1. One finding, one strike."""

    question: str
    weights: Mapping[str, float]


@dataclass(frozen=True, slots=True)
class Told:
    """An answer.

    Attributes
    ----------
    headline : the one sentence that counts
    verdict : allowed, trial only or refused; None where nothing is judged
    reasons : every rule that spoke
    numbers, notes : what stands beside it, in words
    cautions : ids of :data:`spindle.faults.cautions.CAUTIONS` that stand at what comes next
    picture : what the screen draws to scale; its words stand in ``numbers`` as well
    speaks : what it says to the questions that it can answer
    may_power : False where power would hurt; None where it has no say
    mains : the mains as it has to be while this is read: ohms in a live circuit are no ohms, and hurt the meter
    next_rows : of a field of rows, what the next row already is: a turn to make, a pair to read
    """

    headline: str
    verdict: Verdict | None = None
    reasons: tuple[Reason, ...] = ()
    numbers: tuple[Number, ...] = ()
    notes: tuple[str, ...] = ()
    cautions: tuple[str, ...] = ()
    picture: Mapping[str, Any] = field(default_factory=dict)
    speaks: tuple[Speaks, ...] = ()
    may_power: bool | None = None
    mains: Mains = Mains.ANY
    next_rows: Mapping[str, Mapping[str, Any]] = field(default_factory=dict)


class Start(NamedTuple):
    """What a drive's sheet says of one thing, as inputs; and the question that reading it answers, where there is but one."""

    name: str
    inputs: dict[str, Any]
    question: str = ""


@dataclass(frozen=True)
class Tool:
    """A calculator.

    Attributes
    ----------
    run : the answer to inputs that were read
    questions : ids of the questions that it can speak to, or prefixes of them ending in ``*``
    needs : the feature of a drive (:attr:`spindle.drives.sheet.DriveSheet.features`) without which it has nothing to measure, where no question says so
    prefill : what a drive's sheet already says, as inputs; several where it has several such things, by name
    """

    id: str
    title: str
    about: str
    fields: tuple[Field, ...]
    run: Callable[[Inputs], Told]
    questions: tuple[str, ...] = ()
    prefill: Callable[[FullSheet], Sequence[Start]] = lambda _full: ()
    needs: str = ""

    def is_for(self, features: Collection[str], questions: Collection[str]) -> bool:
        """Tell whether a drive of these features and questions has something for it."""
        asked = not self.questions or any(q in questions for q in self.questions)
        return asked and (not self.needs or self.needs in features)

    def answer(self, given: object) -> Told:
        """Return the answer to what was given.

        Raises
        ------
        InputsError
            With every field that is wrong.
        """
        return self.run(read_inputs(self.fields, given))
