"""What a decision does beside the tape, carried out inside its transaction: the shelf, what a job waits for, its sheet."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Final

from apps.drives.models import Sheet
from apps.drives.selectors import full_sheet
from apps.jobs.models import Custody, Job, Taking, Want
from apps.people.models import User
from apps.shelf.services.donors import PieceAsked, keep_donor, take_out_of
from apps.shelf.services.pieces import held, kind_of, new_own_part, note, note_checks, seen_text
from spindle.drives.levels import LEVEL_OF_REPAIR, LEVELS
from spindle.job import effects as e


@dataclass(frozen=True)
class Writer:
    """The job that is written to, by whom and when."""

    row: Job
    user: User
    at: datetime


def carry_out(effects: Iterable[e.Effect], writer: Writer) -> None:
    """Carry out the effects of a decision, in their order."""
    for effect in effects:
        _DOES[type(effect)](effect, writer)


def _take(effect: e.Take, w: Writer) -> None:
    part = take_out_of(w.user, PieceAsked(effect.origin, effect.level), w.at) if effect.origin else held(effect.tag)
    part.count -= 1
    part.save(update_fields=["count"])
    now = {"part": part, "by": w.user, "at": w.at, "ended": ""}
    Taking.objects.update_or_create(job=w.row, line=effect.line, defaults=now)


def _give_back(effect: e.GiveBack, w: Writer) -> None:
    row = Taking.objects.select_related("part").get(job=w.row, line=effect.line)
    part = held(row.part.tag)
    part.count += 1
    part.save(update_fields=["count"])
    row.ended = "back"
    row.save(update_fields=["ended"])
    if effect.seen:
        note_checks(part, effect.seen, w.row.tag, w.user, w.at)
    note(part.tag, "back", f"from {w.row.tag}" + (f": {seen_text(effect.seen)}" if effect.seen else ""), w.user, w.at)


def _fit_for_good(effect: e.FitForGood, w: Writer) -> None:
    row = Taking.objects.select_related("part").get(job=w.row, line=effect.line)
    row.ended = "fitted"
    row.save(update_fields=["ended"])
    note(row.part.tag, "fitted", f"in {w.row.tag}", w.user, w.at)


def _want(effect: e.Want, w: Writer) -> None:
    level = LEVEL_OF_REPAIR.get(effect.repair)
    if level is None:
        Want.objects.filter(job=w.row).delete()
        return
    now = {"repair": effect.repair, "level": level, "p_success": effect.p_success}
    Want.objects.update_or_create(job=w.row, defaults=now, create_defaults={**now, "since": w.at})


def _unwant(effect: e.Unwant, w: Writer) -> None:
    wants = Want.objects.filter(job=w.row)
    (wants.filter(repair=effect.repair) if effect.repair else wants).delete()


def _own_out(effect: e.OwnOut, w: Writer) -> None:
    code = next(iter(full_sheet(w.row.sheet_id).codes(effect.level)), "") or f"{effect.level} of {w.row.tag}"
    part = new_own_part(effect.tag, kind_of(effect.level, code, f"{LEVELS[effect.level].name} {code}"), effect.place, w.at)
    Custody.objects.create(part=part, job=w.row, away_since=w.at)
    note(part.tag, "out", f"out of {w.row.tag}, lies {effect.place}", w.user, w.at)


def _own_back(effect: e.OwnBack, w: Writer) -> None:
    Custody.objects.filter(part__tag=effect.tag).update(away_since=None)
    note(effect.tag, "back", "back in its unit", w.user, w.at)


def _own_left(effect: e.OwnLeft, w: Writer) -> None:
    """From then on it is stock, its health not known."""
    part = held(effect.tag)
    Custody.objects.filter(part=part).delete()
    part.is_owned, part.count = False, 1
    part.save(update_fields=["is_owned", "count"])
    note(part.tag, "released", f"left with the shop by {effect.by_name}", w.user, w.at)


def _use_sheet(effect: e.UseSheet, w: Writer) -> None:
    w.row.sheet = Sheet.objects.get(pk=effect.sheet.number)


def _unit_left(effect: e.UnitLeft, w: Writer) -> None:
    keep_donor(w.user, w.row.sheet, origin=f"{w.row.tag}, left by {effect.by_name}"[:160], at=w.at)


_DOES: Final[dict[type, Callable[[Any, Writer], None]]] = {
    e.Take: _take,
    e.GiveBack: _give_back,
    e.FitForGood: _fit_for_good,
    e.Want: _want,
    e.Unwant: _unwant,
    e.OwnOut: _own_out,
    e.OwnBack: _own_back,
    e.OwnLeft: _own_left,
    e.UnitLeft: _unit_left,
    e.UseSheet: _use_sheet,
}
