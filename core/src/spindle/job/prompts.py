"""What is asked when a unit is taken in: prompts, not free text, so that nothing is forgotten and everything can be counted."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

from spindle.diagnosis.given.case import Answer
from spindle.errors import InvalidError
from spindle.words.witness import Witness


@dataclass(frozen=True, slots=True)
class Option:
    """One answer of a prompt, and the finding that it amounts to ("question=outcome"), if any."""

    id: str
    label: str
    finding: str = ""
    is_private: bool = False


@dataclass(frozen=True, slots=True)
class Prompt:
    """One thing to look at or ask before the unit is opened."""

    id: str
    ask: str
    choices: tuple[Option, ...]
    source: Witness = Witness.BENCH
    is_private: bool = False
    """It helps the bench, and is not written to the owner: children; of options, pests."""
    told: str = ""
    """What it is called to the owner, if otherwise than at the counter."""
    may_stay_open: bool = False
    """The owner's complaint as answers: noted where the owner can say it, and never "as usual"."""


def _yes_no(question: str) -> tuple[Option, Option]:
    return Option("no", "No", f"{question}=no"), Option("yes", "Yes", f"{question}=yes")


_UNKNOWN: Final = Option("unknown", "Not known")


def _complaint(id_: str, ask: str, question: str, **answers: str) -> Prompt:
    """A part of the complaint: the owner's word, with the owner's weight, and not written back to the owner."""
    choices = (*(Option(outcome, label, f"{question}={outcome}") for outcome, label in answers.items()), _UNKNOWN)
    return Prompt(id_, ask, choices, Witness.OWNER, is_private=True, may_stay_open=True)


PROMPTS: Final = (
    Prompt("seals", "Seals and stickers", (Option("whole", "Whole"), Option("cut", "Cut or gone", "opened_before=opened"), Option("none", "Never had any"))),
    Prompt("screws", "Screws outside", (Option("all", "All there"), Option("missing", "Missing or odd", "opened_before=opened"))),
    Prompt("hand_marks", "Solder, hand or tool marks", (Option("none", "None"), Option("some", "Some", "opened_before=opened"))),
    Prompt("rattle", "Rattle when tilted, mains out", (Option("silent", "Silent", "rattle=silent"), Option("rattles", "Rattles", "rattle=rattles"))),
    Prompt(
        "burns",
        "Burns, liquid or pests",
        (Option("none", "None", "harm=none"), Option("some", "Burns or liquid", "harm=some"), Option("pests", "Pests", "harm=pests", is_private=True)),
        told="Signs of harm",
    ),
    Prompt("dust", "Dust at the vents", (Option("little", "Little", "smoky_home=clean"), Option("much", "Much", "smoky_home=film"))),
    Prompt("disc_inside", "A disc inside", _yes_no("disc_inside")),
    Prompt(
        "owners_disc",
        "The owner's disc",
        (
            Option("good", "Good", "owners_disc=good"),
            Option("bad", "Scratched, dirty or of another kind", "owners_disc=bad"),
            Option("none", "None came with it"),
        ),
    ),
    Prompt(
        "marks",
        "Fresh marks on its disc",
        (
            Option("none", "None", "disc_marks=none"),
            Option("ring", "A ring", "disc_marks=ring"),
            Option("straight", "Straight", "disc_marks=straight"),
            Option("no_disc", "No disc seen"),
        ),
    ),
    Prompt("mains_lost", "Power failed just before", (*_yes_no("mains_lost"), _UNKNOWN), Witness.OWNER),
    Prompt("pulled", "Disc or tray pulled by hand", (*_yes_no("disc_pulled"), _UNKNOWN), Witness.OWNER),
    Prompt("dropped", "Dropped or knocked", (Option("no", "No"), Option("yes", "Yes", "shipped=yes"), _UNKNOWN), Witness.OWNER),
    Prompt(
        "how_often",
        "How often it fails",
        (Option("always", "Always", "shows_how_often=always"), Option("now_and_then", "Comes and goes", "shows_how_often=comes_and_goes"), _UNKNOWN),
        Witness.OWNER,
    ),
    Prompt(
        "supply_label",
        "Supply against its label",
        (
            Option("fits", "Fits", "supply_rating=fits"),
            Option("weak", "Fewer amps", "supply_rating=weak"),
            Option("wrong", "Other volts or polarity", "supply_rating=wrong"),
            Option("absent", "Not here"),
        ),
    ),
    Prompt(
        "origin",
        "Where it comes from",
        (
            Option("first", "First owner", "second_hand=no"),
            Option("second", "Second-hand", "second_hand=yes"),
            Option("shipped", "Shipped lately", "shipped=yes"),
        ),
    ),
    Prompt("children", "Small children at home", _yes_no("children"), is_private=True),
    Prompt(
        "tried",
        "Tried already",
        (
            Option("nothing", "Nothing", "cleaning_tried=no"),
            Option("cleaning", "A cleaning disc", "cleaning_tried=yes"),
            Option("inside", "Something inside", "opened_before=opened"),
        ),
    ),
    _complaint("which", "Which discs it still plays", "owner_which", none="None", some_kinds="Some kinds", some_discs="Some of one kind"),
    _complaint("since", "How it came", "came_slowly", slowly="Over weeks", sudden="From one day to the next"),
    _complaint("when", "When it fails", "owner_when", same="Always alike", better_cold="Once warm", better_warm="Only cold", position="By its position"),
    _complaint("sound", "What it sounds like", "owner_sound", quiet="As ever, or silent", clicks="Clicks", grinds="Grinds", races="Howls or races"),
    _complaint("cold", "In from the cold or damp", "from_cold", no="No", yes="Yes"),
    _complaint("board", "Drive or board ever changed", "original_board", never="Never", kept="Yes, original kept", gone="Yes, original gone"),
    Prompt("rest", "Picture, wireless, controls, fan", (Option("fine", "All fine"), Option("faults", "Something else is faulty"))),
)
NO_EARLIER_ATTEMPT: Final = "opened_before=sealed"
"""What whole seals, all screws and no marks together amount to."""


