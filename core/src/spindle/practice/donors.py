"""A donor's part on a practice unit: here at once, for less, and nobody knows how good it is."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np

from spindle.diagnosis.given.compiled import Floats
from spindle.diagnosis.planning.plan import part_terms
from spindle.practice.state import Session, needs_board, repair_cost
from spindle.words.health import P_BAD_ITEM, Health

SHARE_OF_NEW: Final = 0.4
"""What a donor's part is worth of a new one's price, if it stays: half of its life is left (``lasting.py``), and the doubt takes some more. Invented."""
P_BAD: Final = P_BAD_ITEM[Health.UNKNOWN]


@dataclass(frozen=True, slots=True)
class Donor:
    """A donor's part for one repair: what it costs if it stays, the minutes to try it, and the truth about it."""

    eur: float
    minutes: float
    is_good: bool


def donor_of(s: Session, repair: int) -> Donor | None:
    """Return the donor's part for a repair, the same one each time; None where none would do: no part goes in, or its board would be another console's."""
    own = s.ready.plan.repairs[repair]
    price_eur, _ = part_terms(own, s.ready.model)
    if not own.uses_item or price_eur <= 0 or needs_board(s, own.id):
        return None
    rng = np.random.default_rng([s.seed, 75, s.lesson.number, repair])
    return Donor(SHARE_OF_NEW * price_eur, repair_cost(s, repair)[1], bool(rng.random() >= P_BAD))


def left_after(w: Floats, success: Floats) -> Floats:
    """Return the belief after a donor's part changed nothing: it may be as bad as the one that came out, so it clears less than a good one would (trap T14)."""
    return np.asarray(w * (P_BAD + (1.0 - P_BAD) * (1.0 - success)))
