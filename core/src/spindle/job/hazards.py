"""What keeps the power off until it is cleared."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from spindle.diagnosis.given.case import Answer, Finding


@dataclass(frozen=True, slots=True)
class Hazard:
    """One open hazard: what it is, and what clears it."""

    code: str
    text: str


def open_hazards(findings: Iterable[Finding]) -> tuple[Hazard, ...]:
    """Return why power is held back, empty if it is not: a rattle keeps it off until it is found and nothing rattles (trap T35)."""
    last = ""
    for finding in findings:
        if not finding.is_struck and isinstance(finding.what, Answer) and finding.what.question == "rattle":
            last = finding.what.outcome
    if last != "rattles":
        return ()
    return (Hazard("rattle", "Something rattles inside. Open it with the mains out, find it, then answer the rattle check again: silent."),)
