"""Taking an archive in: what is not here is added, what is here alike stays, what contradicts is refused, and then nothing is changed."""

from __future__ import annotations

import hashlib
import json
from collections import Counter
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from io import BytesIO
from itertools import islice
from typing import Any, Final

from apps.exchange.rows import Name, Names, name_of, read_row, read_value, shown, written
from apps.exchange.sending import KEPT_IN, tape_of
from apps.exchange.tables import FILES, JOB, LINE, NAMES_A_SHEET, TABLES, Table
from apps.jobs.folding import value_of
from apps.jobs.models import Job, TapeLine
from apps.jobs.selectors import economy_of, whole_jobs
from apps.jobs.services.writing import keep
from apps.people.models import User
from apps.people.permissions import require
from apps.photos.pictures import check_kept
from apps.shelf.models import Part
from apps.shop.models import Shop
from apps.shop.selectors import the_shop
from apps.writing.once import lock
from django.contrib.auth.hashers import make_password
from django.db import DataError, IntegrityError, models, transaction
from spindle.errors import CaseError, InvalidError, SpindleError
from spindle.formats.archive import ArchiveReader
from spindle.job.stages import Stage
from spindle.job.state import state_of
from spindle.sound.wav import read_wav
from spindle.words.duty import Duty

BATCH: Final = 500
MOST_LINES: Final = 20_000
MAX_UPLOAD: Final = 12_000_000
"""What a screen may send: the server takes no larger body."""
MAX_UNPACKED: Final = 200_000_000
MAX_ROWS: Final = 3_000
"""From a screen: while it is taken in nobody else writes, and a few hundred jobs take some seconds."""
_CHECKS: Final[Mapping[str, Callable[[bytes], object]]] = {"photos": check_kept, "sounds": read_wav}
_SHEET: Final = Job._meta.get_field("sheet")
_LOCKS: Final = ("counter", "shelf", "shop", "staff", "layer", "meters")


@dataclass(frozen=True)
class Taken:
    """What was added, table by table, what was here already alike, and which files the archive lacked."""

    added: Counter[str] = field(default_factory=Counter)
    alike: Counter[str] = field(default_factory=Counter)
    missing: list[str] = field(default_factory=list)

    @property
    def tables(self) -> list[Table]:
        """The tables that the archive had rows of, in their order."""
        return [t for t in TABLES if self.added[t.name] or self.alike[t.name]]


def take_in(reader: ArchiveReader) -> Taken:
    """Take an archive in, whole or not at all.

    Into an empty house the shop's own figures come with it; elsewhere ours stay, and so do names and roles of people who are known here.
    Who is new cannot sign in until a manager has given them a password. A single job has to be closed.

    Raises
    ------
    CaseError
        If a row cannot be read, contradicts one that is here, or a tape cannot be folded; says where.
    """
    new_files: list[tuple[Table, str]] = []
    try:
        with transaction.atomic():
            for name in _LOCKS:
                lock(name)
            return _Taking(reader, new_files).run()
    except BaseException:
        for table, known in new_files:
            if not table.model._default_manager.filter(hash=known).exists():  # somebody may have sent the same meanwhile
                KEPT_IN[table.name]().drop(known)
        raise


def take_upload(user: User, raw: bytes) -> Taken:
    """Take an archive in that somebody sent from a screen.

    Raises
    ------
    NotAllowedError
        If the user's role may not.
    InvalidError
        If it is too large to be sent, or cannot be taken in; says where.
    """
    require(user, Duty.SHOP)
    if len(raw) > MAX_UPLOAD:
        raise InvalidError("file", f"The file has more than {MAX_UPLOAD // 1_000_000} MB. At the machine itself ./spindle import takes one of any size.")
    try:
        return take_in(ArchiveReader(BytesIO(raw), most_bytes=MAX_UNPACKED, most_rows=MAX_ROWS))
    except CaseError as error:
        raise InvalidError(error.place, error.message) from error


