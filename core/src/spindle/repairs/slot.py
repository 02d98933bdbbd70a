"""How each repair of a slot-load drive is done."""

from __future__ import annotations

from types import MappingProxyType
from typing import Final

from spindle.faults.model import Depth, Mains
from spindle.repairs.procedure import Procedure, Step

_SCREWDRIVER = "Screwdriver of the sheet's size"
_SHORT_TEST = Step("Mains out: measure from the fed side of the fuse to ground. A short is found before power returns.", Mains.OUT, ("short", "charge"))
_SEAT_FLEX = Step("Flexes back in: insertion mark hidden at both ends, on the right track, bar shut.", Mains.OUT, ("static",))


def _switch(name: str, where: str, *, is_new: bool) -> Procedure:
    clean = (
        Step(f"Drop of contact cleaner into the {name}, work it twenty times, wipe.", Mains.OUT, ("solvent",)),
        Step("Let it dry for five minutes, parts apart.", Mains.OUT, ("solvent",)),
    )
    swap = (
        Step(f"Photo of the {name}: which way round, which pads.", Mains.OUT),
        Step("Heat pad by pad, lift without force: a torn pad is wired to the next point of the same net.", Mains.OUT, ("solder",)),
        Step("Solder the new one flat, let it cool.", Mains.OUT, ("solder",)),
    )
    prove = Step("Resistance at its pads: open at rest, under one ohm pressed, five times.", Mains.OUT)
    return Procedure(
        f"{'replace' if is_new else 'clean'}_{where}",
        Depth.DRIVE_OPEN,
        "soldering" if is_new else "first week",
        ("Iron, fine tip", "Fume extractor", "Meter") if is_new else ("Contact cleaner", "Meter"),
        (*(swap if is_new else clean), prove),
        "Continuity open and pressed, then the function.",
        "torn pad, melted body" if is_new else "still wet, or dirty again within weeks",
    )


