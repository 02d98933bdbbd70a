"""A procedure: the steps of a repair in order, with the caution at the step, what moves across, and what proves it."""

from __future__ import annotations

from dataclasses import dataclass, replace
from types import MappingProxyType
from typing import Final

from spindle.drives.swap_plan import SwapPlan
from spindle.words.bench import Depth, Mains

PART_IN: Final = "part_in"
PLUG: Final = "plug"
"""The steps that every repair may begin with: the part at hand, and the plug out."""


@dataclass(frozen=True, slots=True)
class Step:
    """One thing to do. It cannot be marked done while the mains state is not the one it needs."""

    id: str
    """Names it within its procedure: what was done is remembered by it, never by a place in a list."""
    text: str
    mains: Mains = Mains.OUT
    cautions: tuple[str, ...] = ()
    reads_fuse: bool = False
    """The rating of the fuse that is fitted is written down here, and checked."""
    opens_to: Depth = Depth.CLOSED
    """How deep the unit is open once this is done."""
    opens: tuple[str, ...] = ()
    clears: tuple[str, ...] = ()
    """The holds on the power that doing it opens (cleaner is wet, board soldered), and those that it clears."""
    is_trial: bool = False
    """The trial of the half-built unit: done by recording what it showed."""
    takes_part: bool = False
    """The part that goes in: done by taking it from the shelf, or by noting one that lies here."""
    plan: str = ""
    """The level whose swap plan it is a step of: ticked there and here alike."""
    details: tuple[str, ...] = ()
    """The sheet's screws and plugs that belong to it."""

    @property
    def is_inside(self) -> bool:
        """True if a hand goes into the unit for it: not while charge remains there."""
        return self.mains is Mains.OUT and self.id != PLUG

    @property
    def asks_photo(self) -> bool:
        """True if a photo belongs to it: its id says so, here and in a swap plan."""
        return "photo" in self.id.split("_")


@dataclass(frozen=True, slots=True)
class Procedure:
    """How one repair is done. ``steps`` begin with the unit open to ``depth``."""

    repair: str
    depth: Depth
    skill: str
    tools: tuple[str, ...]
    steps: tuple[Step, ...]
    proves: str
    goes_wrong: str
    transfers: tuple[str, ...] = ()
    """What moves from the old part to the new one."""
    guarantee_days: int = 90
    alters_unit: str = ""
    """Said to the owner if the repair is a workaround or alters the unit; needs consent whatever it costs."""


_OPENING = (
    Step(PLUG, "Pull the mains plug, and wait as long as the drive sheet says.", Mains.OUT, ("mains", "charge")),
    Step(
        "cover_off",
        "Take a photo, then the cover off. Each screw to its place on the mat; a missing one stays on record.",
        Mains.OUT,
        ("mains", "charge"),
        opens_to=Depth.COVER_OFF,
    ),
    Step(
        "drive_out",
        "Drive out: photo of every flex and plug first, then let them go as the drive sheet says. Roof off, this way up.",
        Mains.OUT,
        ("static", "pinch"),
        opens_to=Depth.DRIVE_OPEN,
    ),
    Step("deck_out", "Deck out: clips and rods noted by position and length.", Mains.OUT, ("static",), opens_to=Depth.DECK_OUT),
)
"""What opens each further depth; pulling the plug and taking the cover off belong to the first."""
OPENS_TO: Final = MappingProxyType({s.id: s.opens_to for s in _OPENING})
"""Opening step -> how deep the unit is open once it is done."""
OPENING_IDS: Final = tuple(OPENS_TO)
_TRIAL = Step(
    "trial",
    "Trial before the screws go in: flexes home, bars shut, nothing loose, cleaner dry. Frame in place, then power and one disc.",
    Mains.LIVE,
    ("laser", "spinning", "mains"),
    is_trial=True,
)


def steps_from(procedure: Procedure, depth: Depth, takes: str = "") -> tuple[Step, ...]:
    """Return every step from the unit as open as it is now to the trial at the half-built point.

    Parameters
    ----------
    takes : what the part is called that goes in, "" if none does. It lies ready before anything is opened: who opens first waits with an open unit.
    """
    ready = [Step(PART_IN, f"{takes} that goes in: scan its tag, or pick it.", Mains.ANY, takes_part=True)] if takes else []
    needed = [*_OPENING[:2]] if procedure.depth >= Depth.COVER_OFF and depth < Depth.COVER_OFF else [_OPENING[0]]
    for level in (Depth.DRIVE_OPEN, Depth.DECK_OUT):
        if procedure.depth >= level > depth:
            needed.append(_OPENING[level])
    return (*ready, *needed, *procedure.steps, _TRIAL)


def by_plan(procedure: Procedure, plan: SwapPlan) -> Procedure:
    """Return a procedure with the steps of a swap plan in place of its own: what the sheet says of this very drive beats the general way."""
    steps = tuple(Step(s.id, s.text, Mains.OUT, s.cautions, plan=plan.level, details=s.details) for s in plan.steps)
    return replace(procedure, steps=steps)
