"""Which rows of a shop go into its archive, by which name each is known outside, and what of them is said.

What is not here does not go out: passwords and second factors, sessions, used keys, addresses with a secret in them, and whatever is
worked out anew (weeks, deeper looks, what jobs teach).
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any, Final

from apps.drives.consoles import document_of as console_document
from apps.drives.models import Console, Layer, Saying, Sheet
from apps.drives.selectors import document_of
from apps.jobs.models import Custody, Job, Taking, TapeLine, Want
from apps.people.models import User
from apps.photos.models import Photo
from apps.practice.models import Run
from apps.shelf.models import Check, Donor, Kind, Movement, Order, Part, Supplier
from apps.shop.models import Meter, Shop
from apps.sounds.models import Reference, Sound
from apps.writing.models import Trace
from django.db import models
from spindle.day.hours import check_hands
from spindle.drives.tables import pictures_in
from spindle.formats.console_file import read_console
from spindle.formats.sheet_file import read_sheet
from spindle.job.sounds import read_heard
from spindle.learning.layer import Layer as Learnt
from spindle.words.health import FUNCTIONS


@dataclass(frozen=True)
class Table:
    """One table of the archive.

    Attributes
    ----------
    name, says : of its member, and what it is called on a screen
    key : fields by which a row is known in every shop; empty where only the whole row tells one from another
    fields : what is said of a row, in this order; every field of the model but its number if empty
    later : fields that older archives do not have: the model's default stands for them
    leaves_out : fields that are not said: they are worked out anew, or nobody's business
    ours : fields in which a row that is here already may differ, and stays as it is here
    check : reads what a row holds as JSON, and raises what that raises: one sheet that cannot be read would take its drive from every bench
    tags : what its tags look like here, as a regular expression: the next one is counted from them
    of_jobs : which of its rows go with some jobs alone; None if none do
    """

    name: str
    says: str
    model: type[models.Model]
    key: tuple[str, ...] = ()
    fields: tuple[str, ...] = ()
    later: tuple[str, ...] = ()
    leaves_out: tuple[str, ...] = ()
    ours: tuple[str, ...] = ()
    of_jobs: Callable[[Sequence[Job]], models.QuerySet[Any]] | None = None
    check: Callable[[Any], object] | None = None
    tags: str = ""

    @property
    def columns(self) -> list[models.Field[Any, Any]]:
        """The fields that are said."""
        known = {f.name: f for f in self.model._meta.concrete_fields}
        return [known[name] for name in self.fields] if self.fields else [f for n, f in known.items() if n != "id" and n not in self.leaves_out]


NAMES_A_SHEET: Final = "drive"
"""The kind of line whose body names a sheet, by its number here."""


def _people_of(jobs: Sequence[Job]) -> models.QuerySet[User]:
    at_work = [TapeLine.objects.filter(job__in=jobs), _photos_of(jobs), _sounds_of(jobs), _sheets_of(jobs)]
    return User.objects.filter(pk__in={by for rows in at_work for by in rows.values_list("by_id", flat=True)})


def _sheets_of(jobs: Sequence[Job]) -> models.QuerySet[Sheet]:
    named = TapeLine.objects.filter(job__in=jobs, kind=NAMES_A_SHEET).values_list("body__sheet", flat=True)
    return Sheet.objects.filter(pk__in={*(job.sheet_id for job in jobs), *named})


def _photos_of(jobs: Sequence[Job]) -> models.QuerySet[Photo]:
    shown = {name for tables in _sheets_of(jobs).values_list("tables", flat=True) for name in pictures_in(tables)}
    return Photo.objects.filter(hash__in=_hashes(jobs, "photo") | shown)


def _sounds_of(jobs: Sequence[Job]) -> models.QuerySet[Sound]:
    return Sound.objects.filter(hash__in=_hashes(jobs, "sound"))


def _hashes(jobs: Sequence[Job], kind: str) -> set[str]:
    return set(TapeLine.objects.filter(job__in=jobs, kind=kind).values_list("body__hash", flat=True))


def _themselves(jobs: Sequence[Job]) -> models.QuerySet[Job]:
    return Job.objects.filter(pk__in=[job.pk for job in jobs])


def _check_sheet(sheet: Sheet) -> None:
    read_sheet(document_of(sheet))


def _check_console(console: Console) -> None:
    read_console(console_document(console))


def _check_shop(shop: Shop) -> None:
    shop.hours()
    check_hands(shop.benches, shop.without_iron)
    _ = shop.lacks, shop.sign


def _check_functions(row: Part | Saying) -> None:
    for function in (*row.works, *getattr(row, "fails", ())):
        if function not in FUNCTIONS:
            raise ValueError(f"there is no function {function!r}")


def _check_words(told: object) -> None:
    if not isinstance(told, dict) or not all(isinstance(word, str) for word in told.values()):
        raise ValueError("expected an object of texts")


_OF_A_JOB: Final = (
    "tag", "sheet", "owner_name", "owner_contact", "complaint", "condition", "limit_cents", "supply", "promised_on", "taken_in_at",
    "returns", "is_covered", "closed_at", "outcome", "guarantee_until",
)  # fmt: skip
_OF_A_PERSON: Final = ("first_name", "last_name", "role", "is_active")
_OF_THIS_HOUSE: Final = ("version", "shelf_version", "names_version", "cleared_on")
_VERSIONED: Final = ("is_current", "why", "by", "at")

JOB: Final = Table("jobs", "jobs", Job, key=("tag",), fields=_OF_A_JOB, of_jobs=_themselves, tags=r"K-\d{4,9}", check=lambda x: _check_words(x.condition))
"""A job's row holds its tape as ``lines``; whatever else is kept of it follows from that."""
LINE: Final = Table("lines", "lines of a tape", TapeLine, fields=("number", "version", "kind", "at", "by", "body"))

