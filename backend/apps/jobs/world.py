"""The shop as a job's rules see it: its figures, its shelf, its sheets. Read only; what a decision changes is carried out elsewhere."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime

from apps.drives.selectors import full_sheet, sheet
from apps.jobs.folding import sheet_ref
from apps.jobs.models import Job
from apps.jobs.selectors import economy_of, holders, owner_of, shelf_for
from apps.photos.selectors import is_kept
from apps.shelf.models import Donor, Part
from apps.shelf.offers import offers_for
from apps.shelf.selectors import donor_by_tag, donor_pieces, piece_cents
from apps.shelf.services.pieces import lock_shelf, next_tag
from apps.shop.models import Shop
from apps.sounds.selectors import heard_in
from spindle.diagnosis.given.case import Stock
from spindle.diagnosis.given.economy import Economy
from spindle.errors import GoneError
from spindle.job import value
from spindle.job.effects import ShelfPiece
from spindle.job.value import SheetRef
from spindle.sound.listening import Heard
from spindle.words.bench import Instrument
from spindle.words.health import Health


class ShopWorld:
    """The world of one write. What it may move is locked before anything is decided, so that nothing changes in between."""

    def __init__(self, row: Job, job: value.Job, shop: Shop, now: datetime) -> None:
        self._row, self._shop, self.now = row, shop, now
        self.economy: Economy = economy_of(job, shop)
        self.lacks: frozenset[Instrument] = shop.lacks
        self.price_cents_per_min: int = shop.price_cents_per_min

    @staticmethod
    def hold(tags: Iterable[str]) -> None:
        """Hold the shelf if any of these tags is a thing of it."""
        asked = [t for t in tags if t]
        if asked and (Part.objects.filter(tag__in=asked).exists() or Donor.objects.filter(tag__in=asked).exists()):
            lock_shelf()

    def stock(self) -> tuple[Stock, ...]:
        """Return what the shelf holds for this unit."""
        return shelf_for(self._row.sheet_id, self._shop)

    def piece(self, tag: str, level: str) -> ShelfPiece | None:
        """Return the piece of that tag, or the piece of that level in the donor of that tag; None if there is no such thing."""
        donor = Donor.objects.filter(tag=tag).first()
        if donor is not None:
            return self._in_donor(tag, level)
        part = Part.objects.select_related("kind").filter(tag=tag).first()
        if part is None:
            return None
        known = Health(part.health), frozenset(part.works), frozenset(part.fails)
        return ShelfPiece(part.tag, part.kind.level, *known, part.piece_cents, part.count > 0, owner=owner_of(part))

    @staticmethod
    def _in_donor(tag: str, level: str) -> ShelfPiece:
        donor = donor_by_tag(tag)
        piece = next((p for p in donor_pieces(donor) if p.level == level and not p.gone), None)
        if piece is None:
            return ShelfPiece(donor.tag, level, is_here=False, donor=donor.tag)
        known = piece.condition.health, piece.condition.works, piece.condition.fails
        return ShelfPiece(next_tag(Part, "P"), level, *known, piece_cents(donor, level), donor=donor.tag)

    def gone(self, piece: ShelfPiece) -> GoneError:
        """Return the error that says who has the last one and what else fits."""
        offers = offers_for(full_sheet(self._row.sheet_id), self._shop.today(), levels=[piece.level])
        others = [o.tag for o in offers if o.tag != piece.tag][:4]
        part = Part.objects.filter(tag=piece.tag).first()
        have = holders(part) if part is not None else []
        who = f" {have[0]['by']} has it for {have[0]['job']}." if have else ""
        return GoneError(f"{piece.tag} is gone.{who} Also fits: {', '.join(others) or 'nothing that is here or on its way'}.", holders=have, others=others)

    @staticmethod
    def has_photo(name: str) -> bool:
        """Tell whether the picture of that hash was sent."""
        return is_kept(name)

    @staticmethod
    def heard(name: str) -> Heard:
        """Return what is in the recording of that hash, or raise NotFoundError."""
        return heard_in(name)

    @staticmethod
    def sheet(number: int) -> SheetRef:
        """Return a version of a drive sheet, or raise NotFoundError."""
        return sheet_ref(sheet(number))
