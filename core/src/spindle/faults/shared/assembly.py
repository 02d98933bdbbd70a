"""How a loader family is put together from the shared part and its own."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from spindle.faults.model import Question, Repair, Row
from spindle.faults.shared.board_tests import BOARD_TESTS
from spindle.faults.shared.classes import DISC_CLASSES
from spindle.faults.shared.deck_tests import DECK_TESTS
from spindle.faults.shared.intake import INTAKE
from spindle.faults.shared.stages import STAGES


def family_questions(own: tuple[Question, ...], rows: Mapping[str, tuple[Row, ...]]) -> tuple[Question, ...]:
    """Return the family's questions in the order of the bench: intake, baseline by its stages, classes, looks and tests.

    ``rows`` adds a family's own faults to shared questions; its keys are question ids, space-separated.
    """
    added: dict[str, tuple[Row, ...]] = {}
    for ids, more in rows.items():
        for id_ in ids.split():
            added[id_] = (*added.get(id_, ()), *more)
    every = [replace(q, rows=(*q.rows, *added[q.id])) if q.id in added else q for q in (*INTAKE, *STAGES, *DISC_CLASSES, *BOARD_TESTS, *DECK_TESTS, *own)]
    kinds = {"intake": 0, "baseline": 1, "disc_class": 2}
    return tuple(sorted(every, key=lambda q: (kinds.get(q.kind.value, 3), q.order, q.depth if q.kind.value not in kinds else 0)))


def family_repairs(shared: tuple[Repair, ...], own: tuple[Repair, ...], whole_drive: Mapping[str, float]) -> tuple[Repair, ...]:
    """Return the family's repairs; ``whole_drive`` is what of its own a whole drive takes along."""
    return tuple(replace(r, cures={**r.cures, **whole_drive}) if r.id == "replace_drive" else r for r in (*own, *shared))
