"""How lid, lid switches, hub and alignment points are repaired."""

from __future__ import annotations

from typing import Final

from spindle.faults.model import Depth, Mains
from spindle.repairs.procedure import Procedure, Step
from spindle.repairs.shared import SCREWDRIVER, SEAT_FLEX, switch_procedure

PROCEDURES: Final = (
    switch_procedure("clean_switch_lid_a", "first lid switch", Depth.COVER_OFF),
    switch_procedure("clean_switch_lid_b", "second lid switch", Depth.COVER_OFF),
    switch_procedure("replace_switch_lid_a", "first lid switch", Depth.COVER_OFF),
    switch_procedure("replace_switch_lid_b", "second lid switch", Depth.COVER_OFF),
    Procedure(
        "rebuild_actuator",
        Depth.COVER_OFF,
        "practised",
        ("Glue for plastic", "Clay", "File"),
        (
            Step("Measure with clay how much the stub lacks.", Mains.OUT),
            Step(
                "Build it up, let it set, file it to length: the switch closes only when the lid is shut, and opens as it lifts.",
                Mains.OUT,
                ("solvent", "interlock"),
            ),
        ),
        "Starts with the lid shut, stops as it lifts, ten times.",
        "too long: the switch stays pressed and the laser runs in the open",
        guarantee_days=30,
        alters_unit="A rebuilt stub is a stopgap; the lid’s interlock works as before, or it is not handed back.",
    ),
    Procedure(
        "replace_lid",
        Depth.COVER_OFF,
        "first week",
        (SCREWDRIVER,),
        (
            Step("Spring and hinge noted; the spring kept under a thumb.", Mains.OUT, ("pinch",)),
            Step("New lid on, hook and stub meet their places.", Mains.OUT, ("interlock",)),
        ),
        "Starts with the lid shut, stops as it lifts, ten times.",
        "spring lost",
        transfers=("Spring, if the new lid has none",),
    ),
    Procedure(
        "replace_switch_board",
        Depth.COVER_OFF,
        "practised",
        (SCREWDRIVER, "Plastic pick"),
        (
            Step("Photo of stub and switches. Old board out, flex first.", Mains.OUT),
            Step("New board in; each switch pressed by the lid alone.", Mains.OUT, ("interlock",)),
            SEAT_FLEX,
        ),
        "Starts with the lid shut, stops as it lifts, ten times.",
        "flex forgotten",
    ),
    Procedure(
        "wire_switch_pad",
        Depth.COVER_OFF,
        "soldering",
        ("Iron, fine tip", "Thin insulated wire", "Meter", "Fume extractor"),
        (
            Step(
                "Find the next point of the same net with the meter. Never across the switch itself: a bridged interlock lets the laser run in the open.",
                Mains.OUT,
                ("interlock",),
            ),
            Step("Thin insulated wire, glued down, soldered at both ends.", Mains.OUT, ("solder",)),
            Step("Open at rest, closed pressed, at the main board’s end.", Mains.OUT, ("interlock",)),
        ),
        "Starts with the lid shut, stops as it lifts, ten times.",
        "wired across the switch",
    ),
    Procedure(
        "free_balls",
        Depth.CLOSED,
        "first week",
        ("Wooden stick", "Cleaner"),
        (
            Step("Each ball pressed and turned with the stick, one drop of cleaner, wiped.", Mains.OUT, ("solvent",)),
            Step("Let it dry for five minutes.", Mains.OUT, ("solvent",)),
        ),
        "Disc snaps home and turns with the hub.",
        "ball pressed out and lost",
    ),
    Procedure(
        "replace_hub",
        Depth.DRIVE_OPEN,
        "experienced",
        ("Height gauge or the sheet’s shim",),
        (
            Step("Height over the deck measured before it comes off.", Mains.OUT),
            Step("Shaft held, hub drawn straight up.", Mains.OUT, ("pinch",)),
            Step("New one pressed to the same height, true by eye.", Mains.OUT, ("pinch",)),
        ),
        "Spins up once and holds, later data.",
        "height off, bearing hurt",
    ),
    Procedure(
        "set_bias",
        Depth.COVER_OFF,
        "experienced",
        ("Meter", "Ceramic trimmer tool", "Test discs"),
        (
            Step(
                "As found, in the state that the sheet gives; the light level first. It goes back there if nothing changes.",
                Mains.LIVE,
                ("laser", "mains", "spinning"),
            ),
            Step("Turn the focus bias a hair’s breadth, read again: learn direction and step from this unit.", Mains.LIVE, ("laser", "mains", "spinning")),
            Step("Into the sheet’s band in halving steps; stop at the first value that reads three times running.", Mains.LIVE, ("laser", "mains", "spinning")),
        ),
        "Repeatable reads, and the same value after closing.",
        "wrong state, wrong way",
    ),
    Procedure(
        "set_gain",
        Depth.COVER_OFF,
        "experienced",
        ("Meter", "Ceramic trimmer tool", "Test discs"),
        (
            Step(
                "As found, in the state that the sheet gives; level and bias first. It goes back there if nothing changes.",
                Mains.LIVE,
                ("laser", "mains", "spinning"),
            ),
            Step("Turn the servo gain a hair’s breadth, read again: learn direction and step from this unit.", Mains.LIVE, ("laser", "mains", "spinning")),
            Step("Into the sheet’s band in halving steps; stop at the first value that reads three times running.", Mains.LIVE, ("laser", "mains", "spinning")),
        ),
        "Repeatable reads, and the same value after closing.",
        "wrong state, wrong way",
    ),
    Procedure(
        "replace_motor_board",
        Depth.DECK_OUT,
        "experienced",
        ("Iron", "Plastic pick", "Fume extractor"),
        (
            Step("Photo of the windings’ order. Old board off joint by joint.", Mains.OUT, ("solder",)),
            Step("New board on, windings as in the photo.", Mains.OUT, ("solder",)),
            Step("Its flex in before the deck goes back: everybody forgets it once.", Mains.OUT, ("static",)),
            SEAT_FLEX,
        ),
        "Spins up once and holds.",
        "flex forgotten, windings swapped",
    ),
)