TABLES: Final = (
    Table("people", "people", User, key=("username",), fields=("username", *_OF_A_PERSON), ours=_OF_A_PERSON, of_jobs=_people_of),
    Table(
        "shop", "the shop’s figures", Shop, key=("name",), later=("label_columns", "label_rows", "without_iron"), leaves_out=_OF_THIS_HOUSE, check=_check_shop
    ),
    Table("meters", "meters", Meter, key=("name",)),
    Table("sheets", "drive sheets", Sheet, key=("variant", "version"), ours=(*_VERSIONED, "is_retired"), of_jobs=_sheets_of, check=_check_sheet),
    Table("consoles", "sheets of consoles", Console, key=("maker", "console", "revision", "version"), ours=_VERSIONED, check=_check_console),
    Table("layers", "what was learnt", Layer, key=("number",), ours=("is_used", "ended_by", "ended_at"), check=lambda x: Learnt.read(x.body)),
    Table("sayings", "what fits where", Saying, check=_check_functions),
    Table("suppliers", "suppliers", Supplier, key=("name",)),
    Table("kinds", "kinds of parts", Kind, key=("level", "code"), ours=("min_count",), later=("around_mm", "section_mm")),
    Table("orders", "orders", Order, key=("tag",), later=("came",), tags=r"O-\d{4,9}"),
    Table("donors", "donors", Donor, key=("tag",), tags=r"D-\d{4,9}", check=lambda x: _check_words(x.gone)),
    Table("parts", "parts", Part, key=("tag",), tags=r"P-\d{4,9}|K-\d{4,9}-[A-Z]{1,2}", check=_check_functions),
    Table("checks", "checks of parts", Check),
    Table("movements", "what happened on the shelf", Movement),
    Table("photos", "photos", Photo, key=("hash",), ours=("by", "at"), of_jobs=_photos_of),
    Table("sounds", "recordings", Sound, key=("hash",), ours=("by", "at"), of_jobs=_sounds_of, check=lambda x: read_heard(x.heard)),
    Table("references", "references of models", Reference),
    JOB,
    Table("takings", "pieces taken for jobs", Taking, key=("job", "line")),
    Table("wants", "parts that jobs wait for", Want, key=("job",)),
    Table("custody", "owners’ parts", Custody, key=("part",)),
    Table("traces", "who changed what", Trace),
    Table("practice", "practice runs", Run, later=("tells_each", "is_led", "sheet", "world")),
)
"""In the order in which they can be written: what is named stands before who names it."""
BY_MODEL: Final = {t.model: t for t in TABLES}
FILES: Final = {"photos": ".jpg", "sounds": ".wav"}
"""Tables whose rows have a file, and how it ends."""