_ALL = (
    Procedure(
        "clean_lens",
        Depth.DRIVE_OPEN,
        "first week",
        ("Lint-free swab", "Pure alcohol", "Lamp"),
        (
            Step("Blow dust away first. One drop on the swab, not on the lens; from the middle outwards, without pressure.", Mains.OUT, ("solvent", "static")),
            Step("Look along the lens under the lamp: no veil, no fibre, sitting level on its wires.", Mains.OUT),
            Step("Let it dry for five minutes before power.", Mains.OUT, ("solvent",)),
        ),
        "The baseline again, every class.",
        "wet lens, lens pulled off its wires; a film inside the pickup stays",
        guarantee_days=60,
    ),
    Procedure(
        "reseat_flex_pickup",
        Depth.DRIVE_OPEN,
        "first week",
        ("Plastic pick", "Lamp"),
        (
            Step("Photo of both ends. Lift the bar, ease the flex out straight.", Mains.OUT, ("static",)),
            Step("Look at guide and contacts: a broken guide lets it sit one track over.", Mains.OUT, ("static",)),
            _SEAT_FLEX,
        ),
        "Mark hidden at both ends, then every class.",
        "bar left open, one track over",
    ),
    Procedure(
        "replace_flex_pickup",
        Depth.DRIVE_OPEN,
        "practised",
        ("Plastic pick", "Meter", "Lamp"),
        (
            Step("Compare new with old: number of tracks, pitch, side of the contacts, length.", Mains.OUT),
            Step("Old one out straight. A soldered end is not pulled: stop, and ask for iron work.", Mains.OUT, ("static",)),
            Step("New one folded at the old one's folds, no sharper.", Mains.OUT, ("static",)),
            _SEAT_FLEX,
            Step("Track by track from end to end with the meter.", Mains.OUT),
        ),
        "Every class, and later data at both ends of the sled.",
        "fold too sharp, one track over",
    ),
    Procedure(
        "replace_pickup",
        Depth.DRIVE_OPEN,
        "practised",
        ("Wrist strap and mat", _SCREWDRIVER, "Tweezers", "Iron, fine tip", "Meter"),
        (
            Step(
                "Strap on. Trimmer of the old pickup read and written down before anything is loosened; the new one read as it comes.", Mains.OUT, ("static",)
            ),
            Step("Photo of rods, clips and follower. Flex out straight.", Mains.OUT, ("static",)),
            Step("Rods out, each to its place: lengths differ. Old pickup out.", Mains.OUT, ("static",)),
            Step("Move follower, spring and its tiny screw to the new pickup, the same way round.", Mains.OUT, ("static",)),
            Step("New pickup in, rods and clips back the way they came, sled runs evenly by the worm.", Mains.OUT, ("static",)),
            _SEAT_FLEX,
            Step("Clear the new pickup's shorting bridge now, compare with the old one, prove it open with the meter.", Mains.OUT, ("solder", "static")),
        ),
        "Every class, bridges open, trimmer read again after the rebuild.",
        "follower forgotten, clip reversed, bridge still on, static",
        transfers=("Follower with spring and screw", "Rods, if the new part has none"),
    ),
    Procedure(
        "replace_deck",
        Depth.DRIVE_OPEN,
        "practised",
        ("Wrist strap and mat", _SCREWDRIVER, "Plastic pick"),
        (
            Step("Photo of how the old deck hangs in its dampers and where each flex runs.", Mains.OUT, ("static",)),
            Step("Old deck out: flexes first, then the dampers.", Mains.OUT, ("static", "pinch")),
            Step("New deck in. Dampers fully home, no flex pinched beneath.", Mains.OUT, ("static", "pinch")),
            _SEAT_FLEX,
            Step("Bridge on the new pickup cleared and proven open, if it came with one.", Mains.OUT, ("solder", "static")),
        ),
        "Every class, eject loaded and empty.",
        "flex pinched, damper not home",
        transfers=("Dampers, if the new deck has none", "Clamp side stays with the drive"),
    ),
    Procedure(
        "set_trimmer",
        Depth.DRIVE_OPEN,
        "experienced",
        ("Meter", "Ceramic trimmer tool", "Test discs"),
        (
            Step("Read it as found, mains out, and write it down: it goes back there if nothing changes.", Mains.OUT, ("static",)),
            Step("Turn a hair's breadth, read again: learn direction and step from this unit, never from a twin.", Mains.OUT, ("static",)),
            Step("Toward the sheet's value in halving steps. Try the disc at each stop, from the side.", Mains.LIVE, ("laser", "spinning", "mains")),
            Step("Stop at the first value that reads three times running. Never beyond the sheet's strong-drive limit.", Mains.LIVE, ("laser", "spinning")),
        ),
        "Repeatable reads at the value, and the same value after the rebuild.",
        "wrong way, beyond the limit, dirty wiper",
        guarantee_days=30,
        alters_unit="Raising the drive current of a worn pickup is a stopgap: it costs the pickup's life.",
    ),
    Procedure(
        "replace_spindle_motor",
        Depth.DECK_OUT,
        "experienced",
        (_SCREWDRIVER, "Height gauge or the sheet's shim", "Iron, if soldered"),
        (
            Step("Measure the hub's height over the deck before it comes off.", Mains.OUT),
            Step("Motor off: flex or solder noted by colour and order.", Mains.OUT, ("solder",)),
            Step("New motor on, hub at the same height, screws crosswise.", Mains.OUT),
            _SEAT_FLEX,
        ),
        "Spins up once and holds, right direction, current normal.",
        "hub height off, wires swapped",
        transfers=("Hub or turntable, if the new motor has none",),
    ),
    Procedure(
        "clean_rails",
        Depth.DRIVE_OPEN,
        "first week",
        ("Lint-free swabs", "Cleaner", "Plastic-safe grease"),
        (
            Step("Old grease off rails, worm and rack. Nothing near the lens.", Mains.OUT, ("solvent", "static")),
            Step("A film of plastic-safe grease, sled run from end to end three times, the surplus wiped off.", Mains.OUT),
            Step("Let cleaner dry for five minutes before power.", Mains.OUT, ("solvent",)),
        ),
        "Later data loads.",
        "grease on the lens, wrong grease on plastic",
    ),
    Procedure(
        "replace_follower",
        Depth.DECK_OUT,
        "practised",
        (_SCREWDRIVER, "Tweezers"),
        (
            Step("Photo of follower, spring and worm. Feed motor's wires by colour.", Mains.OUT, ("static",)),
            Step("New follower on the old spring, teeth in the worm, no play and no force.", Mains.OUT, ("static",)),
            Step("New feed motor in, wires as in the photo.", Mains.OUT, ("solder",)),
        ),
        "Sled runs from end to end, later data loads.",
        "spring lost, wires swapped",
        transfers=("Spring and its screw",),
    ),
    Procedure(
        "replace_clamp",
        Depth.DRIVE_OPEN,
        "first week",
        (_SCREWDRIVER,),
        (
            Step("Roof this way up. Old puck out of its ring, note which side faces the disc.", Mains.OUT, ("pinch",)),
            Step("Metal chips off the magnet with tape. New puck in, turns freely.", Mains.OUT),
        ),
        "No slip by hand, then later data.",
        "puck upside down",
    ),
    _switch("insert switch", "switch_insert", is_new=False),
    _switch("insert switch", "switch_insert", is_new=True),
    _switch("disc-home switch", "switch_home", is_new=False),
    _switch("disc-home switch", "switch_home", is_new=True),
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
        (_SCREWDRIVER, "Plastic pick"),
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
        (_SCREWDRIVER, "Iron, fine tip"),
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
    Procedure(
        "remove_object",
        Depth.DRIVE_OPEN,
        "first week",
        ("Tweezers, not magnetic", "Thin card", "Lamp"),
        (
            Step("Photo of where it lies. Out without levering on arms or lens.", Mains.OUT, ("pinch", "static")),
            Step("Search on: both magnets, under the slider, behind the rollers. Expected against found, written down.", Mains.OUT, ("loose_metal",)),
            Step("Tilt both ways: nothing rattles.", Mains.OUT, ("loose_metal",)),
        ),
        "Expected against found, then ten inserts.",
        "a second one at the magnets",
    ),
    Procedure(
        "reflow_driver",
        Depth.DRIVE_OPEN,
        "experienced",
        ("Iron, fine tip", "Flux", "Fume extractor"),
        (
            Step("If this chip or its board is the key carrier, say so to the owner before heat is applied: a burnt key ends the pairing.", Mains.OUT),
            Step("Flux, then each joint in turn, short heat. No bridge under the glass.", Mains.OUT, ("solder",)),
            Step("Flux off, board cool and dry.", Mains.OUT, ("solvent",)),
            _SHORT_TEST,
        ),
        "Cold and warm, and with the board pressed.",
        "worse after reflow: then the chip was the cause",
        guarantee_days=60,
    ),
    Procedure(
        "replace_driver",
        Depth.DRIVE_OPEN,
        "experienced",
        ("Hot air", "Iron, fine tip", "Flux", "Fume extractor", "Shield tape"),
        (
            Step("Is this chip the key carrier? Then stop: another one ends the pairing. Tell the owner before heat is applied.", Mains.OUT),
            Step("Shield the neighbours. Old chip off without force, pads cleaned.", Mains.OUT, ("solder",)),
            Step("New chip: marking compared, first pin aligned. Solder, no bridge under the glass.", Mains.OUT, ("solder",)),
            _SHORT_TEST,
        ),
        "Cold and warm, and with the board pressed.",
        "pad lifted, key chip burnt",
    ),
    Procedure(
        "replace_fuse",
        Depth.COVER_OFF,
        "soldering",
        ("Meter", "Iron, fine tip", "Fume extractor"),
        (
            Step("Why did it blow? Owner's supply against the nominal one, insects, liquid: written down.", Mains.OUT),
            _SHORT_TEST,
            Step(
                "New fuse with the sheet's rating and speed. Write down what is printed on it. Never a wire, never a larger one.",
                Mains.OUT,
                ("solder",),
                reads_fuse=True,
            ),
            Step("Resistance across it under one ohm, body not touching its neighbours.", Mains.OUT),
        ),
        "Feed, eject and wake, then nothing on the board too hot to touch after two minutes.",
        "blows again: look for the cause, not for a larger fuse",
        guarantee_days=60,
    ),
    Procedure(
        "reseat_flex_board",
        Depth.COVER_OFF,
        "first week",
        ("Plastic pick", "Lamp"),
        (
            Step("Press the tab, or lift the bar, as the drive sheet says; never pull a soldered tail.", Mains.OUT, ("mains", "charge")),
            Step("In again straight, mark hidden, latch shut; power plug by its housing.", Mains.OUT, ("mains",)),
        ),
        "Wake, take, eject.",
        "guide broken: one track over puts a supply on a signal line",
    ),
    Procedure(
        "refit_own_board",
        Depth.DRIVE_OPEN,
        "practised",
        ("Wrist strap and mat", _SCREWDRIVER, "Plastic pick"),
        (
            Step("The owner's own board, its key label compared with the console's.", Mains.OUT, ("static",)),
            Step("Foreign board out, tagged, kept apart.", Mains.OUT, ("static",)),
            Step("Own board in, soldered wires by colour and order.", Mains.OUT, ("solder", "static")),
            _SEAT_FLEX,
        ),
        "The console's own disc is recognised.",
        "wire order, flex one track over",
    ),
    Procedure(
        "replace_supply",
        Depth.COVER_OFF,
        "practised",
        (_SCREWDRIVER, "Meter"),
        (
            Step("As a sealed unit only, by somebody your local rules allow. Wait for the charge to go.", Mains.OUT, ("mains", "charge")),
            Step("Compare printed voltages and plug with the drive sheet. In, all screws and its earth.", Mains.OUT, ("mains",)),
            Step("Output at the sheet's test point, in band, before the drive is plugged in.", Mains.LIVE, ("mains",)),
        ),
        "Supply in band while the disc starts.",
        "earth screw forgotten",
    ),
    Procedure(
        "replace_drive",
        Depth.DRIVE_OPEN,
        "practised",
        ("Wrist strap and mat", _SCREWDRIVER, "Plastic pick"),
        (
            Step(
                "Variant and label of the new drive compared with the sheet. Where the console is paired, the owner's board moves over.", Mains.OUT, ("static",)
            ),
            Step("Owner's board out of the old drive, onto the mat under its tag.", Mains.OUT, ("static",)),
            Step("New drive's own board out, tagged, kept for testing only.", Mains.OUT, ("static",)),
            Step("Owner's board into the new drive, soldered wires by colour and order.", Mains.OUT, ("static", "solder")),
            _SEAT_FLEX,
        ),
        "Every class, and the console's own disc is recognised.",
        "board left in the old drive",
        transfers=("Owner's drive board, where it is paired", "Brackets and dampers"),
    ),
)

PROCEDURES: Final = MappingProxyType({p.repair: p for p in _ALL})
