"""How the loader of a slot-load drive is repaired."""

from __future__ import annotations

from typing import Final

from spindle.faults.model import Depth, Mains
from spindle.repairs.procedure import Procedure, Step
from spindle.repairs.shared import SCREWDRIVER, SEAT_FLEX, switch_procedure

PROCEDURES: Final = (
    Procedure(
        "replace_clamp",
        Depth.DRIVE_OPEN,
        "first week",
        (SCREWDRIVER,),
        (
            Step("Roof this way up. Old puck out of its ring, note which side faces the disc.", Mains.OUT, ("pinch",)),
            Step("Metal chips off the magnet with tape. New puck in, turns freely.", Mains.OUT),
        ),
        "No slip by hand, then later data.",
        "puck upside down",
    ),
    Procedure(
        "clean_rollers",
        Depth.DRIVE_OPEN,
        "first week",
        ("Rubber cleaner", "Fine abrasive paper"),
        (
            Step("Wipe the rubber with cleaner, turning by the gears.", Mains.OUT, ("solvent",)),
            Step("Break the shine with abrasive paper, dust wiped off and kept from the lens.", Mains.OUT),
            Step("Let it dry; thumb test: the rubber drags.", Mains.OUT, ("solvent",)),
        ),
        "Ten inserts.",
        "dust in the lens, hard rubber slips again within months",
        guarantee_days=30,
    ),
    Procedure(
        "reseat_rollers",
        Depth.DRIVE_OPEN,
        "first week",
        ("Plastic pick",),
        (Step("Both ends into their bearings, springs on their hooks.", Mains.OUT, ("pinch",)), Step("Turn by hand: even, no click.", Mains.OUT, ("pinch",))),
        "Ten inserts.",
        "roller end not in its bearing",
    ),
    Procedure(
        "replace_rollers",
        Depth.DRIVE_OPEN,
        "practised",
        (SCREWDRIVER, "Plastic pick"),
        (
            Step("Photo of springs and bearings. Old set out.", Mains.OUT, ("pinch",)),
            Step("New set in, gear side first, springs on the same hooks.", Mains.OUT, ("pinch",)),
            Step("A disc by hand through the slot: straight and with grip.", Mains.OUT),
        ),
        "Ten inserts.",
        "spring on the wrong hook",
        transfers=("Bearings and springs, if the new set has none",),
    ),
    Procedure(
        "replace_load_motor",
        Depth.DRIVE_OPEN,
        "practised",
        (SCREWDRIVER, "Iron, fine tip"),
        (
            Step("Photo of wire colours and which way the pinion sits.", Mains.OUT),
            Step("Old motor out; the wires are thin, hold them at the solder.", Mains.OUT, ("solder",)),
            Step("New motor in, wires as in the photo, pinion meshes without play.", Mains.OUT, ("solder",)),
        ),
        "Takes a disc when offered, ejects when asked: direction right.",
        "wires swapped: takes when it should eject",
        transfers=("Pinion, if the new motor has none",),
    ),
    Procedure(
        "replace_gears",
        Depth.DRIVE_OPEN,
        "experienced",
        ("Plastic pick", "Tweezers", "Plastic-safe grease"),
        (
            Step("Photo of the train at rest. Gears out in order onto the mat.", Mains.OUT, ("pinch",)),
            Step("New gears in, marks aligned as the drive sheet shows, slider and arms at rest.", Mains.OUT, ("pinch",)),
            Step("Run the train by hand through one whole insert and back.", Mains.OUT, ("pinch",)),
        ),
        "Ten cycles, empty and loaded.",
        "one tooth off: refuses discs as though broken",
    ),
    Procedure(
        "reset_mechanism",
        Depth.DRIVE_OPEN,
        "practised",
        ("Plastic pick", "Lamp"),
        (
            Step("Disc out by hand if one is inside: turn the train, never pull.", Mains.OUT, ("pinch",)),
            Step("Lift the one gear that the drive sheet marks; the springs run slider and arms home. Set the gear down again.", Mains.OUT, ("pinch",)),
            Step("Slider at its stop, arms folded, flap down, as in the sheet's picture.", Mains.OUT, ("pinch",)),
        ),
        "Ten cycles, empty and loaded.",
        "arms fall out, flap left up",
    ),
    switch_procedure("clean_switch_insert", "insert switch", Depth.DRIVE_OPEN),
    switch_procedure("clean_switch_home", "disc-home switch", Depth.DRIVE_OPEN),
    switch_procedure("replace_switch_insert", "insert switch", Depth.DRIVE_OPEN),
    switch_procedure("replace_switch_home", "disc-home switch", Depth.DRIVE_OPEN),
    Procedure(
        "replace_switch_board",
        Depth.DRIVE_OPEN,
        "practised",
        (SCREWDRIVER, "Plastic pick"),
        (
            Step("Photo of the arms on both switches. Old board out, flex first.", Mains.OUT, ("pinch",)),
            Step("New board in, each arm on its switch.", Mains.OUT, ("pinch",)),
            SEAT_FLEX,
        ),
        "Takes a disc ten times, ejects ten times.",
        "flex forgotten, arm beside its switch",
    ),
)
