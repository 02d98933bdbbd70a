"""The fault model of slot-load drives."""

from __future__ import annotations

from typing import Final

from spindle.faults.model import FaultModel
from spindle.faults.slot import baseline, faults, looks, repairs

SLOT: Final = FaultModel(
    family="slot",
    parts=faults.PARTS,
    faults=faults.FAULTS,
    questions=(*looks.INTAKE, *baseline.STAGES, *baseline.DISC_CLASSES, *looks.LOOKS),
    repairs=repairs.REPAIRS,
    depths=repairs.DEPTHS,
    schools=repairs.SCHOOLS,
)
