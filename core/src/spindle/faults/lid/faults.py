"""What can be wrong with the lid, its switches, the hub and the alignment points."""

from __future__ import annotations

from types import MappingProxyType
from typing import Final

from spindle.faults.model import Fault, Part
from spindle.faults.shared import faults as shared

PARTS: Final = (
    Part("lid", "Lid and its stub", "lid"),
    Part("switch_lid", "Lid switches", "lid switch"),
    Part("hub", "Hub and its balls", "hub", "spins"),
    *shared.PARTS,
)

FAULTS: Final = (
    *shared.shared_faults(
        {
            "pickup_780": 0.170,  # older consoles: the infrared light does all the work
            "pickup_650": 0.080,
            "pickup_405": 0.060,
            "pickup_tilt": 0.062,  # plastic rails wear and let the pickup lean
            "lens_dirty": 0.135,  # an open well: dust and fingers
            "trimmer_off": 0.038,  # easy to reach, and turned by half of those who opened it
            "foreign_object": 0.010,
            "caps_leak": 0.026,
            "switch_sled": 0.020,
            "fuse_open": 0.030,
        }
    ),
    Fault("switch_lid_a", "switch_lid", "First lid switch fails", 0.052, "closed at every disc for years, and open to dust"),
    Fault("switch_lid_b", "switch_lid", "Second lid switch fails", 0.034, "the same part, less in the way of dust", "lid_two"),
    Fault("lid_actuator", "lid", "Lid’s stub worn, broken or short", 0.040, "plastic, pressed at every shut"),
    Fault("switch_board", "switch_lid", "Switch board: pad or line open", 0.018, "a cracked joint or a torn pad under the switches"),
    Fault("balls_weak", "hub", "Hub’s balls stuck or pad worn", 0.022, "the disc is pressed on by thumb, thousands of times"),
    Fault("bias_off", "trimmer", "Focus bias off its value", 0.014, "hands; it drifts a little with age", "alignment"),
    Fault("gain_off", "trimmer", "Servo gain off its value", 0.012, "hands; it drifts a little with age", "alignment"),
    Fault("motor_board", "spindle", "Spindle motor’s own board fails", 0.018, "sensors and a flex of its own, in the warmest place"),
    *shared.HANDLING_FAULTS,
)

GROUPS: Final = MappingProxyType({"loading": "", "unstarted": "switch_lid_a switch_lid_b lid_actuator switch_board", "margin": "", "grip": "balls_weak"})
