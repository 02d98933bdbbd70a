"""What benches do with lid-load drives: signal paths, flow chart, schools, rules of thumb, faults that travel together."""

from __future__ import annotations

from types import MappingProxyType
from typing import Final

from spindle.faults.model import ChartNode, Claim, Link, Pair, Path
from spindle.faults.shared import practice as shared
from spindle.faults.shared.repairs import SCHOOLS as SHARED_SCHOOLS

_LID = Link("lid", "Lid’s stub", "lid_actuator", ("actuator_look",), ("lid_starts",))
_SWITCHES = Link("switch_lid", "Lid switches", "switch_lid_a switch_lid_b", ("switch_lid_a_test", "switch_lid_b_test"))
_LINE = Link("switch_line", "Switch board and line", "switch_board", ("switch_line",), ("switch_line",))
_TOLD = Link("told", "Lid switches and stub", "lid_actuator switch_lid_a switch_lid_b switch_board", ("switch_line",), ("lid_starts",))

PATHS: Final = (
    Path("takes", "Starts when the lid is shut", (_LID, _SWITCHES, _LINE, *shared.SUPPLY_LINKS, shared.DRIVER_LINK)),
    shared.spins_path(_TOLD, Link("hub", "Hub and motor board", "balls_weak motor_board", ("grip_look", "motor_board_test"))),
    shared.READS,
)

PAIRS: Final = (
    *shared.PAIRS,
    Pair("fuse_open", "switch_lid_a", 5, "one spill into the well reaches both"),
    Pair("bias_off", "gain_off", 12, "who turns one turns both"),
    Pair("bias_off", "trimmer_off", 10, "who turns one turns all"),
    Pair("pickup_tilt", "sled_worn", 4, "the same plastic wears"),
    Pair("lid_actuator", "switch_lid_a", 3, "a lid that was leaned on"),
)

CHART: Final = MappingProxyType(
    {
        **shared.CHART,
        "start": ChartNode("lid_starts", {"starts": "grip", "*": "stub"}),
        "grip": ChartNode("disc_grip", {"loose": "do_grip", "*": "spin"}),
        "do_grip": ChartNode(do=("free_balls", "replace_hub"), after="spin"),
        "stub": ChartNode("actuator_look", {"short": "do_stub", "*": "switch_a"}),
        "do_stub": ChartNode(do=("replace_lid",), after="switch_a"),
        "switch_a": ChartNode("switch_lid_a_test", {"fails": "do_a", "*": "switch_b"}),
        "do_a": ChartNode(do=("replace_switch_lid_a",), after="switch_b"),
        "switch_b": ChartNode("switch_lid_b_test", {"fails": "do_b", "*": "line"}),
        "do_b": ChartNode(do=("replace_switch_lid_b",), after="line"),
        "line": ChartNode("switch_line", {"open": "do_line", "*": "powerless"}),
        "do_line": ChartNode(do=("replace_switch_board",), after="powerless"),
        "unstarted": ChartNode("switch_line", {"open": "do_line", "*": "powerless"}),
        "light": ChartNode("level_reading", {"in_band": "tilt", "*": "trim"}),
        "trim": ChartNode("trimmer_mark", {"turned": "do_trim", "*": "do_pickup"}),
        "do_trim": ChartNode(do=("set_trimmer",), after="do_pickup"),
        "tilt": ChartNode("tilt_look", {"tilted": "do_tilt", "*": "bias"}),
        "do_tilt": ChartNode(do=("fit_shim",), after="do_pickup"),
        "bias": ChartNode("bias_reading", {"out_of_band": "do_bias", "*": "do_rails_then_pickup"}),
        "do_bias": ChartNode(do=("set_bias", "set_gain"), after="do_pickup"),
    }
)

SCHOOLS: Final = MappingProxyType(
    {
        "clean_first": (
            "Clean first",
            ("clean_lens", "clean_rails", "clean_switch_lid_a", "free_balls", "reseat_flex_pickup", "replace_pickup", "replace_drive"),
        ),
        **SHARED_SCHOOLS,
    }
)

CLAIMS: Final = (
    *shared.CLAIMS,
    Claim("shim_lasts", "A shim under the rail cures later-data trouble.", "fit_shim", 0.5),
    Claim("switch_clean_enough", "Cleaning a lid switch is enough.", "clean_switch_lid_a", 0.5),
)
