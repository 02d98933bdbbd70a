"""Sheets of labels to print."""

from __future__ import annotations

import io
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Any, Final

from apps.tags.selectors import Label, labels_of
from django.conf import settings
from fontTools.ttLib import TTFont as FontFile
from reportlab import rl_config
from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.pdfbase.pdfmetrics import registerFont, stringWidth
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.pdfgen.canvas import Canvas
from spindle.errors import InvalidError

MAX_LABELS: Final = 200
MARGIN_MM: Final = 10
PAD_MM: Final = 2
QUIET: Final = 2
"""Modules of white around a code, of the four that the norm asks for: the label's own edge gives the rest."""
FILLED_AND_OUTLINED: Final = 2
FALLBACK: Final = Path("/usr/share/fonts/truetype/dejavu/DejaVuSans.ttf")
"""It knows the letters that our own fonts do not."""


rl_config.useA85 = 0  # pages as bytes, not as letters: a third of the time


MOST_COLUMNS: Final = 4
MOST_ROWS: Final = 12
"""Of a sheet of labels: with more of them a code is too small to be scanned."""


@dataclass(frozen=True)
class Layout:
    """A sheet of labels on A4: columns and rows, and how many places at its start are used up already."""

    columns: int = 3
    rows: int = 8
    skip: int = 0

    def check(self) -> None:
        """Refuse what cannot be printed or read.

        Raises
        ------
        InvalidError
        """
        if not (1 <= self.columns <= MOST_COLUMNS and 1 <= self.rows <= MOST_ROWS):
            raise InvalidError("columns", f"{self.columns} by {self.rows} labels: at most {MOST_COLUMNS} by {MOST_ROWS} stay readable.")
        if not 0 <= self.skip < self.columns * self.rows:
            raise InvalidError("skip", f"The sheet has {self.columns * self.rows} places; {self.skip} cannot be left out.")

    @property
    def size(self) -> tuple[float, float]:
        """Width and height of a label in points."""
        return (A4[0] - 2 * MARGIN_MM * mm) / self.columns, (A4[1] - 2 * MARGIN_MM * mm) / self.rows

    def corner(self, place: int) -> tuple[float, float]:
        """Return the lower left corner of a place on its page, in points."""
        width, height = self.size
        return MARGIN_MM * mm + (place % self.columns) * width, A4[1] - MARGIN_MM * mm - (place // self.columns + 1) * height


def labels_pdf(tags: list[str], layout: Layout) -> bytes:
    """Return the labels as a PDF, sheet after sheet.

    Raises
    ------
    InvalidError, NotFoundError
    """
    layout.check()
    if not 0 < len(tags) <= MAX_LABELS:
        raise InvalidError("tags", f"{len(tags)} labels: between 1 and {MAX_LABELS} at a time.")
    out = io.BytesIO()
    paper = Canvas(out, pagesize=A4)
    paper.setTitle("Labels")
    per_page = layout.columns * layout.rows
    for n, label in enumerate(labels_of(tags), start=layout.skip):
        if n and n % per_page == 0:
            paper.showPage()
        _draw(paper, label, layout.corner(n % per_page), layout.size)
    paper.save()
    return out.getvalue()


def _draw(paper: Canvas, label: Label, corner: tuple[float, float], size: tuple[float, float]) -> None:
    (x, y), (width, height) = corner, size
    side = min(height - 2 * PAD_MM * mm, width * 0.42)
    _code(paper, label, (x + PAD_MM * mm, y + (height - side) / 2), side)
    left, room = x + side + 2 * PAD_MM * mm, width - side - 3 * PAD_MM * mm
    middle = y + height / 2
    for text, points, up, weight in ((label.tag, 14.0, 6.0, 0.9), (label.title, 9.0, -6.0, 0.3), (label.line, 9.0, -17.0, 0.3)):
        font = _font(text, is_tag=points > 10)
        words = paper.beginText(left, middle + up)
        words.setFont(font, min(points, points * room / max(stringWidth(text, font, points), 1.0)))
        words.setTextRenderMode(FILLED_AND_OUTLINED)
        paper.setLineWidth(weight)  # the fonts as they ship are at their thinnest: the outline gives them their weight
        words.textOut(text)
        paper.drawText(words)


def _code(paper: Canvas, label: Label, corner: tuple[float, float], side: float) -> None:
    """Draw the 2-D code, each run of dark modules in a row as one box."""
    rows = label.symbol.matrix
    module = side / (len(rows) + 2 * QUIET)
    path = paper.beginPath()
    for r, row in enumerate(rows):
        dark = bytes(row)
        begin = dark.find(1)
        while begin >= 0:
            end = dark.find(0, begin)
            end = len(dark) if end < 0 else end
            path.rect(corner[0] + (begin + QUIET) * module, corner[1] + (len(rows) - 1 - r + QUIET) * module, (end - begin) * module, module)
            begin = dark.find(1, end)
    paper.drawPath(path, stroke=0, fill=1)


def _font(text: str, *, is_tag: bool) -> str:
    """Return the name of a font that has every letter of a text."""
    own = _shipped("mono" if is_tag else "next")
    return own.name if own.has(text) else _fallback()


@dataclass(frozen=True)
class _Shipped:
    name: str
    letters: frozenset[int]

    def has(self, text: str) -> bool:
        return all(ord(c) in self.letters for c in text)


@cache
def _shipped(kind: str) -> _Shipped:
    """Register one of the application's own fonts, unpacked from the form in which browsers get it."""
    found = sorted((settings.FRONTEND_DIST / "assets").glob(f"atkinson-hyperlegible-{kind}-latin-wght-normal*.woff2"))
    if not found:
        return _Shipped("", frozenset())
    file: Any = FontFile(found[0])
    file.flavor = None
    plain = io.BytesIO()
    file.save(plain)
    plain.seek(0)
    registerFont(TTFont(f"own-{kind}", plain))
    return _Shipped(f"own-{kind}", frozenset(file.getBestCmap()))


@cache
def _fallback() -> str:
    if not FALLBACK.exists():
        return "Helvetica"
    registerFont(TTFont("fallback", str(FALLBACK)))
    return "fallback"
