"""The shop of the demo's year, as the rules of a job ask it."""

from __future__ import annotations

from datetime import datetime

from spindle.diagnosis.given.case import Stock
from spindle.diagnosis.given.economy import Economy
from spindle.errors import NotNowError
from spindle.job.effects import ShelfPiece
from spindle.job.value import SheetRef
from spindle.sound.listening import Heard
from spindle.words.bench import Instrument


class YearWorld:
    """The shop of the year: what is taken from its shelf is typed by its tag."""

    economy = Economy()
    price_cents_per_min = 90
    lacks: frozenset[Instrument] = frozenset()

    def __init__(self, now: datetime) -> None:
        self.now = now

    @staticmethod
    def stock() -> tuple[Stock, ...]:
        """Nothing of the shelf is told."""
        return ()

    @staticmethod
    def piece(_tag: str, _level: str) -> ShelfPiece | None:
        """No tag is a thing of the shelf."""
        return None

    @staticmethod
    def gone(piece: ShelfPiece) -> Exception:
        """Nothing can be gone."""
        return NotNowError(piece.tag)

    @staticmethod
    def has_photo(_name: str) -> bool:
        """No pictures."""
        return False

    @staticmethod
    def heard(name: str) -> Heard:
        """No recordings."""
        raise NotNowError(name)

    @staticmethod
    def sheet(number: int) -> SheetRef:
        """No other sheets."""
        raise NotNowError(str(number))
