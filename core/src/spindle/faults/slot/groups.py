"""Groups of slot-load faults that show alike, used to keep the rows short."""

from __future__ import annotations

from typing import Final

OTHER_DIODE: Final = "diode:other"
"""Diodes that the console's own game disc does not use."""
GAME_DIODE: Final = "diode:game"
"""The diode for the console's own game disc, whatever its wavelength."""
SIGHT: Final = f"{GAME_DIODE} lens_dirty trimmer_off"
"""The drive does not see well: light, lens, drive current."""
FLEX: Final = "flex_pickup_loose flex_pickup_torn"
DRIVER: Final = "driver_joint driver_chip"
POWERLESS: Final = "fuse_open flex_board_loose"
"""The whole drive is without supply or without its line to the console."""
ROLLERS: Final = "rollers_glazed rollers_unseated"
LOADING: Final = "load_motor gear_train out_of_step"
"""The disc is not carried home although the drive is awake."""
SLED: Final = "rails_dry sled_worn"
