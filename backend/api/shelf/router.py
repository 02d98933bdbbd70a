"""The shelf: what is here, what is wanted, what is on its way, donors, tags."""

from __future__ import annotations

from typing import Annotated

from api.common import READS, WRITES, Number, Short, SignedIn, Tag, Word, view_before_commit
from api.shelf import schemas as v
from api.shelf.views import away_view, donor_detail_view, donor_view, part_detail_view, part_view, wanted_view
from apps.jobs.scarce import all_scarce
from apps.jobs.selectors import away, part_detail
from apps.reports.labels import Layout, labels_pdf
from apps.shelf.selectors import donor_by_tag, donor_detail, donors, part_by_tag, search_parts, short_kinds
from apps.shelf.services import donors as donor_services
from apps.shelf.services import stock as stock_services
from apps.shop.selectors import the_shop
from apps.tags.selectors import label_of
from apps.writing.once import Command
from django.http import HttpResponse
from ninja import Query, Router

router = Router(tags=["shelf"])


@router.get("/shelf/parts", response={200: list[v.PartView], **READS}, operation_id="parts")
def parts(
    request: SignedIn, q: Annotated[Short | None, Query()] = None, level: Annotated[Word | None, Query()] = None, used_up: bool = False
) -> list[v.PartView]:
    """Return what is on the shelf, by tag, code, name or place."""
    return [part_view(p) for p in search_parts(q or "", level=level or "", only_here=not used_up)]


@router.get("/shelf/parts/{tag}", response={200: v.PartDetailView, **READS}, operation_id="part")
def part(request: SignedIn, tag: Tag) -> v.PartDetailView:
    """Return one part with its trail, and where it fits."""
    return part_detail_view(part_detail(part_by_tag(tag)))


@router.get("/shelf/away", response={200: list[v.PartView], **READS}, operation_id="away")
def custody(request: SignedIn) -> list[v.PartView]:
    """Return owners' parts that are out of their units, longest first."""
    return [away_view(c) for c in away()]


@router.get("/shelf/wanted", response={200: v.WantedView, **READS}, operation_id="wanted")
def wanted(request: SignedIn) -> v.WantedView:
    """Return what is short, and who should get the scarce part. A proposal: nothing is written."""
    shop = the_shop()
    return wanted_view(short_kinds(), all_scarce(shop.economy(), shop.today()))


@router.get("/shelf/donors", response={200: list[v.DonorView], **READS}, operation_id="donors")
def donor_list(request: SignedIn) -> list[v.DonorView]:
    """Return the donors."""
    return [donor_view(d) for d in donors()]


@router.get("/shelf/donors/{tag}", response={200: v.DonorDetailView, **READS}, operation_id="donor")
def donor(request: SignedIn, tag: Tag) -> v.DonorDetailView:
    """Return one donor, piece by piece."""
    return donor_detail_view(donor_detail(donor_by_tag(tag)))


@router.get("/tags/{tag}", response={200: v.PlaceView, **READS}, operation_id="tag")
def tag_place(request: SignedIn, tag: Tag) -> v.PlaceView:
    """Return where a scanned tag leads."""
    return v.PlaceView.model_validate(label_of(tag))


@router.get("/labels.pdf", response={200: None, **READS}, operation_id="labels")
def labels(  # the query of one printout
    request: SignedIn, tags: Annotated[list[Short], Query()], columns: Number = 3, rows: Number = 8, skip: Number = 0
) -> HttpResponse:
    """Return sheets of labels to print."""
    answer = HttpResponse(labels_pdf(tags, Layout(columns, rows, skip)), content_type="application/pdf")
    answer["Content-Disposition"] = 'inline; filename="labels.pdf"'
    return answer


@router.get("/labels/{tag}", response={200: None, **READS}, operation_id="label")
def label(request: SignedIn, tag: Tag) -> HttpResponse:
    """Return the 2-D code of one tag as SVG."""
    return HttpResponse(label_of(tag).code, content_type="image/svg+xml")


# --- writes


@router.post("/shelf/parts", response={200: v.PartDetailView, **WRITES}, operation_id="receive")
@view_before_commit
def receive(request: SignedIn, body: v.ReceiveIn) -> v.PartDetailView:
    """Put parts on the shelf."""
    arrival = stock_services.Arrival(**{**body.dict(exclude={"key"}), "health": body.health.value})
    return _part(stock_services.receive(Command(request.user, body.key), arrival).tag)


