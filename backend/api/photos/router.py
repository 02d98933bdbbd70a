"""Photos: sent once, served to who is signed in."""

from __future__ import annotations

from typing import Annotated

from api.common import READS, WRITES, SignedIn, View, never_changing
from apps.photos.pictures import MAX_BYTES
from apps.photos.selectors import content_of
from apps.photos.services import keep_photo
from django.http import HttpResponse
from ninja import File, Path, Router
from ninja.files import UploadedFile
from pydantic import StringConstraints
from spindle.words.bounds import CONTENT_HASH

router = Router(tags=["photos"])
Hash = Annotated[str, StringConstraints(pattern=CONTENT_HASH), Path()]


class PhotoSentView(View):
    """A picture that has arrived: a job's tape names it by its hash."""

    hash: str
    width: int
    height: int


@router.post("/photos", response={200: PhotoSentView, **WRITES}, operation_id="send_photo")
def send(request: SignedIn, file: File[UploadedFile]) -> PhotoSentView:
    """Take a picture in, made anew without what stood beside it. The same picture is kept once."""
    kept = keep_photo(request.user, file.read(MAX_BYTES + 1))
    return PhotoSentView(hash=kept.hash, width=kept.width, height=kept.height)


@router.get("/photos/{name}", response={200: None, **READS}, operation_id="photo")
def show(request: SignedIn, name: Hash) -> HttpResponse:
    """Return a picture. Its content never changes."""
    return never_changing(content_of(name), "image/jpeg")
