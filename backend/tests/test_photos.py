"""Pictures from outside: made anew or refused, and nothing of what was sent left behind."""

import os
import struct
import zlib
from datetime import timedelta
from io import BytesIO

import pytest
from apps.drives.models import Console
from apps.jobs.models import TapeLine
from apps.jobs.selectors import job_row, open_job
from apps.photos.models import Photo
from apps.photos.pictures import LONGEST_SIDE, MAX_BYTES, remade
from apps.photos.selectors import file_of
from apps.reports.selectors import report_of
from apps.shop.selectors import the_shop
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import call_command
from django.utils import timezone
from PIL import Image
from spindle.errors import InvalidError

JOB = "K-0107"
KINDS = ["JPEG", "PNG", "WEBP", "HEIF"]


def picture(kind="JPEG", size=(64, 40), mode="RGB", **more):
    out = BytesIO()
    Image.effect_noise(size, 60).convert(mode).save(out, kind, **more)
    return out.getvalue()


def with_place():
    """A JPEG whose Exif says where it was taken, and that it lies on its side."""
    exif = Image.Exif()
    exif[0x0112] = 6
    exif[0x010F] = "a maker"
    exif.get_ifd(0x8825)[1] = "N"
    return picture(size=(80, 40), exif=exif, comment=b"<script>alert(1)</script>")


def png_of(width, height):
    """A PNG that claims a size and holds almost nothing."""
    chunk = lambda kind, body: struct.pack(">I", len(body)) + kind + body + struct.pack(">I", zlib.crc32(kind + body))  # noqa: E731
    head = struct.pack(">IIBBBBB", width, height, 8, 2, 0, 0, 0)
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", zlib.compress(bytes(1000))) + chunk(b"IEND", b"")


