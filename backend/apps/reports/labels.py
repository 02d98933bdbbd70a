"""Sheets of labels to print."""

from __future__ import annotations

from dataclasses import dataclass

from apps.reports.services import pdf_of
from apps.tags.selectors import Label, labels_of
from spindle.errors import InvalidError

MAX_LABELS = 200


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
        if not (1 <= self.columns <= 4 and 1 <= self.rows <= 12):
            raise InvalidError("columns", f"{self.columns} by {self.rows} labels: at most 4 by 12 stay readable.")
        if not 0 <= self.skip < self.columns * self.rows:
            raise InvalidError("skip", f"The sheet has {self.columns * self.rows} places; {self.skip} cannot be left out.")


def labels_pdf(tags: list[str], layout: Layout) -> bytes:
    """Return the labels as a PDF, sheet after sheet.

    Raises
    ------
    InvalidError, NotFoundError
    """
    layout.check()
    if not 0 < len(tags) <= MAX_LABELS:
        raise InvalidError("tags", f"{len(tags)} labels: between 1 and {MAX_LABELS} at a time.")
    cells: list[Label | None] = [None] * layout.skip + list(labels_of(tags))
    per_page = layout.columns * layout.rows
    pages = [cells[n : n + per_page] for n in range(0, len(cells), per_page)]
    width, height = 190 / layout.columns, 277 / layout.rows
    side = min(height - 6, width * 0.42)
    return pdf_of("reports/labels.html", {"pages": pages, "width": f"{width:.2f}", "height": f"{height:.2f}", "side": f"{side:.2f}"})
