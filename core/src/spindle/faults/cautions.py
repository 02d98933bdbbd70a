"""Cautions in plain words. They stand at the step where the hurt is, and defer to local rules and licensed practice."""

from __future__ import annotations

from dataclasses import dataclass
from types import MappingProxyType
from typing import Final


@dataclass(frozen=True, slots=True)
class Caution:
    """A caution: ``short`` for a chip on the bench, ``text`` for the step itself."""

    id: str
    short: str
    text: str


_ALL = (
    Caution(
        "laser",
        "Never look into a running drive",
        "Invisible laser light: with the cover off or a switch held down, the beam runs with nothing above it. Look from the side, "
        "never along the beam or at the lens, and follow your shop's laser rules.",
    ),
    Caution(
        "mains",
        "Mains inside the case",
        "The supply inside the case carries mains voltage. Pull the plug before opening. Work on the supply itself is for "
        "licensed people; your local rules come first.",
    ),
    Caution(
        "charge",
        "Charge remains",
        "Capacitors in the supply hold charge after the plug is out. Wait as long as the drive sheet says and keep off the supply's solder side.",
    ),
    Caution(
        "static",
        "Strap on: static kills a bare pickup",
        "A static spark kills laser diodes without a sign. Wear the strap, work on the mat, and leave solder bridges on the new "
        "pickup until the step that clears them. Near a bare pickup the iron is earthed and the strap joined to the board.",
    ),
    Caution(
        "spinning",
        "Disc spins in the open",
        "A disc that spins in an open drive can leave the hub and cut. Keep fingers, sleeves and hair away, and let it stop by itself: "
        "a wooden stick, never a fingertip.",
    ),
    Caution(
        "solvent",
        "Flammable cleaner: let it dry",
        "The cleaner burns and its vapour too: little of it, air in the room, no flame or iron near. No power before it is dry: at least five minutes.",
    ),
    Caution(
        "solder",
        "Hot iron, fumes",
        "Iron and hot air burn skin and board. Draw the fumes off, wash hands after leaded solder, and let the board cool before power. "
        "A chip with a metal pad underneath is not reflowed with an iron.",
    ),
    Caution(
        "pinch",
        "Springs and arms let go",
        "Arms and small springs are under tension and fall out if the roof is turned over. Keep it this way up; eyes away from the springs.",
    ),
    Caution(
        "short",
        "No power before the short test",
        "Measure from the fed side of the fuse to ground before power returns. A fuse that blew once blows for a reason.",
    ),
    Caution(
        "polarity",
        "A reversed capacitor bursts",
        "An electrolytic capacitor put in the wrong way round heats, leaks or bursts. See its polarity twice against the board's "
        "mark before power; eyes away at the first power-up.",
    ),
    Caution(
        "interlock",
        "The lid must switch the laser off",
        "The lid's switch keeps the laser dark while the lid is open. After this work it has to stop the drive the moment "
        "the lid lifts, or the unit does not go back. "
        "Your local laser rules come first.",
    ),
    Caution(
        "loose_metal",
        "No power with loose metal inside",
        "Something loose can lie across the board. Leave the mains out until it is found and nothing rattles.",
    ),
)

CAUTIONS: Final = MappingProxyType({c.id: c for c in _ALL})
