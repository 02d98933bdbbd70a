"""What is asked when a unit is taken in: prompts, not free text, so that nothing is forgotten and everything can be counted."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

from spindle.diagnosis.given.case import Answer, Finding
from spindle.words.witness import Witness


@dataclass(frozen=True, slots=True)
class Choice:
    """One answer of a prompt, and the finding that it amounts to ("question=outcome"), if any."""

    id: str
    label: str
    finding: str = ""


@dataclass(frozen=True, slots=True)
class Prompt:
    """One thing to look at or ask before the unit is opened."""

    id: str
    ask: str
    choices: tuple[Choice, ...]
    source: Witness = Witness.BENCH


_YES_NO = (Choice("no", "No"), Choice("yes", "Yes"))
PROMPTS: Final = (
    Prompt("seals", "Seals and stickers", (Choice("whole", "Whole"), Choice("cut", "Cut or gone", "opened_before=opened"), Choice("none", "Never had any"))),
    Prompt("screws", "Screws outside", (Choice("all", "All there"), Choice("missing", "Missing or odd", "opened_before=opened"))),
    Prompt("hand_marks", "Solder, hand or tool marks", (Choice("none", "None"), Choice("some", "Some", "opened_before=opened"))),
    Prompt("rattle", "Rattle when tilted, mains out", (Choice("silent", "Silent", "rattle=silent"), Choice("rattles", "Rattles", "rattle=rattles"))),
    Prompt("burns", "Burns, liquid or pests", (Choice("none", "None"), Choice("some", "Some"))),
    Prompt("dust", "Dust at the vents", (Choice("little", "Little", "smoky_home=clean"), Choice("much", "Much", "smoky_home=film"))),
    Prompt("disc_inside", "A disc inside", _YES_NO),
    Prompt(
        "marks",
        "Fresh marks on the owner's disc",
        (
            Choice("none", "None", "disc_marks=none"),
            Choice("ring", "A ring", "disc_marks=ring"),
            Choice("straight", "Straight", "disc_marks=straight"),
            Choice("no_disc", "No disc seen"),
        ),
    ),
    Prompt(
        "mains_lost",
        "Power failed or disc pulled just before",
        (Choice("no", "No", "mains_lost=no"), Choice("yes", "Yes", "mains_lost=yes"), Choice("unknown", "Not known")),
        Witness.OWNER,
    ),
    Prompt(
        "origin", "Where it comes from", (Choice("first", "First owner"), Choice("second", "Second-hand"), Choice("shipped", "Shipped lately", "shipped=yes"))
    ),
    Prompt("children", "Small children at home", _YES_NO),
    Prompt(
        "tried",
        "Tried already",
        (Choice("nothing", "Nothing"), Choice("cleaning", "A cleaning disc"), Choice("inside", "Something inside", "opened_before=opened")),
    ),
    Prompt("rest", "Picture, wireless, controls, fan", (Choice("fine", "All fine"), Choice("faults", "Something else is faulty"))),
)
NO_EARLIER_ATTEMPT: Final = "opened_before=sealed"
"""What whole seals, all screws and no marks together amount to."""


def open_prompts(condition: Mapping[str, str]) -> tuple[str, ...]:
    """Return the names of the prompts that have no valid answer yet."""
    return tuple(p.ask.lower() for p in PROMPTS if condition.get(p.id) not in {c.id for c in p.choices})


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


def power_hold(findings: tuple[Finding, ...]) -> str:
    """Return why power is held back, or "" if it is not: a rattle keeps it off until it is found and nothing rattles (trap T35)."""
    last = ""
    for finding in findings:
        if not finding.is_struck and isinstance(finding.what, Answer) and finding.what.question == "rattle":
            last = finding.what.outcome
    if last != "rattles":
        return ""
    return "Something rattles inside. Open it with the mains out, find it, then answer the rattle check again: silent."
