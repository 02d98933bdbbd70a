"""Finding anything by what people type: jobs, parts, donors, orders and drive sheets, each with where it leads."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from functools import reduce
from operator import and_
from typing import Final

from apps.drives.models import Sheet
from apps.jobs.models import HEAVY, Job
from apps.jobs.searching import alike, matching, text_of, with_alike, words_of
from apps.shelf.models import Donor, Order, Part
from django.db.models import Q, QuerySet
from spindle.job.stages import NAMES, Stage

MOST: Final = 5
"""Of each kind: who looks for more types one more word."""


@dataclass(frozen=True)
class Found:
    """One thing that was found."""

    kind: str
    key: str
    title: str
    line: str
    path: str


def find(typed: str) -> list[Found]:
    """Return what holds every word typed: jobs in the house first, then closed ones, sheets, parts, donors and orders; an exact tag before all."""
    words = words_of(typed)
    if not words:
        return []
    found = [*_jobs(typed), *_sheets(words), *_parts(words), *_donors(words), *_orders(words)]
    return sorted(found, key=lambda f: f.key.lower() not in words)


def _jobs(typed: str) -> Iterable[Found]:
    rows = sorted(matching(typed).select_related("sheet").defer(*HEAVY).order_by("-taken_in_at")[: 4 * MOST], key=lambda j: j.stage == Stage.CLOSED)
    for j in rows[: 2 * MOST]:
        yield Found("Job", j.tag, f"{j.sheet.maker} {j.sheet.console}", f"{j.owner_name} · {_stage(j)}", f"/bench/{j.tag}")


def _stage(job: Job) -> str:
    return job.outcome or NAMES[Stage(job.stage)]


def _held(rows: QuerySet, words: list[str], fields: tuple[str, ...]) -> QuerySet:  # type: ignore[type-arg]  # of any model
    return with_alike(rows.annotate(text=text_of(fields)), words, "text").filter(reduce(and_, (alike(w, "text") for w in words)))[:MOST]


def _sheets(words: list[str]) -> Iterable[Found]:
    for s in _held(Sheet.objects.filter(is_current=True).order_by("variant"), words, ("maker", "console", "revision", "variant")):
        yield Found("Drive sheet", s.variant, f"{s.maker} {s.console}", f"revision {s.revision}, version {s.version}", f"/drives/{s.variant}")


def _parts(words: list[str]) -> Iterable[Found]:
    rows = Part.objects.select_related("kind").order_by("-count", "-pk")
    for p in _held(rows, words, ("tag", "kind__name", "kind__level", "kind__code", "place", "lot")):
        yield Found("Part", p.tag, p.kind.name, f"{p.count} here{f', {p.place}' if p.place else ''}", f"/shelf/parts/{p.tag}")


def _donors(words: list[str]) -> Iterable[Found]:
    rows = Donor.objects.select_related("sheet").filter(is_scrapped=False).order_by("-pk")
    for d in _held(rows, words, ("tag", "sheet__maker", "sheet__console", "sheet__variant", "place", "origin")):
        yield Found("Donor", d.tag, f"{d.sheet.maker} {d.sheet.console}", d.place or d.origin, f"/shelf/donors/{d.tag}")


def _orders(words: list[str]) -> Iterable[Found]:
    rows = Order.objects.select_related("kind", "supplier").filter(Q(cancelled="")).order_by("-pk")
    for o in _held(rows, words, ("tag", "kind__name", "kind__code", "supplier__name")):
        yield Found("Order", o.tag, f"{o.count} × {o.kind.name}", f"{o.supplier.name}, {'arrived' if o.arrived_on else 'on its way'}", "/shelf/coming")
