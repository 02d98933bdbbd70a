"""What can be wrong with any disc drive, and how often.

Priors are parts per thousand of faulty units that reach our invented counter, for a slot-load drive; a loader family
changes the ones that differ. The reasons are mechanical (what wears, what is touched, what blows); the sums over a
sub-assembly matter more than the split inside it.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import Final

from spindle.faults.model import LEAK, Fault, Part

PARTS: Final = (
    Part("pickup", "Pickup", "pickup", "reads"),
    Part("lens", "Lens", "lens", "reads"),
    Part("trimmer", "Trimmer", "trimmer", "reads"),
    Part("flex_pickup", "Pickup flex", "pickup flex", "reads"),
    Part("spindle", "Spindle motor", "spindle", "spins"),
    Part("sled", "Sled and rails", "sled", "seeks"),
    Part("switch_sled", "Sled home switch", "sled switch", "seeks"),
    Part("object", "Foreign object", "object", "loads"),
    Part("driver", "Motor driver", "driver", "spins"),
    Part("fuse", "Fuse", "fuse", "powers"),
    Part("flex_board", "Board flex", "board flex", "powers"),
    Part("board", "Drive board", "board", "powers"),
    Part("supply", "Supply", "supply", "powers"),
    Part("unlisted", "Not on the list", "off the list"),
    Part("handling", "Our own last step", "last step"),
)

FAULTS: Final = (
    Fault("pickup_405", "pickup", "Pickup: short-wave diode weak", 0.165, "the hardest driven diode: it ages first, alone", "nm405"),
    Fault("pickup_650", "pickup", "Pickup: red diode weak", 0.035, "driven gently and used less on consoles with two lights", "nm650"),
    Fault("pickup_780", "pickup", "Pickup: infrared diode weak", 0.030, "music and data discs only; seldom the complaint", "nm780"),
    Fault("pickup_dead", "pickup", "Pickup: coils or sensor dead", 0.035, "a fall or static; takes every class with it"),
    Fault("pickup_tilt", "pickup", "Pickup sits tilted", 0.010, "a worn rail end or a rod not home; plastic rails far more"),
    Fault("bridge_on", "pickup", "Shorting bridge left on the pickup", 0.005, "a new pickup from an earlier attempt, fitted without its last step"),
    Fault("lens_dirty", "lens", "Lens dirty or hazy", 0.145, "dust and smoke film: every unit gets it, few stop for it alone"),
    Fault("trimmer_off", "trimmer", "Trimmer off its value", 0.012, "hands: trimmers hardly drift by themselves", "trimmer"),
    Fault("flex_pickup_loose", "flex_pickup", "Pickup flex half seated", 0.060, "bar not shut after an earlier look, or walked out by heat"),
    Fault("flex_pickup_torn", "flex_pickup", "Pickup flex torn at the fold", 0.022, "folds at each seek; rarer than a bad seat"),
    Fault("flex_one_over", "flex_pickup", "Pickup flex seated one track over", 0.006, "needs a broken guide and a hand: rare, and dangerous"),
    Fault("spindle_motor", "spindle", "Spindle motor worn or dead", 0.040, "bearing and winding age with hours"),
    Fault("hub_slipped", "spindle", "Hub loose or at a wrong height", 0.009, "a pressed hub walks when a disc is forced on or off"),
    Fault("rails_dry", "sled", "Rails or worm dry or dirty", 0.038, "grease stiffens over years; shows at later data first"),
    Fault("sled_worn", "sled", "Follower or rack worn", 0.020, "follower teeth are the soft partner of the worm"),
    Fault("feed_motor", "sled", "Feed motor weak or dead", 0.012, "short runs, small load: half as often as the follower"),
    Fault("switch_sled", "switch_sled", "Sled home switch fails", 0.014, "one more small switch, touched at every start"),
    Fault("foreign_object", "object", "Foreign object inside", 0.048, "coins and cards find any opening; children at home double it"),
    Fault("driver_joint", "driver", "Motor driver: cracked joint", 0.034, "the warmest chip on the drive board, heated and cooled daily"),
    Fault("driver_chip", "driver", "Motor driver: chip fails", 0.033, "as often as its joints: hot, and hurt by stalled motors"),
    Fault("connector_joint", "board", "Connector joint cracked", 0.012, "pulled at every opening; a third of the driver's joints"),
    Fault("caps_leak", "board", "Capacitors leak or dry", 0.014, "electrolytics age on the shelf too; only older boards bear them", "electrolytics"),
    Fault("wrong_board", "board", "Foreign board fitted", 0.010, "an earlier attempt swapped a paired board", "paired"),
    Fault("fuse_open", "fuse", "Drive fuse open", 0.044, "wrong supply, a short that has gone, or age", "fuse"),
    Fault("flex_board_loose", "flex_board", "Board flex or plug loose", 0.028, "press-tab flex left half in after an earlier look"),
    Fault("supply_weak", "supply", "Supply sags", 0.016, "an owner's replacement supply, or an aged internal one"),
    Fault(LEAK, "unlisted", "Not on the list", 0.040, "two faults at once, main board, disc, software: kept at 3 to 5 percent on purpose"),
)

HANDLING_FAULTS: Final = (
    Fault(
        "left_out",
        "handling",
        "A flex or latch left out in our last step",
        0.09,
        "the commonest slip of all benches: one step in eleven",
        opened_by="opened",
        like="flex_board_loose flex_pickup_loose",
    ),
    Fault(
        "hurt_here",
        "handling",
        "Something hurt in our last step",
        0.12,
        "a fold, a spark, a thin wire",
        opened_by="opened",
        like="flex_pickup_torn pickup_dead",
    ),
    Fault("still_wet", "handling", "Cleaner from our last step not dry", 0.07, "drying is what gets skipped", opened_by="wet", like="lens_dirty"),
    Fault(
        "fitted_bad",
        "handling",
        "A part that we fitted is bad",
        1.0,
        "times the chance that such a part is bad: new does not mean good (trap T25)",
        opened_by="item",
    ),
)
"""Their priors are chances that one step of ours brings them, as honest benches admit (invented); :mod:`spindle.diagnosis.handling` opens them."""


def shared_faults(priors: Mapping[str, float]) -> tuple[Fault, ...]:
    """Return the shared faults, with a family's own priors for those that differ there."""
    return tuple(replace(f, prior=priors.get(f.id, f.prior)) for f in FAULTS)