JPEG, PNG, WEBP, HEIF = (picture(k) for k in KINDS)
SCRIPT = b"<svg xmlns='http://www.w3.org/2000/svg'><script>alert(1)</script></svg>"
ZIP = b"PK\x03\x04" + bytes(60) + b"PK\x05\x06" + bytes(18)
REFUSED = {
    "nothing": b"",
    "a byte": b"\xff",
    "text": b"hello " * 50,
    "html": b"<!doctype html><script>alert(1)</script>",
    "svg": SCRIPT,
    "pdf": b"%PDF-1.7\n" + bytes(200),
    "zip": ZIP,
    "elf": b"\x7fELF" + bytes(200),
    "php": b"<?php system($_GET[0]); ?>",
    "tiff": picture("TIFF"),
    "bmp": picture("BMP"),
    "gif": picture("GIF"),
    "ico": picture("ICO"),
    "ppm": picture("PPM"),
    "eps": b"%!PS-Adobe-3.0 EPSF-3.0\n%%BoundingBox: 0 0 9 9\n",
    "jpeg start alone": b"\xff\xd8\xff\xe0",
    "png start alone": PNG[:8],
    "png head alone": PNG[:33],
    "webp head alone": WEBP[:20],
    "heic head alone": HEIF[:40],
    "100 megapixels": png_of(10_000, 10_000),
    "wide as a road": png_of(2**31 - 1, 1),
    "tall": png_of(1, 2**31 - 1),
    "no size": png_of(0, 0),
    "a bomb": png_of(30_000, 30_000),
    "a speck": picture(size=(4, 4)),
    "a line": picture(size=(2000, 2)),
    "too many bytes": JPEG + bytes(MAX_BYTES),
    "png with a wrong sum": PNG[:40] + b"\x00\x00\x00\x00" + PNG[44:],
    **{f"half a {k}": raw[: len(raw) // 2] for k, raw in zip(KINDS, (JPEG, PNG, WEBP, HEIF), strict=True)},
    **{f"{k} turned round": raw[::-1] for k, raw in zip(KINDS, (JPEG, PNG, WEBP, HEIF), strict=True)},
    **{f"{k} head, then noise": raw[:24] + os.urandom(400) for k, raw in zip(KINDS, (JPEG, PNG, WEBP, HEIF), strict=True)},
}
HARMLESS = {
    "a place and a script in it": with_place(),
    "jpeg and zip": JPEG + ZIP,
    "png and html": PNG + b"<script>alert(1)</script>",
    "webp and svg": WEBP + SCRIPT,
    "grey": picture(mode="L"),
    "see-through": picture("PNG", mode="RGBA"),
    "palette": picture("PNG", mode="P"),
    "bits": picture("PNG", mode="1"),
    "16 bit": picture("PNG", mode="I;16"),
    "four inks": picture(mode="CMYK"),
    "progressive": picture(progressive=True),
    "large": picture(size=(4000, 3000)),
    "narrow": picture(size=(5000, 20)),
    "a long comment": picture(comment=b"x" * 60_000),
    "a colour profile of noise": picture(icc_profile=os.urandom(4000)),
    "moving png": picture("PNG", save_all=True, append_images=[Image.new("RGB", (64, 40))]),
    "moving webp": picture("WEBP", save_all=True, append_images=[Image.new("RGB", (64, 40))]),
    **{f"plain {k}": raw for k, raw in zip(KINDS, (JPEG, PNG, WEBP, HEIF), strict=True)},
}
NAMES = ["../../etc/passwd", "a/b\\c.jpg", "x.php", "nul\u0001.jpg", "a" * 200 + ".jpg", "photo.svg", ".htaccess"]


@pytest.fixture(autouse=True)
def shelf_of_pictures(settings, tmp_path):
    settings.PHOTOS = tmp_path / "photos"
    return settings.PHOTOS


def files(where):
    return [f for f in where.rglob("*") if f.is_file()] if where.exists() else []


def sent(bram, raw, name="photo.jpg"):
    return bram.client.post("/api/photos", {"file": SimpleUploadedFile(name, raw, "image/jpeg")})


@pytest.mark.parametrize("what", REFUSED)
def test_what_is_no_picture_is_refused_in_plain_words(what):
    with pytest.raises(InvalidError) as refused:
        remade(REFUSED[what])
    assert refused.value.params["place"] == "file"


@pytest.mark.parametrize("what", HARMLESS)
def test_what_is_a_picture_is_made_anew_without_what_hid_in_it(what):
    made = remade(HARMLESS[what])
    again = Image.open(BytesIO(made.content))
    assert (again.format, again.mode, max(again.size) <= LONGEST_SIDE) == ("JPEG", "RGB", True)
    assert not again.getexif()
    assert not {"comment", "icc_profile", "exif"} & set(again.info)
    assert not any(hidden in made.content for hidden in (b"script", b"PK\x03\x04", b"a maker"))


def test_a_picture_that_lies_on_its_side_stands_up():
    assert (remade(with_place()).width, remade(with_place()).height) == (40, 80)


@pytest.mark.parametrize("name", NAMES)
def test_the_name_that_it_had_is_used_for_nothing(bram, shelf_of_pictures, name):
    kept = sent(bram, JPEG, name).json()["hash"]
    assert files(shelf_of_pictures) == [shelf_of_pictures / kept[:2] / f"{kept}.jpg"]


def test_a_refused_file_leaves_nothing_behind(bram, shelf_of_pictures):
    before = Photo.objects.count()
    assert [sent(bram, REFUSED[w]).status_code for w in ("svg", "a bomb", "half a PNG")] == [422, 422, 422]
    assert (files(shelf_of_pictures), Photo.objects.count()) == ([], before)


def test_a_photo_is_kept_once_and_stands_on_its_job(bram):
    names = {sent(bram, JPEG).json()["hash"] for _ in range(2)}
    (name,) = names
    job = bram.ask(JOB, "photograph", hash=name, of="drive:Board flex", moment="before").json()
    assert [(p["hash"], p["of"], p["moment"]) for p in job["photos"]] == [(name, "drive:Board flex", "before")]
    line = job["photos"][0]["line"]
    marked = bram.ask(JOB, "mark_photo", line=line, dots=[{"x": 10, "y": 20.5, "says": "bar"}], for_owner=True).json()
    assert marked["photos"][0]["dots"] == [{"x": 10, "y": 20.5, "says": "bar"}]
    assert bram.ask(JOB, "strike", line=line).json()["photos"] == []
    assert bram.ask(JOB, "restore", line=line).json()["photos"][0]["dots"]


def test_a_picture_is_shown_to_who_is_signed_in_and_never_as_anything_else(bram, client):
    name = sent(bram, JPEG).json()["hash"]
    shown = bram.client.get(f"/api/photos/{name}")
    assert (shown["Content-Type"], shown["X-Content-Type-Options"]) == ("image/jpeg", "nosniff")
    assert "sandbox" in shown["Content-Security-Policy"]
    file_of(name).unlink()
    assert "backup" in bram.client.get(f"/api/photos/{name}").json()["title"]
    assert client.get(f"/api/photos/{name}").status_code == 401
    assert [bram.client.get(f"/api/photos/{n}").status_code for n in ("0" * 64, "..%2f..%2fsecret-key", name[:-1])] == [404, 404, 422]


def test_what_was_sent_and_never_kept_is_swept_away(bram, shelf_of_pictures):
    kept, left, shown = (sent(bram, raw).json()["hash"] for raw in (JPEG, PNG, picture(size=(20, 30))))
    bram.ask(JOB, "photograph", hash=kept)
    Console.objects.filter(console="Orlo 3", is_current=True).update(tables={"opening": [{"step": "Cover", "picture": shown}]})
    call_command("sweep_photos", verbosity=0)
    assert len(files(shelf_of_pictures)) == 3
    Photo.objects.update(at=timezone.now() - timedelta(days=3))
    call_command("sweep_photos")
    assert sorted(files(shelf_of_pictures)) == sorted([file_of(kept), file_of(shown)])
    assert bram.client.get(f"/api/photos/{left}").status_code == 404
    assert TapeLine.objects.filter(kind="photo", body__hash=kept).count() == 1


def test_the_report_shows_what_the_owner_may_have_and_says_which_screw_is_none(bram):
    for raw, owner in ((JPEG, True), (PNG, False)):
        bram.ask(JOB, "photograph", hash=sent(bram, raw).json()["hash"], says="the seal", for_owner=owner)
    bram.ask(JOB, "mark_place", place="console:rear edge#2", state="explained", why="the boss is torn")
    report = report_of(open_job(job_row(JOB), the_shop(), with_shelf=False))
    assert [shows for _, shows in report.photos] == ["the seal"]
    assert "Screw, rear edge, 2: stays empty: the boss is torn" in report.noted
    assert b"/Image" in bram.client.get(f"/api/jobs/{JOB}/report.pdf").content
