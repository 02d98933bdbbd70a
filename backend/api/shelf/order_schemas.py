"""What goes over the wire about orders. Money in cents, waits in days."""

from __future__ import annotations

from datetime import date
from typing import Annotated

from api.common import Cents, Code, OnceIn, Place, Short, View, Word
from api.shelf.schemas import Some
from pydantic import Field


class OrderView(View):
    """An order on its way, with when it is expected."""

    tag: str
    supplier: str
    level_name: str
    code: str
    name: str
    count: int
    """Pieces that are still to come."""
    came: int
    piece_cents: int
    ordered_on: date
    waited_days: float
    half_days: float
    most_days: float
    past: int


class PastOrderView(View):
    """An order that has arrived: what a supplier's lead time rests on."""

    tag: str
    supplier: str
    name: str
    count: int
    ordered_on: date
    arrived_on: date


class OrderIn(OnceIn):
    """An order."""

    supplier: Annotated[Short, Field(min_length=1, max_length=80)]
    level: Word
    code: Code
    name: Short = ""
    packs: Some
    pack_size: Some = 1
    pack_cents: Cents
    ordered_on: date


class ArriveIn(OnceIn):
    """An order that is here, or some of it: without a count all that had not come."""

    on: date
    place: Place = ""
    count: Some | None = None


class DatesIn(OnceIn):
    """The dates of an order, put right."""

    ordered_on: date
    arrived_on: date | None


class CancelIn(OnceIn):
    """An order that will not come."""

    why: Annotated[Short, Field(min_length=1)]


class CodeView(View):
    """A kind of part that is known; ``name`` is empty where only a sheet names it."""

    level: str
    code: str
    name: str
