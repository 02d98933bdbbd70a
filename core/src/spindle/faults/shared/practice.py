"""What benches do with any disc drive: pairs that travel together, signal paths, the flow chart from the spin-up on, rules of thumb."""

from __future__ import annotations

from types import MappingProxyType
from typing import Final

from spindle.faults.model import ChartNode, Claim, Link, Pair, Path

PAIRS: Final = (
    Pair("lens_dirty", "rails_dry", 3, "the same dust lies on both"),
    Pair("fuse_open", "driver_chip", 4, "a chip that shorts blows the fuse"),
    Pair("fuse_open", "supply_weak", 4, "a wrong supply hurts both"),
    Pair("fuse_open", "spindle_motor", 2.5, "a stalled motor draws what blows it"),
    Pair("spindle_motor", "driver_chip", 3, "a stalled motor cooks the chip"),
    Pair("trimmer_off", "lens_dirty", 2, "somebody turned it against dirt"),
    Pair("flex_pickup_torn", "driver_joint", 1.5, "both from flexing with heat"),
    Pair("bridge_on", "flex_pickup_loose", 4, "the same hurried attempt"),
    Pair("caps_leak", "connector_joint", 3, "the leak eats the joints beside it"),
)

SUPPLY_LINKS: Final = (
    Link("supply", "Supply", "supply_weak", ("supply_reading",), ("board_supply",)),
    Link("flex_board", "Board flex and plug", "flex_board_loose connector_joint", ("flex_board_look",), ("board_supply", "update_accepted")),
    Link("fuse", "Drive fuse", "fuse_open", ("fuse_test",), (), "fuse"),
)
"""From the console's supply to the drive board: every path begins here."""
DRIVER_LINK: Final = Link("driver", "Motor driver", "driver_joint driver_chip caps_leak", ("joint_look", "driver_heat"))

READS: Final = Path(
    "reads",
    "Sees the disc",
    (
        *SUPPLY_LINKS,
        Link("flex_pickup", "Pickup flex", "flex_pickup_loose flex_pickup_torn flex_one_over", ("flex_pickup_look", "flex_pickup_tracks"), ("coil_reading",)),
        Link("light", "Light", "diode:game pickup_dead bridge_on trimmer_off", ("light_check", "bridge_look"), ("light_check", "lens_seek")),
        Link("lens", "Lens", "lens_dirty", ("lens_look",)),
        Link("tilt", "Seat of the pickup", "pickup_tilt", ("tilt_look",)),
        Link("sled", "Sled and its switch", "rails_dry sled_worn feed_motor switch_sled", ("sled_slide", "sled_switch_test")),
    ),
)


def spins_path(told: Link, grip: Link) -> Path:
    """Return the path from supply to a disc that turns; ``told`` is what says that a disc is there, ``grip`` what holds it."""
    return Path(
        "spins", "Spins the disc", (*SUPPLY_LINKS, told, DRIVER_LINK, Link("spindle", "Spindle motor", "spindle_motor hub_slipped", ("spindle_turn",)), grip)
    )


CHART: Final = MappingProxyType(
    {
        "spin": ChartNode("spins", {"holds": "later", "twitches": "spindle", "never": "seek", "*": "flex"}),
        "later": ChartNode("later_data", {"stutters": "sled", "*": "flex"}),
        "sled": ChartNode("sled_slide", {"slack": "do_follower", "*": "do_rails"}),
        "do_rails": ChartNode(do=("clean_rails",), after="flex"),
        "do_follower": ChartNode(do=("replace_follower",), after="flex"),
        "flex": ChartNode("flex_pickup_look", {"loose": "do_flex", "creased": "do_new_flex", "*": "lens"}),
        "do_flex": ChartNode(do=("reseat_flex_pickup",), after="lens"),
        "do_new_flex": ChartNode(do=("replace_flex_pickup",), after="lens"),
        "lens": ChartNode("lens_look", {"hazy": "do_lens", "*": "press"}),
        "do_lens": ChartNode(do=("clean_lens",), after="press"),
        "press": ChartNode("press_board", {"reads": "do_driver", "*": "light"}),
        "light": ChartNode("light_check", {"light": "do_rails_then_pickup", "*": "do_pickup"}),
        "do_rails_then_pickup": ChartNode(do=("clean_lens", "replace_pickup"), after="whole"),
        "do_pickup": ChartNode(do=("replace_pickup",), after="whole"),
        "spindle": ChartNode("spindle_turn", {"bad": "do_spindle", "*": "heat"}),
        "do_spindle": ChartNode(do=("replace_spindle_motor",), after="heat"),
        "heat": ChartNode("driver_heat", {"warm": "joint", "*": "do_chip"}),
        "joint": ChartNode("press_board", {"same": "flex", "*": "do_driver"}),
        "do_driver": ChartNode(do=("reflow_driver", "replace_driver"), after="whole"),
        "do_chip": ChartNode(do=("replace_driver",), after="whole"),
        "seek": ChartNode("lens_seek", {"searches": "flex", "*": "unstarted"}),
        "powerless": ChartNode("flex_board_look", {"loose": "do_plug", "*": "fuse"}),
        "do_plug": ChartNode(do=("reseat_flex_board",), after="fuse"),
        "fuse": ChartNode("fuse_test", {"open": "do_fuse", "*": "rail"}),
        "do_fuse": ChartNode(do=("replace_fuse",), after="rail"),
        "rail": ChartNode("board_supply", {"in_band": "driven", "missing": "do_plug_again", "sags": "do_supply", "*": "driven"}),
        "do_plug_again": ChartNode(do=("reseat_flex_board",), after="driven"),
        "do_supply": ChartNode(do=("replace_supply",), after="driven"),
        "driven": ChartNode("driver_heat", {"hot": "do_chip", "*": "pressed"}),
        "pressed": ChartNode("press_board", {"same": "whole", "*": "do_driver"}),
        "whole": ChartNode(do=("replace_drive",)),
    }
)
"""From "is the disc home?" on. A family adds ``start``, its loading part, and ``unstarted`` (never told that a disc is home)."""

CLAIMS: Final = (
    Claim("cleaning_helps", "Clean the lens first: it often is all it needs.", "clean_lens", 0.25),
    Claim("cleaning_never_helps", "Cleaning the lens never helps on this model.", "clean_lens", -0.10),
    Claim("reflow_lasts", "Reflowing the driver mends it.", "reflow_driver", 0.5),
    Claim("fuse_is_all", "A blown fuse is all there is: replace it, done.", "replace_fuse", 0.6),
    Claim("pickup_is_it", "When it reads nothing, a new pickup cures it.", "replace_pickup", 0.6),
    Claim("trimmer_lasts", "Setting the trimmer brings it back.", "set_trimmer", 0.4),
    Claim("reseat_enough", "Reseating the pickup flex is often enough.", "reseat_flex_pickup", 0.3),
)
