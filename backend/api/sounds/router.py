"""Recordings: sent once, served to who is signed in, shown with their job."""

from __future__ import annotations

from typing import Annotated

from api.common import READS, WRITES, SignedIn, Tag, never_changing, view_before_commit
from api.sounds.schemas import Hash, ReferenceIn, SoundSentView, SoundsView
from api.sounds.views import sounds_view
from apps.jobs.selectors import OpenJob, job_row, open_job
from apps.shop.selectors import the_shop
from apps.sounds.pictures import picture_of
from apps.sounds.selectors import content_of
from apps.sounds.services import end_reference, keep_reference, keep_sound
from apps.writing.once import Command
from django.http import HttpResponse
from ninja import File, Path, Router
from ninja.files import UploadedFile
from spindle.errors import NotFoundError
from spindle.job.sounds import in_words, read_heard
from spindle.sound.wav import MOST_BYTES

router = Router(tags=["sounds"])
Name = Annotated[Hash, Path()]


@router.post("/sounds", response={200: SoundSentView, **WRITES}, operation_id="send_sound")
def send(request: SignedIn, file: File[UploadedFile]) -> SoundSentView:
    """Take a recording in, a WAV file of 16 bit, and say whether it can be trusted. The same recording is kept once."""
    kept = keep_sound(request.user, file.read(MOST_BYTES + 1))
    heard = read_heard(kept.heard)
    quality = heard.quality
    return SoundSentView(hash=kept.hash, length_s=quality.length_s, grade=quality.grade, reasons=list(quality.reasons), heard=in_words(heard.events))


@router.get("/sounds/{name}", response={200: None, **READS}, operation_id="sound")
def show(request: SignedIn, name: Name) -> HttpResponse:
    """Return a recording. Its content never changes."""
    return never_changing(content_of(name), "audio/wav")


@router.get("/sounds/{name}/picture", response={200: None, **READS}, operation_id="sound_picture")
def picture(request: SignedIn, name: Name) -> HttpResponse:
    """Return its picture: time to the right, high pitches at the top, dark where it stands over the room."""
    return never_changing(picture_of(name), "image/png")


@router.get("/jobs/{tag}/sounds", response={200: SoundsView, **READS}, operation_id="sounds")
def of_job(request: SignedIn, tag: Tag) -> SoundsView:
    """Return the recordings of a job: what was heard, what it offers, and what that would move."""
    return sounds_view(_shown(tag))


@router.post("/jobs/{tag}/sounds/reference", response={200: SoundsView, **WRITES}, operation_id="say_reference")
@view_before_commit
def reference(request: SignedIn, tag: Tag, body: ReferenceIn) -> SoundsView:
    """Keep a recording as a healthy one of its model, or take it out of those."""
    shown = _shown(tag)
    sound = shown.job.sounds.get(body.line)
    if sound is None:
        raise NotFoundError(f"Line {body.line} is no recording, or is struck.")
    command = Command(request.user, body.key)
    if body.is_reference:
        keep_reference(command, sound.hash, variant=shown.unit.drive.variant, tag=shown.row.tag, microphone=sound.microphone)
    else:
        end_reference(command, sound.hash)
    return sounds_view(shown)


def _shown(tag: str) -> OpenJob:
    return open_job(job_row(tag), the_shop(), with_shelf=False)
