"""How a job can end without a repair, each end with its own words, price and guarantee (C65)."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType
from typing import Final

CHECK_MIN: Final = 15
"""Minutes that are charged for a check where the drive is sound: in, the classes, six tries, out. Our shop's custom."""
_BACK: Final = "No guarantee, for nothing was repaired. Shows it again within 30 days, bring it with the disc at which it did: looking again is free."
_NONE: Final = "No guarantee: nothing was repaired."


@dataclass(frozen=True, slots=True)
class End:
    """One end.

    Attributes
    ----------
    name : how it ends, in a word
    verdict, cause : what the owner reads; an empty cause is the likeliest fault, as far as it is known
    needs_sound : the drive has to be seen working, as often as makes it sure, before the owner is told so
    charged_min : minutes that are charged
    """

    name: str
    verdict: str
    cause: str = ""
    needs_sound: bool = False
    charged_min: int = 0
    guarantee: str = _NONE

    @property
    def proposed(self) -> str:
        """What is proposed to the owner."""
        return f"Hand it back: {self.name[:1].lower()}{self.name[1:]}"


ENDS: Final[Mapping[str, End]] = MappingProxyType(
    {
        "unrepaired": End("As it is", "Handed back as it is"),
        "nothing_wrong": End(
            "Nothing wrong found",
            "Nothing wrong found",
            "Nothing wrong found with this drive: the fault did not show here.",
            needs_sound=True,
            charged_min=CHECK_MIN,
            guarantee=_BACK,
        ),
        "works_unknown": End(
            "Works again, cause unknown",
            "Works again, cause unknown",
            "It works again since it was opened and put together. What it was, we do not know: it may come back.",
            needs_sound=True,
            charged_min=CHECK_MIN,
            guarantee=_BACK,
        ),
        "disc": End(
            "It was the disc",
            "The disc, not the drive",
            "The disc that came with it is scratched, dirty or of a kind that this console does not play. Known-good discs are read.",
            needs_sound=True,
            charged_min=CHECK_MIN,
            guarantee=_BACK,
        ),
        "supply": End(
            "It was the owner’s supply",
            "The supply, not the drive",
            "On the supply that belongs to it the drive works. Use that one: volts, polarity and amps stand on the console’s label.",
            needs_sound=True,
            charged_min=CHECK_MIN,
            guarantee=_BACK,
        ),
        "software": End(
            "The console’s software",
            "The console’s software or a setting, not the drive",
            "The drive does what it is told. An update, a setting or the console’s own storage stands in the way.",
            charged_min=CHECK_MIN,
        ),
        "main_board": End(
            "The console’s main board",
            "The console’s main board, not the drive",
            "The drive works where it is fed and asked. What feeds or asks it sits on the console’s main board, which this bench does not repair.",
            charged_min=CHECK_MIN,
        ),
        "not_to_be_had": End(
            "What it needs cannot be had",
            "Cannot be repaired with what can be had",
            "It needs a part that belongs to this console alone, and that one is gone or burnt.",
        ),
    }
)
"""What is proposed instead of a repair, by its word."""
UNREPAIRED: Final = "unrepaired"


def price_cents(end: str, price_cents_per_min: int) -> int:
    """Return what an end costs the owner, in cents."""
    return ENDS[end].charged_min * price_cents_per_min