def open_prompts(condition: Mapping[str, str]) -> tuple[str, ...]:
    """Return the names of the prompts that have no valid answer yet and need one."""
    return tuple(p.ask.lower() for p in PROMPTS if not p.may_stay_open and condition.get(p.id) not in {c.id for c in p.choices})


def told_of(condition: Mapping[str, str]) -> tuple[tuple[str, str], ...]:
    """Return what of the noted condition is written to the owner: what was found that is not as it should be. The first choice is the ordinary one."""
    noted = ((p, c) for p in PROMPTS for c in p.choices[1:] if condition.get(p.id) == c.id)
    return tuple((p.told or p.ask, c.label) for p, c in noted if not (p.is_private or c.is_private))


def findings_of(condition: Mapping[str, str]) -> tuple[Answer, ...]:
    """Return the findings that the answered prompts amount to, each question once; signs of an earlier attempt win."""
    found: dict[str, Answer] = {}
    for prompt in PROMPTS:
        choice = next((c for c in prompt.choices if c.id == condition.get(prompt.id)), None)
        if choice and choice.finding:
            question, outcome = choice.finding.split("=")
            found.setdefault(question, Answer(question, outcome, prompt.source))
    if "opened_before" not in found and {condition.get("seals"), condition.get("screws"), condition.get("hand_marks")} == {"whole", "all", "none"}:
        question, outcome = NO_EARLIER_ATTEMPT.split("=")
        found[question] = Answer(question, outcome)
    return tuple(found.values())


def check_condition(condition: Mapping[str, str]) -> None:
    """Refuse a condition that is none of its prompt's.

    Raises
    ------
    InvalidError
    """
    known = {p.id: {c.id for c in p.choices} for p in PROMPTS}
    for prompt, choice in condition.items():
        if choice not in known.get(prompt, set()):
            raise InvalidError(f"condition.{prompt}", f"{choice!r} is no answer to the prompt {prompt!r}.")
