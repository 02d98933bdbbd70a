"""What can be wrong with the way in and out of a slot-load drive."""

from __future__ import annotations

from types import MappingProxyType
from typing import Final

from spindle.faults.model import Fault, Part
from spindle.faults.shared import faults as shared

PARTS: Final = (
    Part("clamp", "Clamp", "clamp", "spins"),
    Part("switch_insert", "Insert switch", "insert switch"),
    Part("switch_home", "Disc-home switch", "home switch"),
    Part("rollers", "Rollers", "rollers", "loads"),
    Part("load", "Load motor and gears", "load drive", "loads"),
    Part("mechanism", "Mechanism position", "mechanism", "loads"),
    *shared.PARTS,
)

FAULTS: Final = (
    *shared.shared_faults({}),
    Fault("clamp_weak", "clamp", "Clamp grips weakly", 0.012, "magnets keep their force; the puck's pad wears"),
    Fault("switch_insert", "switch_insert", "Insert switch fails", 0.042, "sits behind the slit where dust and liquid come in"),
    Fault("switch_home", "switch_home", "Disc-home switch fails", 0.036, "same part deeper inside, so somewhat cleaner"),
    Fault("rollers_glazed", "rollers", "Rollers glazed", 0.055, "rubber ages whether used or not"),
    Fault("rollers_unseated", "rollers", "Roller out of its bearing", 0.018, "after a disc pulled out by hand"),
    Fault("load_motor", "load", "Load motor dead or weak", 0.020, "short runs, long life"),
    Fault("gear_train", "load", "Gear train: tooth or gear cracked", 0.026, "plastic, and forced when a disc is pushed against it"),
    Fault("out_of_step", "mechanism", "Mechanism out of step", 0.056, "mains lost or disc pulled while loaded: a common owner's story"),
    *shared.HANDLING_FAULTS,
    Fault(
        "closed_out_of_step",
        "handling",
        "Mechanism closed out of step by us",
        0.08,
        "an arm or the slider not at rest when the roof went on (trap T34)",
        opened_by="mechanism",
        like="out_of_step",
    ),
)

GROUPS: Final = MappingProxyType(
    {
        "loading": "load_motor gear_train out_of_step",
        "unstarted": "switch_home switch_insert",
        "margin": "rollers_glazed rollers_unseated",
        "grip": "clamp_weak",
    }
)