class _Taking:
    def __init__(self, reader: ArchiveReader, new_files: list[tuple[Table, str]]) -> None:
        self._reader, self._new_files = reader, new_files
        self._names, self._taken = Names(), Taken()
        self._is_empty = not Job.objects.exists() and not Part.objects.exists()

    def run(self) -> Taken:
        for table in TABLES:
            if table.model is Shop:
                self._take_shop(table)
            elif table is JOB:
                self._take_jobs()
            else:
                known = None if table.key else self._digests(table)
                for batch in _batches(self._reader.rows(table.name)):
                    self._take(table, batch, known)
        for table in TABLES:
            if table.name in FILES:
                self._take_files(table)
        return self._taken

    def _take_shop(self, table: Table) -> None:
        for place, told in self._reader.rows(table.name):
            made = read_row(table, told, place, self._names)
            if self._is_empty:
                Shop.objects.update_or_create(pk=1, defaults={c.attname: getattr(made, c.attname) for c in table.columns})
                self._taken.added[table.name] += 1

    def _take(self, table: Table, batch: Sequence[tuple[str, dict[str, Any]]], known: set[bytes] | None) -> None:
        made = [(place, read_row(table, told, place, self._names)) for place, told in batch]
        if known is None:
            fresh = self._unknown(table, made)
        else:
            fresh = [(place, row) for place, row in made if _is_new(_digest(shown(table, row, self._names)), known)]
            self._taken.alike[table.name] += len(made) - len(fresh)
        for _, row in fresh:
            _settle(row)
        _create(fresh)
        self._taken.added[table.name] += len(fresh)
        for _, row in fresh if known is None else ():
            self._names.add(table, name_of(table, row, self._names), row.pk)

    def _unknown(self, table: Table, made: Sequence[tuple[str, models.Model]]) -> list[tuple[str, models.Model]]:
        """Return the rows that are not here, and check that the others are as they are here."""
        fresh, here, seen = [], {}, set()
        for place, row in made:
            name = name_of(table, row, self._names)
            if name in seen:
                raise CaseError(place, f"stands twice: {_said(name)}")
            seen.add(name)
            number = self._names.number(table.model, name)
            if number is None:
                fresh.append((place, row))
            else:
                here[number] = (place, row)
        for ours in table.model._default_manager.filter(pk__in=here):
            place, row = here[ours.pk]
            _check_alike(table, place, shown(table, row, self._names), shown(table, ours, self._names))
        self._taken.alike[table.name] += len(here)
        return fresh

    def _take_jobs(self) -> None:
        shop = the_shop()
        for place, told in self._reader.rows(JOB.name):
            lines = told.pop("lines", None)
            if not isinstance(lines, list) or len(lines) > MOST_LINES or not all(isinstance(x, dict) for x in lines):
                raise CaseError(f"{place}/lines", f"expected a list of at most {MOST_LINES} lines of a tape")
            row = read_row(JOB, told, place, self._names)
            name = name_of(JOB, row, self._names)
            number = self._names.number(Job, name)
            if number is None:
                _create([(place, row)])
                self._names.add(JOB, name, row.pk)
                self._take_tape(row, lines, place)
                self._keep(row.pk, place, shop)
                self._taken.added[JOB.name] += 1
                continue
            ours = shown(JOB, Job.objects.get(pk=number), self._names)
            _check_alike(JOB, place, {**shown(JOB, row, self._names), "lines": lines}, {**ours, "lines": tape_of(name[0], self._names)})
            self._taken.alike[JOB.name] += 1

    def _take_tape(self, job: models.Model, lines: list[dict[str, Any]], place: str) -> None:
        made = []
        for n, told in enumerate(lines, 1):
            at = f"{place}/lines/{n - 1}"
            line = read_row(LINE, told, at, self._names)
            assert isinstance(line, TapeLine)  # of the table
            if line.number != n or not isinstance(line.body, dict):
                raise CaseError(at, f"expected line {n} of the tape with an object as its body, got number {line.number}")
            if line.kind == NAMES_A_SHEET:
                line.body = {**line.body, "sheet": read_value(_SHEET, line.body.get("sheet"), f"{at}/body/sheet", self._names)}
            line.job = job  # type: ignore[assignment]  # of the table, too
            made.append((at, line))
        _create(made)

    def _keep(self, pk: int, place: str, shop: Shop) -> None:
        """Fold the tape, and make anew what is kept beside it."""
        row = whole_jobs().get(pk=pk)
        try:
            job = value_of(row)
            state = state_of(job, economy_of(job, shop))
        except (SpindleError, LookupError, ValueError, TypeError) as error:
            raise CaseError(f"{place}/lines", f"this tape cannot be read: {error}") from error
        if self._reader.manifest.of != "shop" and job.stage is not Stage.CLOSED:
            raise CaseError(place, f"{row.tag} is not closed: an open job holds pieces of its own shop, and comes with that shop alone")
        keep(row, state, shop)

    def _take_files(self, table: Table) -> None:
        kept = KEPT_IN[table.name]()
        for place, told in self._reader.rows(table.name):
            known = told["hash"]
            member = f"{table.name}/{known}{FILES[table.name]}"
            if kept.path(known).exists():
                continue
            if not self._reader.has(member):
                self._taken.missing.append(member)
                continue
            content = self._reader.file(member)
            if hashlib.sha256(content).hexdigest() != known:
                raise CaseError(place, f"{member} is not what its name says")
            try:
                _CHECKS[table.name](content)
            except SpindleError as error:
                raise CaseError(member, error.message) from error
            self._new_files.append((table, known))
            kept.put(known, content)

    def _digests(self, table: Table) -> set[bytes]:
        return {_digest(row) for row in written(table, self._names)}


