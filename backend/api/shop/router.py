"""The shop: its figures, its instruments, and its people."""

from __future__ import annotations

from typing import Annotated

from api.common import READS, WRITES, Short, SignedIn, as_json, view_before_commit
from api.shop.schemas import FiguresIn, FiguresView, InstrumentIn, InstrumentsView, InstrumentView, PersonChangeIn, PersonIn, PersonView, StaffView, TraceView
from apps.people.permissions import require
from apps.people.selectors import everybody
from apps.shop.selectors import the_shop
from apps.shop.services.figures import say_instrument, set_figures
from apps.shop.services.staff import add_person, change_person
from apps.writing.once import Command
from apps.writing.traces import traces_of
from django.http import HttpResponse
from ninja import Path, Router
from spindle.words.bench import INSTRUMENT_NAMES
from spindle.words.duty import Duty

router = Router(tags=["shop"])
MANAGER = {**READS, 403: WRITES[403]}


@router.get("/instruments", response={200: InstrumentsView, **READS}, operation_id="instruments")
def instruments(request: SignedIn) -> InstrumentsView:
    """Return what this shop has, of what not every shop has."""
    return _instruments()


@router.post("/instruments", response={200: InstrumentsView, **WRITES}, operation_id="say_instrument")
@view_before_commit
def instrument(request: SignedIn, body: InstrumentIn) -> HttpResponse:
    """Say whether the shop has an instrument."""
    say_instrument(Command(request.user, body.key), body.instrument, is_there=body.is_there)
    return as_json(_instruments())


def _instruments() -> InstrumentsView:
    lacks = the_shop().lacks
    return InstrumentsView(instruments=[InstrumentView(id=i, name=name, is_there=i not in lacks) for i, name in INSTRUMENT_NAMES.items()])


@router.get("/shop", response={200: FiguresView, **MANAGER}, operation_id="figures")
def figures(request: SignedIn) -> FiguresView:
    """Return the shop's figures; for managers."""
    require(request.user, Duty.SHOP)
    return _figures()


@router.post("/shop", response={200: FiguresView, **WRITES}, operation_id="set_figures")
@view_before_commit
def change_figures(request: SignedIn, body: FiguresIn) -> HttpResponse:
    """Set some of the shop's figures."""
    set_figures(Command(request.user, body.key), body.dict(exclude={"key", "version"}, exclude_none=True), version=body.version)
    return as_json(_figures())


def _figures() -> FiguresView:
    shop = the_shop()
    own = {name: getattr(shop, name) for name in FiguresView.model_fields if name != "traces"}
    return FiguresView(**own, traces=[TraceView.model_validate(t) for t in traces_of("shop")])


@router.get("/people", response={200: StaffView, **MANAGER}, operation_id="people")
def people(request: SignedIn) -> StaffView:
    """Return who works here; for managers."""
    require(request.user, Duty.SHOP)
    return _staff()


@router.post("/people", response={200: StaffView, **WRITES}, operation_id="add_person")
@view_before_commit
def add(request: SignedIn, body: PersonIn) -> HttpResponse:
    """Add somebody."""
    add_person(Command(request.user, body.key), username=body.username, name=body.name, role=body.role, password=body.password)
    return as_json(_staff())


@router.post("/people/{username}", response={200: StaffView, **WRITES}, operation_id="change_person")
@view_before_commit
def change(request: SignedIn, username: Annotated[Short, Path()], body: PersonChangeIn) -> HttpResponse:
    """Change somebody's name, role, first password, or whether they work here."""
    change_person(Command(request.user, body.key), username, body.dict(exclude={"key"}, exclude_none=True))
    return as_json(_staff())


def _staff() -> StaffView:
    return StaffView(people=[PersonView.model_validate(p) for p in everybody()], traces=[TraceView.model_validate(t) for t in traces_of("person ")])