@router.post("/shelf/minimum", response={200: v.WantedView, **WRITES}, operation_id="set_minimum")
@view_before_commit
def minimum(request: SignedIn, body: v.MinimumIn) -> v.WantedView:
    """Say how many of a kind there should be at least."""
    stock_services.set_minimum(Command(request.user, body.key), body.level, body.code, body.count)
    return wanted(request)


@router.post("/shelf/parts/{tag}/size", response={200: v.PartDetailView, **WRITES}, operation_id="set_size")
@view_before_commit
def size(request: SignedIn, tag: Tag, body: v.SizeIn) -> v.PartDetailView:
    """Say how long around a belt is, and how thick: so are all of its kind."""
    return _part(stock_services.set_size(Command(request.user, body.key), tag, body.around_mm, body.section_mm).tag)


@router.post("/shelf/parts/{tag}/scrap", response={200: v.PartDetailView, **WRITES}, operation_id="scrap")
@view_before_commit
def scrap(request: SignedIn, tag: Tag, body: v.ScrapIn) -> v.PartDetailView:
    """Throw pieces away, with a reason."""
    return _part(stock_services.scrap(Command(request.user, body.key), tag, body.count, body.why).tag)


@router.post("/shelf/parts/{tag}/correct", response={200: v.PartDetailView, **WRITES}, operation_id="correct_part")
@view_before_commit
def correct(request: SignedIn, tag: Tag, body: v.CorrectIn) -> v.PartDetailView:
    """Put right what is written of a part: how many are here, where they lie, what one costs."""
    told = stock_services.Correction(**body.dict(exclude={"key"}))
    return _part(stock_services.correct(Command(request.user, body.key), tag, told).tag)


@router.post("/shelf/parts/{tag}/checks", response={200: v.PartDetailView, **WRITES}, operation_id="check_part")
@view_before_commit
def check_part(request: SignedIn, tag: Tag, body: v.ChecksIn) -> v.PartDetailView:
    """Write down what a part was seen to do."""
    stock_services.check_health(Command(request.user, body.key), tag, body.seen, body.unit)
    return _part(tag)


@router.post("/shelf/donors", response={200: v.DonorDetailView, **WRITES}, operation_id="add_donor")
@view_before_commit
def add_donor(request: SignedIn, body: v.DonorIn) -> v.DonorDetailView:
    """Keep a unit or drive for parts."""
    made = donor_services.add_donor(Command(request.user, body.key), body.variant, bought_cents=body.bought_cents, origin=body.origin, place=body.place)
    return _donor(made.tag)


@router.post("/shelf/donors/{tag}/checks", response={200: v.DonorDetailView, **WRITES}, operation_id="check_donor")
@view_before_commit
def check_donor(request: SignedIn, tag: Tag, body: v.ChecksIn) -> v.DonorDetailView:
    """Write down what a donor was seen to do."""
    stock_services.check_health(Command(request.user, body.key), donor_by_tag(tag).tag, body.seen, body.unit)
    return _donor(tag)


@router.post("/shelf/donors/{tag}/harvest", response={200: v.PartDetailView, **WRITES}, operation_id="harvest")
@view_before_commit
def harvest(request: SignedIn, tag: Tag, body: v.HarvestIn) -> v.PartDetailView:
    """Take a piece out of a donor and put it on the shelf."""
    return _part(donor_services.harvest(Command(request.user, body.key), tag, body.level, body.place).tag)


@router.post("/shelf/donors/{tag}/scrap", response={200: v.DonorDetailView, **WRITES}, operation_id="scrap_donor")
@view_before_commit
def scrap_donor(request: SignedIn, tag: Tag, body: v.DonorScrapIn) -> v.DonorDetailView:
    """Throw a donor away, or one piece of it."""
    return _donor(donor_services.scrap_donor(Command(request.user, body.key), tag, body.why, body.level).tag)


def _part(tag: str) -> v.PartDetailView:
    return part_detail_view(part_detail(part_by_tag(tag)))


def _donor(tag: str) -> v.DonorDetailView:
    return donor_detail_view(donor_detail(donor_by_tag(tag)))
