"""What can be wrong with the tray, its belt or gears, its lift and its clamp."""

from __future__ import annotations

from types import MappingProxyType
from typing import Final

from spindle.faults.model import Fault, Part
from spindle.faults.shared import faults as shared

PARTS: Final = (
    Part("clamp", "Clamp and magnet", "clamp", "spins"),
    Part("belt", "Belt", "belt", "loads"),
    Part("load", "Load motor and gears", "load drive", "loads"),
    Part("tray", "Tray and its rails", "tray", "loads"),
    Part("lift", "Lift", "lift", "loads"),
    Part("switch_open", "Open switch", "open switch"),
    Part("switch_shut", "Shut switch", "shut switch"),
    Part("button", "Eject button", "button"),
    *shared.PARTS,
)

FAULTS: Final = (
    *shared.shared_faults(
        {
            "pickup_650": 0.105,  # most tray drives of our counter read with the red light all day
            "pickup_405": 0.090,
            "lens_dirty": 0.150,
            "foreign_object": 0.016,  # the tray leaves less of an opening than a slit
            "caps_leak": 0.022,  # older boards
            "trimmer_off": 0.020,  # trimmers are easier to reach, and have been turned more
        }
    ),
    Fault("clamp_weak", "clamp", "Clamp grips weakly", 0.014, "the puck's pad wears; its magnet chips when it snaps home"),
    Fault("clamp_strong", "clamp", "Clamp holds the hub too hard", 0.010, "a spacer lost: magnet and hub sit closer than they were made"),
    Fault("belt_slack", "belt", "Belt slack, glazed or out of round", 0.125, "rubber rests for years in one shape: the commonest tray fault there is", "belt"),
    Fault("belt_off", "belt", "Belt off its pulley or torn", 0.022, "the end of the same story, or oil on it", "belt"),
    Fault("gear_tooth", "load", "Gear: tooth broken or boss cracked", 0.030, "plastic, and forced when the tray is pushed by hand"),
    Fault("load_motor", "load", "Load motor dead or weak", 0.020, "short runs, long life"),
    Fault("tray_stiff", "tray", "Tray rails dry, or grease gone stiff", 0.042, "grease turns to wax; the belt has to pull it"),
    Fault("tray_bent", "tray", "Tray bent or off its rail", 0.016, "leaned on while it stood open"),
    Fault("lift_half", "lift", "Lift left half way", 0.030, "mains lost on the way, or belt work without pushing it home"),
    Fault("switch_open", "switch_open", "Open switch fails", 0.026, "dust comes in by the flap"),
    Fault("switch_shut", "switch_shut", "Shut switch fails", 0.032, "the same part; a shut tray that nobody tells of"),
    Fault("button_eject", "button", "Eject button or its line fails", 0.014, "pressed at every disc"),
    *shared.HANDLING_FAULTS,
    Fault(
        "closed_out_of_step",
        "handling",
        "Lift or gears closed out of step by us",
        0.08,
        "after belt work the lift was not pushed home (trap T34)",
        opened_by="mechanism",
        like="lift_half",
    ),
)

GROUPS: Final = MappingProxyType(
    {
        "loading": "load_motor gear_tooth lift_half tray_bent belt_off",
        "unstarted": "switch_shut",
        "margin": "belt_slack tray_stiff switch_open button_eject clamp_strong",
        "grip": "clamp_weak",
    }
)
