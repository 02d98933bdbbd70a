"""Tags: what a tag is and where it leads, its 2-D code, and sheets of labels to print."""

from __future__ import annotations

import io
from dataclasses import dataclass

import segno
from apps.errors import InvalidError, NotFoundError
from apps.jobs.models import Job
from apps.reports.services import pdf_of
from apps.shelf.models import Donor, Order, Part

MAX_LABELS = 200


@dataclass(frozen=True)
class Label:
    """One label: the tag, what it is in two lines, and where scanning it leads."""

    tag: str
    title: str
    line: str
    path: str

    @property
    def code(self) -> str:
        """The 2-D code as an SVG that stands in the page by itself."""
        out = io.BytesIO()
        # M corrects one part in six: a label on a bench gets grease on it
        segno.make(self.tag, error="m", micro=False).save(out, kind="svg", xmldecl=False, svgns=True, border=2, omitsize=True)
        return out.getvalue().decode()


def label_of(tag: str) -> Label:
    """Return what a tag stands for, or raise NotFoundError."""
    return labels_of([tag])[0]


def labels_of(tags: list[str]) -> list[Label]:
    """Return the labels of some tags in their order. Four queries, however many there are.

    Raises
    ------
    NotFoundError
        If one of them is nothing here.
    """
    asked = [t.strip().upper() for t in tags]
    found: dict[str, Label] = {}
    for job in Job.objects.filter(tag__in=asked).select_related("sheet"):
        found[job.tag] = Label(job.tag, f"{job.sheet.maker} {job.sheet.console}", job.owner_name, f"/bench/{job.tag}")
    for part in Part.objects.filter(tag__in=asked).select_related("kind", "owner_job"):
        whose = f"belongs to {part.owner_job.tag}" if part.owner_job else part.place
        found[part.tag] = Label(part.tag, part.kind.name, whose, f"/shelf/parts/{part.tag}")
    for donor in Donor.objects.filter(tag__in=asked).select_related("sheet"):
        found[donor.tag] = Label(donor.tag, f"Donor {donor.sheet.variant}", donor.place, f"/shelf/donors/{donor.tag}")
    for order in Order.objects.filter(tag__in=asked).select_related("kind", "supplier"):
        found[order.tag] = Label(order.tag, f"{order.count} × {order.kind.name}", order.supplier.name, "/shelf/coming")
    missing = [t for t in asked if t not in found]
    if missing:
        raise NotFoundError(f"Nothing here has the tag {', '.join(missing[:5])}. Tags look like K-0107, P-0012, D-0003, O-0004 or K-0107-A.")
    return [found[t] for t in asked]


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
