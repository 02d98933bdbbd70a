"""How tray, belt, lift and clamp are repaired."""

from __future__ import annotations

from typing import Final

from spindle.faults.model import Depth, Mains
from spindle.repairs.procedure import Procedure, Step
from spindle.repairs.shared import SCREWDRIVER, switch_procedure

PROCEDURES: Final = (
    Procedure(
        "replace_belt",
        Depth.DRIVE_OPEN,
        "first week",
        ("Tweezers, blunt", "Lint-free cloth"),
        (
            Step("Old belt off; grooves wiped: no oil on rubber.", Mains.OUT, ("pinch",)),
            Step("New belt by the sheet’s size, in both grooves, not twisted.", Mains.OUT),
            Step("Push the lift home, run the train by hand once.", Mains.OUT, ("pinch",)),
        ),
        "Opens empty and loaded, ten times.",
        "twisted, wrong size, lift not home",
    ),
    Procedure(
        "revive_belt",
        Depth.DRIVE_OPEN,
        "first week",
        ("Rubber cleaner", "Lint-free cloth"),
        (
            Step("Belt off, wiped with rubber cleaner until it is dull, grooves as well.", Mains.OUT, ("solvent",)),
            Step("Let both dry for five minutes.", Mains.OUT, ("solvent",)),
            Step("Back in its grooves, lift pushed home.", Mains.OUT, ("pinch",)),
        ),
        "Opens empty ten times.",
        "oval as before",
        guarantee_days=30,
        alters_unit="A revived belt is a stopgap: rubber that has aged slips again.",
    ),
    Procedure(
        "reseat_belt",
        Depth.DRIVE_OPEN,
        "first week",
        ("Tweezers, blunt",),
        (
            Step("Why did it come off? Oil, a bent pulley, a stretched belt: written down.", Mains.OUT),
            Step("Back in both grooves, not twisted; lift pushed home.", Mains.OUT, ("pinch",)),
        ),
        "Opens empty and loaded, ten times.",
        "off again within weeks",
        guarantee_days=30,
    ),
    Procedure(
        "space_clamp",
        Depth.DRIVE_OPEN,
        "practised",
        ("Spacer stock", "Glue for plastic"),
        (
            Step("Thinnest spacer first, under the magnet, flat and glued.", Mains.OUT, ("solvent", "pinch")),
            Step("Disc by hand: a sharp turn, no slip. If it slips, the spacer is too thick.", Mains.OUT),
        ),
        "Opens empty ten times, later data at speed.",
        "slip at speed",
        guarantee_days=30,
        alters_unit="Spacing the clamp holds the disc less: a stopgap with a side effect.",
    ),
    Procedure(
        "replace_clamp",
        Depth.DRIVE_OPEN,
        "first week",
        (SCREWDRIVER,),
        (
            Step("Old puck out of the bridge, note which side faces the disc.", Mains.OUT, ("pinch",)),
            Step("Metal chips off the magnet with tape. New puck in, turns freely.", Mains.OUT),
        ),
        "No slip by hand, then later data.",
        "puck upside down, spacer left out",
    ),
    Procedure(
        "grease_tray",
        Depth.DRIVE_OPEN,
        "first week",
        ("Cleaner", "Plastic-safe grease", "Lint-free cloth"),
        (
            Step("Train lifted, tray out. Old grease off both rails; nothing near belt or lens.", Mains.OUT, ("solvent", "pinch")),
            Step("Let it dry, then a film of plastic-safe grease.", Mains.OUT, ("solvent",)),
            Step("Tray slides by its own weight.", Mains.OUT),
        ),
        "Opens empty and loaded, ten times.",
        "grease on the belt",
    ),
    Procedure(
        "refit_tray",
        Depth.DRIVE_OPEN,
        "first week",
        (SCREWDRIVER,),
        (
            Step("Tray out to its stop, both rails in their guides, evenly.", Mains.OUT, ("pinch",)),
            Step("Teeth to the marks of the sheet, tray by hand from end to end.", Mains.OUT, ("pinch",)),
        ),
        "Opens and shuts, ten times.",
        "one tooth aslant",
    ),
    Procedure(
        "replace_tray",
        Depth.DRIVE_OPEN,
        "practised",
        (SCREWDRIVER,),
        (
            Step("Old tray out past its stop, front unclipped.", Mains.OUT, ("pinch",)),
            Step("New tray in, teeth to the marks, lift pushed home.", Mains.OUT, ("pinch",)),
        ),
        "Opens and shuts, ten times.",
        "one tooth off",
        transfers=("Front cover",),
    ),
    Procedure(
        "set_lift",
        Depth.DRIVE_OPEN,
        "practised",
        ("Plastic pick", "Lamp"),
        (
            Step("Disc out by hand if one is inside: turn the train, never pull.", Mains.OUT, ("pinch",)),
            Step("Lever of the lift home, as in the sheet’s picture; teeth to the marks.", Mains.OUT, ("pinch",)),
            Step("Train by hand from shut to open and back: no stop.", Mains.OUT, ("pinch",)),
        ),
        "Ten cycles, empty and loaded.",
        "lever one tooth off: the tray will not lock",
    ),
    Procedure(
        "replace_gears",
        Depth.DRIVE_OPEN,
        "experienced",
        ("Plastic pick", "Tweezers", "Plastic-safe grease"),
        (
            Step("Photo of the train at rest. Gears out in order onto the mat.", Mains.OUT, ("pinch",)),
            Step("New gears in, marks aligned as the drive sheet shows, lift at rest.", Mains.OUT, ("pinch",)),
            Step("Run the train by hand through one whole way out and back.", Mains.OUT, ("pinch",)),
        ),
        "Ten cycles, empty and loaded.",
        "one tooth off: the tray will not lock",
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
        "Tray goes out when asked, in when asked: direction right.",
        "wires swapped: shuts when it should open",
        transfers=("Pinion, if the new motor has none",),
    ),
    switch_procedure("clean_switch_open", "open switch", Depth.DRIVE_OPEN),
    switch_procedure("clean_switch_shut", "shut switch", Depth.DRIVE_OPEN),
    switch_procedure("replace_switch_open", "open switch", Depth.DRIVE_OPEN),
    switch_procedure("replace_switch_shut", "shut switch", Depth.DRIVE_OPEN),
    Procedure(
        "replace_button",
        Depth.COVER_OFF,
        "soldering",
        ("Iron, fine tip", "Fume extractor", "Meter"),
        (
            Step("Measure the line first: button or cable?", Mains.OUT),
            Step("Old one out pad by pad, new one flat.", Mains.OUT, ("solder",)),
            Step("Closed when pressed, open at rest, at the board’s end.", Mains.OUT),
        ),
        "Opens from the button, ten times.",
        "pad torn",
    ),
)
