"""Tags: what a tag is, where it leads, and its 2-D code."""

from __future__ import annotations

import io
from dataclasses import dataclass

import segno
from apps.jobs.models import Custody, Job
from apps.shelf.models import Donor, Order, Part
from spindle.errors import NotFoundError


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
        self.symbol.save(out, kind="svg", xmldecl=False, svgns=True, border=2, omitsize=True)
        return out.getvalue().decode()

    @property
    def symbol(self) -> segno.QRCode:
        """The 2-D code itself. M corrects one part in six: a label on a bench gets grease on it. Any mask is read; trying all takes longest."""
        return segno.make_qr(self.tag, error="m", boost_error=False, mask=2)


def label_of(tag: str) -> Label:
    """Return what a tag stands for, or raise NotFoundError."""
    return labels_of([tag])[0]


def labels_of(tags: list[str]) -> list[Label]:
    """Return the labels of some tags in their order. Five queries at most, however many there are.

    Raises
    ------
    NotFoundError
        If one of them is nothing here.
    """
    asked = [t.strip().upper() for t in tags]
    found: dict[str, Label] = {}
    for job in Job.objects.filter(tag__in=asked).select_related("sheet"):
        found[job.tag] = Label(job.tag, f"{job.sheet.maker} {job.sheet.console}", job.owner_name, f"/bench/{job.tag}")
    whose = dict(Custody.objects.filter(part__tag__in=asked).values_list("part__tag", "job__tag"))
    for part in Part.objects.filter(tag__in=asked).select_related("kind"):
        line = f"belongs to {whose[part.tag]}" if part.tag in whose else part.place
        found[part.tag] = Label(part.tag, part.kind.name, line, f"/shelf/parts/{part.tag}")
    for donor in Donor.objects.filter(tag__in=asked).select_related("sheet"):
        found[donor.tag] = Label(donor.tag, f"Donor {donor.sheet.variant}", donor.place, f"/shelf/donors/{donor.tag}")
    for order in Order.objects.filter(tag__in=asked).select_related("kind", "supplier"):
        found[order.tag] = Label(order.tag, f"{order.count} × {order.kind.name}", order.supplier.name, "/shelf/coming")
    missing = [t for t in asked if t not in found]
    if missing:
        raise NotFoundError(f"Nothing here has the tag {', '.join(missing[:5])}. Tags look like K-0107, P-0012, D-0003, O-0004 or K-0107-A.")
    return [found[t] for t in asked]
