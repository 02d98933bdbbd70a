"""What benches do with slot-load drives: signal paths, flow chart, schools, rules of thumb, faults that travel together."""

from __future__ import annotations

from types import MappingProxyType
from typing import Final

from spindle.faults.model import ChartNode, Claim, Link, Pair, Path
from spindle.faults.shared import practice as shared
from spindle.faults.shared.repairs import SCHOOLS as SHARED_SCHOOLS

_INSERT = Link("switch_insert", "Insert switch", "switch_insert", ("switch_insert_test",))
_HOME = Link("switch_home", "Disc-home switch", "switch_home", ("switch_home_test",))
_LOAD = (
    shared.DRIVER_LINK,
    Link("load_motor", "Load motor", "load_motor", ("load_motor_test",)),
    Link("gears", "Gears and slider", "gear_train out_of_step", ("gears_look",)),
    Link("way", "The way in", "foreign_object", ("object_search",)),
    Link("rollers", "Rollers", "rollers_glazed rollers_unseated", ("roller_look",)),
)

PATHS: Final = (
    Path("takes", "Takes a disc", (*shared.SUPPLY_LINKS, _INSERT, *_LOAD)),
    Path("wakes", "Wakes when a disc is offered", (*shared.SUPPLY_LINKS, _INSERT)),
    shared.spins_path(_HOME, Link("clamp", "Clamp", "clamp_weak", ("clamp_look",))),
    shared.READS,
    Path("ejects", "Ejects the disc", (*shared.SUPPLY_LINKS, *_LOAD)),
)

PAIRS: Final = (
    *shared.PAIRS,
    Pair("fuse_open", "switch_insert", 5, "liquid through the slit reaches both"),
    Pair("rollers_glazed", "lens_dirty", 2.5, "the same age and dust"),
    Pair("out_of_step", "rollers_unseated", 5, "one pull at a disc does both"),
    Pair("out_of_step", "gear_train", 3, "forced out of step, a tooth goes"),
    Pair("foreign_object", "out_of_step", 3, "stopped half way, the mains is pulled"),
)

CHART: Final = MappingProxyType(
    {
        **shared.CHART,
        "start": ChartNode("takes_disc", {"takes": "spin", "hesitates": "rollers", "motor_only": "gears", "*": "dead"}),
        "dead": ChartNode("ejects", {"yes": "insert", "*": "powerless"}),
        "insert": ChartNode("switch_insert_test", {"fails": "do_insert", "*": "gears"}),
        "do_insert": ChartNode(do=("replace_switch_insert",), after="gears"),
        "rollers": ChartNode("roller_look", {"glazed": "do_rollers", "unseated": "do_seat", "*": "gears"}),
        "do_rollers": ChartNode(do=("clean_rollers", "replace_rollers"), after="gears"),
        "do_seat": ChartNode(do=("reseat_rollers",), after="gears"),
        "gears": ChartNode("gears_look", {"out_of_step": "do_reset", "broken": "do_gears", "*": "object"}),
        "do_reset": ChartNode(do=("reset_mechanism",), after="object"),
        "do_gears": ChartNode(do=("replace_gears",), after="object"),
        "object": ChartNode("object_search", {"found": "do_object", "*": "motor"}),
        "do_object": ChartNode(do=("remove_object",), after="motor"),
        "motor": ChartNode("load_motor_test", {"weak": "do_motor", "*": "powerless"}),
        "do_motor": ChartNode(do=("replace_load_motor",), after="powerless"),
        "unstarted": ChartNode("switch_home_test", {"fails": "do_home", "*": "powerless"}),
        "do_home": ChartNode(do=("replace_switch_home",), after="powerless"),
    }
)

SCHOOLS: Final = MappingProxyType(
    {
        "clean_first": (
            "Clean first",
            ("clean_lens", "clean_rails", "clean_rollers", "reseat_flex_pickup", "reset_mechanism", "replace_pickup", "replace_drive"),
        ),
        **SHARED_SCHOOLS,
    }
)

CLAIMS: Final = (
    *shared.CLAIMS,
    Claim("roughen_enough", "Roughening the rollers is as good as new ones.", "clean_rollers", 0.6),
    Claim("reset_first", "A drive that refuses discs mostly wants a reset.", "reset_mechanism", 0.4),
)
