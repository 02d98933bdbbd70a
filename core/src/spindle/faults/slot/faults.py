"""What can be wrong with a slot-load drive, and how often.

Priors are parts per thousand of faulty slot-load units that reach our invented counter. The reasons are mechanical (what
wears, what is touched, what blows); the sums over a sub-assembly matter more than the split inside it.
"""

from __future__ import annotations

from typing import Final

from spindle.faults.model import LEAK, Fault, Part

PARTS: Final = (
    Part("pickup", "Pickup", "pickup"),
    Part("lens", "Lens", "lens"),
    Part("trimmer", "Trimmer", "trimmer"),
    Part("flex_pickup", "Pickup flex", "pickup flex"),
    Part("spindle", "Spindle motor", "spindle"),
    Part("sled", "Sled and rails", "sled"),
    Part("clamp", "Clamp", "clamp"),
    Part("switch_insert", "Insert switch", "insert switch"),
    Part("switch_home", "Disc-home switch", "home switch"),
    Part("rollers", "Rollers", "rollers"),
    Part("load", "Load motor and gears", "load drive"),
    Part("mechanism", "Mechanism position", "mechanism"),
    Part("object", "Foreign object", "object"),
    Part("driver", "Motor driver", "driver"),
    Part("fuse", "Fuse", "fuse"),
    Part("flex_board", "Board flex", "board flex"),
    Part("board", "Drive board", "board"),
    Part("supply", "Supply", "supply"),
    Part("unlisted", "Not on the list", "off the list"),
)

FAULTS: Final = (
    Fault("pickup_405", "pickup", "Pickup: short-wave diode weak", 0.165, "the hardest driven diode: it ages first, alone", "nm405"),
    Fault("pickup_650", "pickup", "Pickup: red diode weak", 0.035, "driven gently and used less on consoles with two lights", "nm650"),
    Fault("pickup_780", "pickup", "Pickup: infrared diode weak", 0.030, "music and data discs only; seldom the complaint", "nm780"),
    Fault("pickup_dead", "pickup", "Pickup: coils or sensor dead", 0.035, "a fall or static; takes every class with it"),
    Fault("lens_dirty", "lens", "Lens dirty or hazy", 0.145, "dust and smoke film: every unit gets it, few stop for it alone"),
    Fault("trimmer_off", "trimmer", "Trimmer off its value", 0.012, "hands: trimmers hardly drift by themselves", "trimmer"),
    Fault("flex_pickup_loose", "flex_pickup", "Pickup flex half seated", 0.060, "bar not shut after an earlier look, or walked out by heat"),
    Fault("flex_pickup_torn", "flex_pickup", "Pickup flex torn at the fold", 0.022, "folds at each seek; rarer than a bad seat"),
    Fault("spindle_motor", "spindle", "Spindle motor worn or dead", 0.040, "bearing and winding age with hours"),
    Fault("rails_dry", "sled", "Rails or worm dry or dirty", 0.038, "grease stiffens over years; shows at later data first"),
    Fault("sled_worn", "sled", "Sled drive worn (feed motor or follower)", 0.020, "follower teeth are the soft partner of the worm"),
    Fault("clamp_weak", "clamp", "Clamp grips weakly", 0.012, "magnets keep their force; the puck's pad wears"),
    Fault("switch_insert", "switch_insert", "Insert switch fails", 0.042, "sits behind the slit where dust and liquid come in"),
    Fault("switch_home", "switch_home", "Disc-home switch fails", 0.036, "same part deeper inside, so somewhat cleaner"),
    Fault("rollers_glazed", "rollers", "Rollers glazed", 0.055, "rubber ages whether used or not"),
    Fault("rollers_unseated", "rollers", "Roller out of its bearing", 0.018, "after a disc pulled out by hand"),
    Fault("load_motor", "load", "Load motor dead or weak", 0.020, "short runs, long life"),
    Fault("gear_train", "load", "Gear train: tooth or gear cracked", 0.026, "plastic, and forced when a disc is pushed against it"),
    Fault("out_of_step", "mechanism", "Mechanism out of step", 0.056, "mains lost or disc pulled while loaded: a common owner's story"),
    Fault("foreign_object", "object", "Foreign object inside", 0.048, "coins and cards through the slit; children at home double it"),
    Fault("driver_joint", "driver", "Motor driver: cracked joint", 0.034, "the warmest chip on the drive board, heated and cooled daily"),
    Fault("driver_chip", "driver", "Motor driver: chip fails", 0.033, "as often as its joints: hot, and hurt by stalled motors"),
    Fault("fuse_open", "fuse", "Drive fuse open", 0.044, "wrong supply, a short that has gone, or age", "fuse"),
    Fault("flex_board_loose", "flex_board", "Board flex or plug loose", 0.028, "press-tab flex left half in after an earlier look"),
    Fault("wrong_board", "board", "Foreign board fitted", 0.010, "an earlier attempt swapped a paired board", "paired"),
    Fault("supply_weak", "supply", "Supply sags", 0.016, "an owner's replacement supply, or an aged internal one"),
    Fault(LEAK, "unlisted", "Not on the list", 0.040, "two faults at once, main board, disc, software: kept at 3 to 5 percent on purpose"),
)
