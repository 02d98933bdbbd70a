"""A picture from outside is made anew: turned upright, made small, without anything that stood beside it. What is none is refused in plain words.

Nothing of what was sent is kept, so that what hides in it (a place, a script, a second file) is gone.
"""

from __future__ import annotations

import hashlib
import warnings
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from io import BytesIO
from typing import Final

import pillow_heif
from PIL import Image, ImageFile, ImageOps
from spindle.errors import InvalidError

MAX_BYTES: Final = 12_000_000
"""What a phone makes of its sensor's best: 4 to 10 MB."""
MAX_PIXELS: Final = 50_000_000
"""More than any phone's picture has; 100 megapixels unpack to 300 MB."""
LEAST_SIDE: Final = 16
LONGEST_SIDE: Final = 1600
"""Enough to read a screw's head and a board's print of a hand's width."""
QUALITY: Final = 85
FORMATS: Final = ("JPEG", "PNG", "WEBP", "HEIF")

pillow_heif.register_heif_opener(thumbnails=False)


@dataclass(frozen=True)
class Picture:
    """A picture as it is kept: a JPEG."""

    content: bytes
    width: int
    height: int

    @property
    def hash(self) -> str:
        """The name under which it is kept."""
        return hashlib.sha256(self.content).hexdigest()


def remade(raw: bytes) -> Picture:
    """Return a picture made anew from what somebody sent.

    Raises
    ------
    InvalidError
        If it is too large, no picture, of another kind, or broken.
    """
    if len(raw) > MAX_BYTES:
        raise InvalidError("file", f"The picture has more than {MAX_BYTES // 1_000_000} MB. Take it with fewer, or make it smaller first.")
    with _carefully("This is no picture that can be read. JPEG, PNG, WebP and HEIC can; try to save it anew, or take another."):
        return _remade(raw)


def check_kept(raw: bytes) -> None:
    """Refuse what is no picture as it is kept here: a JPEG of our size, with nothing beside it.

    Raises
    ------
    InvalidError
    """
    with _carefully("This is no picture as it is kept here."), Image.open(BytesIO(raw), formats=("JPEG",)) as found:
        if max(found.size) > LONGEST_SIDE or found.getexif():
            raise InvalidError("file", "This picture was not made anew here: it is larger than ours, or tells more than a picture.")
        found.load()


@contextmanager
def _carefully(says: str) -> Iterator[None]:
    ImageFile.LOAD_TRUNCATED_IMAGES = False  # what makes our papers turns it on for everybody: half a picture would be kept
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error", Image.DecompressionBombWarning)
            yield
    except InvalidError:
        raise
    except Exception as error:  # whatever a hostile file makes a decoder raise, it is no picture that can be kept
        raise InvalidError("file", says) from error


def _remade(raw: bytes) -> Picture:
    with Image.open(BytesIO(raw), formats=FORMATS) as found:
        width, height = found.size
        if width * height > MAX_PIXELS:
            raise InvalidError("file", f"The picture has {width * height / 1e6:.0f} million points; at most {MAX_PIXELS // 1_000_000} million can be read.")
        if min(width, height) < LEAST_SIDE:
            raise InvalidError("file", f"The picture is {width} × {height} points: nothing can be seen on it.")
        found.draft("RGB", (LONGEST_SIDE, LONGEST_SIDE))
        found.load()
        upright = ImageOps.exif_transpose(found)
        upright.thumbnail((LONGEST_SIDE, LONGEST_SIDE))
        plain = Image.new("RGB", upright.size, "white")
        shown = upright.convert("RGBA")
        plain.paste(shown, mask=shown.getchannel("A"))
    out = BytesIO()
    plain.save(out, "JPEG", quality=QUALITY, optimize=True)
    return Picture(out.getvalue(), *plain.size)
