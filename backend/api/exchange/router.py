"""Archives: the whole shop as one open file, one job with all that is its own, and either taken in."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from tempfile import TemporaryFile
from typing import IO
from weakref import finalize

from api.common import READS, WRITES, SignedIn, Tag, View
from apps.exchange.sending import send_job, send_shop
from apps.exchange.taking import MAX_UPLOAD, take_upload
from apps.jobs.selectors import job_row
from apps.people.permissions import require
from apps.shop.selectors import the_shop
from django.http import StreamingHttpResponse
from ninja import File, Router
from ninja.files import UploadedFile
from spindle.words.duty import Duty

router = Router(tags=["exchange"])


class ArchiveTableView(View):
    """What came of one table of an archive."""

    name: str
    says: str
    added: int
    alike: int


class ArchiveTakenView(View):
    """What came of an archive."""

    tables: list[ArchiveTableView]
    missing: list[str]
    """Files that its rows name and that are not in it."""


@router.get("/archive", response={200: None, **READS, 403: WRITES[403]}, operation_id="archive")
def archive(request: SignedIn) -> StreamingHttpResponse:
    """Return everything that the shop has, as one archive; for managers."""
    require(request.user, Duty.SHOP)
    return _sent(send_shop, f"shop-{the_shop().today().isoformat()}.zip")


@router.get("/jobs/{tag}/archive", response={200: None, **READS}, operation_id="job_archive")
def job_archive(request: SignedIn, tag: Tag) -> StreamingHttpResponse:
    """Return one job with its tape, photos, recordings and sheet, as an archive."""
    row = job_row(tag)
    return _sent(lambda out: send_job(out, row), f"{row.tag}.zip")


def _sent(send: Callable[[IO[bytes]], object], name: str) -> StreamingHttpResponse:
    """Return an archive that is whole before its first byte goes out: what cannot be written is an error, and no half file."""
    out = TemporaryFile()  # noqa: SIM115  # its blocks close it
    try:
        send(out)
    except BaseException:
        out.close()
        raise
    answer = StreamingHttpResponse(_Blocks(out), content_type="application/zip")
    answer["Content-Length"], answer["Content-Disposition"] = out.tell(), f'attachment; filename="{name}"'
    return answer


class _Blocks:
    """A file in blocks. It is closed when it was sent, when its answer is, and when nobody holds it any more: an answer may never be read."""

    def __init__(self, out: IO[bytes]) -> None:
        self._out = out
        self.close = finalize(self, out.close)

    def __iter__(self) -> Iterator[bytes]:
        self._out.seek(0)
        while block := self._out.read(1 << 16):
            yield block
        self.close()


@router.post("/archive", response={200: ArchiveTakenView, **WRITES}, operation_id="take_archive")
def take(request: SignedIn, file: File[UploadedFile]) -> ArchiveTakenView:
    """Take an archive in, whole or not at all. The same archive once more changes nothing."""
    taken = take_upload(request.user, file.read(MAX_UPLOAD + 1))
    return ArchiveTakenView(
        tables=[ArchiveTableView(name=t.name, says=t.says, added=taken.added[t.name], alike=taken.alike[t.name]) for t in taken.tables], missing=taken.missing
    )
