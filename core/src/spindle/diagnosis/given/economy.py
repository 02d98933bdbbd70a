"""The shop's own figures, which move the stopping point more than any likelihood does."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Economy:
    """The shop's own figures, in euro.

    The defaults are our invented counter's: 36 euro an hour, a lost fee, goodwill and a written-off unit when one goes
    back unrepaired (rather too high than too low), the price of a used drive when one is spoilt, and what a day's wait
    is worth in goodwill and shelf room. A day past the promise costs what an owner who calls costs. A unit that comes
    back inside its guarantee costs the way in and out again and an apology.
    """

    rate_eur_per_min: float = 0.6
    day_eur: float = 1.2
    give_up_eur: float = 150.0
    damage_eur: float = 60.0
    late_day_eur: float = 3.0
    promise_days: float | None = None
    """Days left until the promised date; None if nothing was promised."""
    return_eur: float = 70.0
    sign: str = "€"
    """The sign of the shop's money, where an amount is said in words. Amounts themselves are in its whole units."""

    def waiting(self, days: float) -> float:
        """Return what waiting costs, in euro: every day, and more for each beyond the promise."""
        late = 0.0 if self.promise_days is None else max(0.0, days - max(self.promise_days, 0.0))
        return days * self.day_eur + late * self.late_day_eur
