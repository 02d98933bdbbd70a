"""The picture of a recording: bands over the room, dark where it is loud."""

from __future__ import annotations

from io import BytesIO
from typing import Final

import numpy as np
from apps.sounds.selectors import pictured
from PIL import Image

TOP_DB: Final = 30.0
"""What stands so far over the room is as dark as it gets."""
WIDEST: Final = 1600
PAPER, INK = (251, 249, 243), (20, 35, 33)


def picture_of(name: str) -> bytes:
    """Return the picture as a PNG, time to the right and high pitches at the top.

    Raises
    ------
    NotFoundError
        If the recording is not there.
    """
    bands = pictured(name).picture
    step = max(1, -(-len(bands) // WIDEST))
    rows = bands[: len(bands) // step * step].reshape(-1, step, bands.shape[1]).max(axis=1)
    dark = np.clip(rows / TOP_DB, 0.0, 1.0).T[::-1, :, None]
    colours = (1.0 - dark) * np.array(PAPER) + dark * np.array(INK)
    out = BytesIO()
    Image.fromarray(colours.astype(np.uint8)).save(out, "PNG")
    return out.getvalue()
