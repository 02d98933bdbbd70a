"""Photos for the demo, drawn by code: what a lens would see of an invented drive, and no device of anybody's."""

from __future__ import annotations

from io import BytesIO
from typing import Final

from PIL import Image, ImageDraw, ImageFont

SIZE: Final = (960, 640)
_BOARD, _METAL, _FLEX, _DARK, _LIGHT = "#2f4f3f", "#a9adab", "#d8d3c2", "#1d2423", "#e9e6dc"


def drawn(what: str) -> bytes:
    """Return a drawn photo as PNG: "flex", "roof" or "seal"."""
    picture = Image.new("RGB", SIZE, "#6f7672")
    draw = ImageDraw.Draw(picture)
    draw.rounded_rectangle((60, 50, 900, 590), 26, _METAL, _DARK, 4)
    {"flex": _flex, "roof": _roof, "seal": _seal}[what](draw)
    draw.text((80, 596), f"drawn stand-in: {what}", _LIGHT, ImageFont.load_default(26))
    out = BytesIO()
    picture.save(out, "PNG")
    return out.getvalue()


def _flex(draw: ImageDraw.ImageDraw) -> None:
    draw.rectangle((140, 330, 520, 560), _BOARD, _DARK, 3)
    draw.polygon([(360, 330), (450, 330), (560, 120), (470, 120)], _FLEX, _DARK)
    for n in range(9):
        draw.line((368 + 9 * n, 330, 478 + 9 * n, 122), "#8b8a84", 2)
    draw.rectangle((340, 322, 470, 352), _LIGHT, _DARK, 3)
    draw.ellipse((200, 400, 260, 460), _METAL, _DARK, 3)


def _roof(draw: ImageDraw.ImageDraw) -> None:
    draw.ellipse((300, 140, 660, 500), "#c6c9c7", _DARK, 4)
    draw.ellipse((440, 280, 520, 360), _DARK)
    for x, y in ((130, 110), (790, 110), (130, 490), (790, 490)):
        draw.ellipse((x, y, x + 40, y + 40), _METAL, _DARK, 4)
        draw.line((x + 10, y + 20, x + 30, y + 20), _DARK, 5)
        draw.line((x + 20, y + 10, x + 20, y + 30), _DARK, 5)


def _seal(draw: ImageDraw.ImageDraw) -> None:
    draw.rectangle((360, 250, 600, 390), "#b9bcb8", _DARK, 3)
    draw.line((360, 300, 430, 330, 470, 290, 600, 340), _DARK, 4)