def _create(rows: Sequence[tuple[str, models.Model]]) -> None:
    """Keep new rows; one that the database refuses is named."""
    if not rows:
        return
    model = type(rows[0][1])
    try:
        with transaction.atomic():
            model._default_manager.bulk_create([row for _, row in rows])
    except (IntegrityError, DataError) as error:
        if len(rows) == 1:
            raise CaseError(rows[0][0], f"does not fit to what is here ({str(error).splitlines()[0]})") from error
        for _, row in rows:
            row.pk = None
        for one in rows:
            _create([one])


def _settle(row: models.Model) -> None:
    """Let what is in use here stay in use, and let nobody come in by a password that came along."""
    if isinstance(row, User):
        row.password = make_password(None)
    for flag, same in {"is_current": ("variant",) if hasattr(row, "variant") else ("maker", "console", "revision"), "is_used": ()}.items():
        if getattr(row, flag, False) and type(row)._default_manager.filter(**{flag: True, **{s: getattr(row, s) for s in same}}).exists():
            setattr(row, flag, False)


def _check_alike(table: Table, place: str, told: dict[str, Any], here: dict[str, Any]) -> None:
    for column, value in told.items():
        if column not in table.ours and value != here[column]:
            raise CaseError(f"{place}/{column}", f"this one is here already, and otherwise{_how(here[column], value)}")


def _how(here: Any, told: Any) -> str:
    """Return how two values differ, where that is said in a few words."""
    if isinstance(here, list | dict) or isinstance(told, list | dict):
        return ""
    return f": {str(here)[:60]!r} here, {str(told)[:60]!r} in the archive"


def _said(name: Name) -> str:
    return " ".join(str(n) for n in name)


def _is_new(digest: bytes, known: set[bytes]) -> bool:
    if digest in known:
        return False
    known.add(digest)
    return True


def _digest(row: dict[str, Any]) -> bytes:
    return hashlib.sha256(json.dumps(row, sort_keys=True).encode()).digest()[:16]


def _batches(rows: Iterator[tuple[str, dict[str, Any]]]) -> Iterator[list[tuple[str, dict[str, Any]]]]:
    while batch := list(islice(rows, BATCH)):
        yield batch
