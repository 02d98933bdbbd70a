"""Groups of faults that show alike, used to keep the rows short.

``@name`` groups are filled by each loader family: ``@loading`` (the disc is not carried home although the drive is awake),
``@unstarted`` (the drive is never told that a disc is home, or the lid shut), ``@margin`` (loading works on its last
margin), ``@grip`` (the disc is not held on the hub).
"""

from __future__ import annotations

from typing import Final

OTHER_DIODE: Final = "diode:other"
"""Diodes that the console's own game disc does not use."""
GAME_DIODE: Final = "diode:game"
"""The diode for the console's own game disc, whatever its wavelength."""
SIGHT: Final = f"{GAME_DIODE} lens_dirty trimmer_off"
"""The drive does not see well: light, lens, drive current."""
FLEX: Final = "flex_pickup_loose flex_pickup_torn flex_one_over"
DRIVER: Final = "driver_joint driver_chip"
POWERLESS: Final = "fuse_open flex_board_loose"
"""The whole drive is without supply or without its line to the console."""
SLED: Final = "rails_dry sled_worn feed_motor"
"""What carries the pickup in and out."""
