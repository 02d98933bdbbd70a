"""What proves a repair: its own baseline again, then the profile of the family."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from spindle.drives.sheet import CLASS_WAVELENGTH_NM, DriveSheet, ReferenceTime
from spindle.faults.model import FaultModel, Question, QuestionKind


@dataclass(frozen=True, slots=True)
class ProofCheck:
    """One check of the proof: what to do, and which answers of the baseline pass it."""

    id: str
    title: str
    how: str
    question: str = ""
    """The baseline question that it repeats, if any."""
    tries: int = 1
    """How often it is done before it has passed."""
    waits_for: str = ""
    """The hold that has to have passed before it counts: "cold start", "warm start"."""
    reference: ReferenceTime | None = None
    """How long healthy units take to play it, where the sheet says."""
    may_be_left: bool = False
    """It can be left out, with a reason: what it needs may not be here."""

    @property
    def is_timed(self) -> bool:
        """True where the seconds until it plays are worth writing down: of proven units they become what healthy ones take."""
        return self.question in CLASS_WAVELENGTH_NM


_LOADER: Final = {
    "slot": (
        ProofCheck("eject_loaded", "Ejects with a disc in", "From the button. The disc comes out straight."),
        ProofCheck("eject_empty", "Eject command with no disc in", "The loader runs, comes to rest and takes the next disc."),
    ),
    "tray": (
        ProofCheck("eject_loaded", "Opens and shuts with a disc in, ten times", "From the button. It stays shut until asked.", tries=10),
        ProofCheck("eject_empty", "Opens and shuts empty, ten times", "Empty is the hard case: puck and hub stick together.", tries=10),
    ),
    "lid": (
        ProofCheck("eject_loaded", "Disc snaps home and comes off by hand", "Three balls click; it lifts off without bending."),
        ProofCheck(
            "interlock", "Lifting the lid stops it, ten times", "The laser must be dark the moment the lid lifts, or the unit does not go back.", tries=10
        ),
    ),
}
"""What proves the loader of each family."""
_REST: Final = (
    "Picture, wireless, controls, fan: as noted when it was taken in. The owner's account is as it was: nothing installed, nothing copied, nobody signed out."
)


def proof_profile(sheet: DriveSheet, model: FaultModel, baseline_failures: tuple[str, ...], *, has_own_disc: bool = False) -> tuple[ProofCheck, ...]:
    """Return the checks that prove a repair on this drive: a cold start, its own baseline again, then the profile of the family.

    Parameters
    ----------
    baseline_failures : tuple of question id
        What failed in the job's own baseline: repeated identically, first.
    has_own_disc : bool
        A good disc of the owner came with the unit.
    """
    questions, times = {q.id: q for q in model.questions}, sheet.reference_times
    again = [
        ProofCheck(f"again_{q}", _normal(questions[q]), f"As in the baseline, same disc, same position: {questions[q].ask}", q, reference=times.get(q))
        for q in baseline_failures
        if q in questions and questions[q].kind in (QuestionKind.BASELINE, QuestionKind.DISC_CLASS) and _normal(questions[q])
    ]
    named = {c.question for c in again}
    classes = [
        ProofCheck(f"class_{q.id}", _normal(q), q.how, q.id, reference=times.get(q.id))
        for q in model.questions
        if q.kind is QuestionKind.DISC_CLASS and q.id in sheet.classes and q.id not in named
    ]
    rest = [
        *_LOADER.get(sheet.family, ()),
        ProofCheck("later_load", "Later data loads", "Jump to a late chapter or level twice."),
        ProofCheck("own_disc", "The owner's own disc plays", "The one that came with it. Play it from the disc: nothing of it is installed.", may_be_left=True),
        ProofCheck("rest_of_unit", "The rest of the unit works as before", _REST),
        ProofCheck("warm", "Starts again, warm", "After it has run for a while, disc out and in again.", waits_for="warm start"),
    ]
    cold = ProofCheck("cold", "Starts cold", "The first start after it has stood with the mains out.", waits_for="cold start")
    skip = {*(["later_load"] if "later_data" in named else []), *([] if has_own_disc else ["own_disc"])}
    return (cold, *again, *classes, *(c for c in rest if c.id not in skip))


def _normal(question: Question) -> str:
    """Return the line of the answer that a healthy unit gives; "" where none does (how often it fails is for the passes)."""
    return next((o.line for o in question.outcomes if o.id not in question.fails), "")
