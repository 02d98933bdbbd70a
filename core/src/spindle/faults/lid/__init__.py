"""The fault model of lid-load drives."""

from __future__ import annotations

from typing import Final

from spindle.faults.lid import faults, practice, questions, repairs
from spindle.faults.model import FaultModel
from spindle.faults.shared.assembly import family_questions, family_repairs
from spindle.faults.shared.repairs import REPAIRS, RESEATS

LID: Final = FaultModel(
    family="lid",
    parts=faults.PARTS,
    faults=faults.FAULTS,
    questions=family_questions(questions.QUESTIONS, questions.ROWS),
    repairs=family_repairs(REPAIRS, repairs.REPAIRS, repairs.WHOLE_DRIVE),
    depths=repairs.DEPTHS,
    groups=faults.GROUPS,
    seen_at_least=("disc_grip", "lid_starts", "spins", "screen_message"),
    reseats=RESEATS,
    pairs=practice.PAIRS,
    paths=practice.PATHS,
    chart=practice.CHART,
    claims=practice.CLAIMS,
    schools=practice.SCHOOLS,
)
