"""The fault model of tray-load drives."""

from __future__ import annotations

from typing import Final

from spindle.faults.model import FaultModel
from spindle.faults.shared.assembly import family_questions, family_repairs
from spindle.faults.shared.repairs import REPAIRS, RESEATS
from spindle.faults.tray import faults, practice, questions, repairs

TRAY: Final = FaultModel(
    family="tray",
    parts=faults.PARTS,
    faults=faults.FAULTS,
    questions=family_questions(questions.QUESTIONS, questions.ROWS),
    repairs=family_repairs(REPAIRS, repairs.REPAIRS, repairs.WHOLE_DRIVE),
    depths=repairs.DEPTHS,
    groups=faults.GROUPS,
    seen_at_least=("tray_opens_loaded", "tray_opens_empty", "tray_shuts", "spins", "screen_message"),
    reseats=RESEATS,
    pairs=practice.PAIRS,
    paths=practice.PATHS,
    chart=practice.CHART,
    claims=practice.CLAIMS,
    schools=practice.SCHOOLS,
)
