"""A piece of the shelf comes to a job: what is refused, the line, and what it moves. Shared by taking, trials and restoring."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Any

from spindle.diagnosis.given.case import Change, Stock
from spindle.drives.levels import LEVEL_OF_REPAIR, LEVELS
from spindle.errors import InvalidError, NotNowError
from spindle.formats.case_file import write_stock
from spindle.job.asking import World
from spindle.job.effects import Effect, GiveBack, ShelfPiece, Take, Unwant, Want
from spindle.job.line import Draft, Line
from spindle.job.value import Job
from spindle.words.health import Health


def check_repair(job: Job, repair: str) -> None:
    """Refuse a repair that this drive does not have.

    Raises
    ------
    InvalidError
    """
    if repair not in job.model.repair_index:
        raise InvalidError("repair", f"{repair!r} cannot be done on this drive (see its sheet).")


def check_piece(piece: ShelfPiece, repair: str, world: World) -> None:
    """Refuse a piece that is not for this repair, is not the shop's, or is not there.

    Raises
    ------
    InvalidError, NotNowError, GoneError
    """
    level = LEVEL_OF_REPAIR.get(repair, "")
    if piece.level != level:
        raise InvalidError("repair", f"{piece.tag} is a {LEVELS[piece.level].name.lower()}: “{repair}” takes another part.")
    if piece.owner:
        raise NotNowError(f"{piece.tag} belongs to the owner of {piece.owner}: it is not for other units.", reason="custody")
    if not piece.is_here:
        raise world.gone(piece)


def taken_piece(job: Job, piece: ShelfPiece, repair: str, world: World, *, line: int) -> tuple[Draft, tuple[Effect, ...]]:
    """Return the line that takes a piece for a repair, to be written under that number, and what it moves.

    Raises
    ------
    InvalidError, NotNowError, GoneError
    """
    check_repair(job, repair)
    check_piece(piece, repair, world)
    stock = Stock(repair, piece.tag, piece.health, piece.works, piece.fails, piece.price_cents / 100)
    body = {**write_stock(stock), "taking": True, **({"donor": piece.donor} if piece.donor else {})}
    return Draft("part", body), (Take(line, piece.tag, piece.donor, piece.level), Unwant(repair))


def with_pieces(job: Job, changes: Sequence[Change], world: World, *, line: int) -> tuple[tuple[Change, ...], list[Draft], tuple[Effect, ...]]:
    """Return changes with what is known of their items, and what takes those that lie on the shelf, to be written from that number on.

    Raises
    ------
    InvalidError, NotNowError, GoneError
    """
    mine = {taken.body["item"]: taken for taken in job.takings.values()}
    known, drafts, effects, met = list[Change](), list[Draft](), list[Effect](), set[str]()
    for change in changes:
        tag = change.item.strip().upper()
        own = mine.get(tag)
        if own is not None:
            known.append(_known(change, own.body))
            continue
        piece = world.piece(tag, LEVEL_OF_REPAIR.get(change.repair, "")) if tag and not tag.startswith("D-") else None
        if piece is None or piece.owner == job.tag:
            known.append(replace(change, item=change.item.strip() if piece is None else piece.tag))
            continue
        if piece.tag not in met:
            draft, more = taken_piece(job, piece, change.repair, world, line=line + len(drafts))
            drafts.append(draft)
            effects += more
            met.add(piece.tag)
        known.append(_known(change, {"item": piece.tag, "health": piece.health.value, "works": piece.works, "fails": piece.fails}))
    return tuple(known), drafts, tuple(effects)


def _known(change: Change, record: Mapping[str, Any]) -> Change:
    """Return a change with what the shelf's record knows of its part: what was seen of it beats what is remembered at the bench."""
    works, fails = frozenset(record["works"]), frozenset(record["fails"])
    return replace(change, item=record["item"], health=Health(record["health"]), works=(change.works | works) - fails, fails=(change.fails | fails) - works)


def given_back(job: Job, taken: Line, *, seen: Mapping[str, bool] | None = None) -> tuple[Effect, ...]:
    """Return what follows when a piece that was taken goes back on the shelf.

    Raises
    ------
    NotNowError
        If it sits in the unit for trying.
    """
    item = taken.body["item"]
    if item in {c.item for c in job.on_trial}:
        raise NotNowError(f"{item} is in it for trying: put the unit's own part back first.", reason="on_trial")
    return (GiveBack(taken.number, dict(seen or {})), *_wanted_again(job, taken.body["repair"]))


def _wanted_again(job: Job, repair: str) -> tuple[Effect, ...]:
    """Return what a job waits for when the part of a repair went back: one again, if that repair is what was proposed."""
    proposal = job.proposal
    return (Want(repair, proposal.p_success),) if proposal is not None and proposal.repair == repair else ()
