"""What benches do with tray-load drives: signal paths, flow chart, schools, rules of thumb, faults that travel together."""

from __future__ import annotations

from types import MappingProxyType
from typing import Final

from spindle.faults.model import ChartNode, Claim, Link, Pair, Path
from spindle.faults.shared import practice as shared
from spindle.faults.shared.repairs import SCHOOLS as SHARED_SCHOOLS

_BUTTON = Link("button", "Eject button", "button_eject", ("button_line",))
_OPEN = Link("switch_open", "Open switch", "switch_open", ("switch_open_test",))
_SHUT = Link("switch_shut", "Shut switch", "switch_shut", ("switch_shut_test",))
_LOAD = (
    shared.DRIVER_LINK,
    Link("load_motor", "Load motor", "load_motor", ("load_motor_test",)),
    Link("belt", "Belt", "belt_slack belt_off", ("belt_look",), ("belt_pull",), "belt"),
    Link("gears", "Gears and lift", "gear_tooth lift_half", ("gears_look",)),
    Link("tray", "Tray and rails", "tray_stiff tray_bent foreign_object", ("tray_slide",), ("tray_slide",)),
)

PATHS: Final = (
    Path("ejects", "Opens the tray", (*shared.SUPPLY_LINKS, _BUTTON, *_LOAD, Link("clamp", "Break-away of the clamp", "clamp_strong", ("clamp_look",)))),
    Path("takes", "Takes the tray in", (*shared.SUPPLY_LINKS, _OPEN, *_LOAD, _SHUT)),
    shared.spins_path(_SHUT, Link("clamp", "Clamp", "clamp_weak", ("clamp_look",))),
    shared.READS,
)

PAIRS: Final = (
    *shared.PAIRS,
    Pair("belt_slack", "lens_dirty", 2.5, "the same age: a worn belt and a dirty lens travel together"),
    Pair("belt_slack", "tray_stiff", 4, "stiff grease wears the belt that pulls it"),
    Pair("belt_off", "lift_half", 4, "the belt went on the way"),
    Pair("fuse_open", "switch_shut", 5, "the same spill reaches both"),
    Pair("gear_tooth", "tray_bent", 4, "one push at the tray does both"),
)

CHART: Final = MappingProxyType(
    {
        **shared.CHART,
        "start": ChartNode("tray_opens_empty", {"opens": "shuts", "dead": "dead", "*": "loaded"}),
        "shuts": ChartNode("tray_shuts", {"stays": "spin", "reopens": "shut_switch", "half": "gears", "*": "dead"}),
        "loaded": ChartNode("tray_opens_loaded", {"opens": "belt", "*": "belt"}),
        "belt": ChartNode("belt_look", {"off": "do_belt", "tired": "do_belt", "*": "gears"}),
        "do_belt": ChartNode(do=("replace_belt",), after="gears"),
        "gears": ChartNode("gears_look", {"gap": "do_gears", "half": "do_lift", "*": "slide"}),
        "do_gears": ChartNode(do=("replace_gears",), after="slide"),
        "do_lift": ChartNode(do=("set_lift",), after="slide"),
        "slide": ChartNode("tray_slide", {"sticks": "do_grease", "*": "clamp"}),
        "do_grease": ChartNode(do=("grease_tray", "replace_tray"), after="clamp"),
        "clamp": ChartNode("clamp_look", {"hard": "do_clamp", "slips": "do_clamp", "*": "motor"}),
        "do_clamp": ChartNode(do=("replace_clamp",), after="motor"),
        "motor": ChartNode("load_motor_test", {"weak": "do_motor", "*": "open_switch"}),
        "do_motor": ChartNode(do=("replace_load_motor",), after="open_switch"),
        "open_switch": ChartNode("switch_open_test", {"fails": "do_open", "*": "powerless"}),
        "do_open": ChartNode(do=("replace_switch_open",), after="powerless"),
        "shut_switch": ChartNode("switch_shut_test", {"fails": "do_shut", "*": "gears"}),
        "do_shut": ChartNode(do=("replace_switch_shut",), after="gears"),
        "dead": ChartNode("button_line", {"fails": "do_button", "*": "powerless"}),
        "do_button": ChartNode(do=("replace_button",), after="powerless"),
        "unstarted": ChartNode("switch_shut_test", {"fails": "do_shut_late", "*": "powerless"}),
        "do_shut_late": ChartNode(do=("replace_switch_shut",), after="powerless"),
    }
)

SCHOOLS: Final = MappingProxyType(
    {
        "clean_first": ("Clean first", ("clean_lens", "clean_rails", "grease_tray", "revive_belt", "reseat_flex_pickup", "replace_pickup", "replace_drive")),
        **SHARED_SCHOOLS,
    }
)

CLAIMS: Final = (
    *shared.CLAIMS,
    Claim("belt_always", "A tray that jams empty wants a belt.", "replace_belt", 0.6),
    Claim("revive_enough", "Reviving the belt is as good as a new one.", "revive_belt", 0.6),
    Claim("spacing_enough", "Spacing the clamp saves the belt.", "space_clamp", 0.5),
)
