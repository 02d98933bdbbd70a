"""Three shops that the study plays in: one that has only a meter, one with donors, one with everything."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from types import MappingProxyType
from typing import Final

from spindle.diagnosis.given.case import Stock
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.drives.levels import LEVEL_OF_REPAIR
from spindle.words.bench import Instrument
from spindle.words.health import Health

SHARE_OF_NEW: Final = 0.4
"""What a donor's piece is worth of a new one's price: half of its life is left, and nobody knows how good it is. Invented."""
PIECES: Final = frozenset({"drive", "deck", "pickup", "load_motor", "spindle_motor", "switch_board"})
"""What one donor drive on the shelf is taken apart into for trying: what comes out in one piece."""
_INSTRUMENTS: Final = frozenset({Instrument.SCOPE, Instrument.LIGHT_METER, Instrument.BENCH_SUPPLY, Instrument.HOT_AIR})


@dataclass(frozen=True, slots=True)
class Shop:
    """A shop: what it lacks of instruments, and what lies on its shelf for a drive."""

    name: str
    lacks: frozenset[Instrument] = frozenset()
    shelf: Callable[[CompiledModel], tuple[Stock, ...]] = lambda _model: ()


def _donor(model: CompiledModel) -> tuple[Stock, ...]:
    """One donor drive that failed for a reason nobody wrote down, taken apart."""
    return tuple(
        Stock(r.id, f"D-1 {LEVEL_OF_REPAIR[r.id]}", Health.UNKNOWN, price_eur=SHARE_OF_NEW * r.part_eur, is_donor=True)
        for r in model.repairs
        if LEVEL_OF_REPAIR.get(r.id) in PIECES and r.uses_item
    )


def _drawer(model: CompiledModel) -> tuple[Stock, ...]:
    """Every part new in the drawer."""
    return tuple(Stock(r.id, f"N-{n}", price_eur=r.part_eur) for n, r in enumerate(model.repairs) if r.uses_item)


SHOPS: Final = MappingProxyType(
    {
        "study": Shop("Every instrument; parts are ordered"),
        "meter": Shop("A meter and hand tools; parts are ordered", _INSTRUMENTS),
        "donors": Shop("A meter and one donor drive", _INSTRUMENTS, _donor),
        "everything": Shop("Every instrument, every part in the drawer, one donor drive", frozenset(), lambda model: (*_drawer(model), *_donor(model))),
    }
)
"""By name; the first is the one of the other tables."""
