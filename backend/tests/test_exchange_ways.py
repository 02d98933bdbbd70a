"""One job's archive, and the ways by which archives go: screens and commands."""

import gc

import pytest
from apps.demo.services import wipe
from apps.drives.models import Sheet
from apps.exchange import taking
from apps.jobs.models import Job, TapeLine
from apps.photos.models import Photo
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import CommandError, call_command
from spindle.errors import CaseError
from spindle.formats.archive import ArchiveReader

from .archives import edited, sent, take
from .conftest import FRESH, PROVE

pytestmark = pytest.mark.usefixtures("forgets_sheets")

CLOSED = "K-0101"


def test_a_screen_takes_no_archive_that_others_would_wait_for(ida, monkeypatch):
    monkeypatch.setattr(taking, "MAX_ROWS", 20)
    answer = ida.client.post("/api/archive", {"file": SimpleUploadedFile("shop.zip", sent().getvalue())})
    assert answer.status_code == 422
    assert "use ./spindle import" in answer.json()["title"]


def test_a_closed_job_goes_to_another_shop_with_its_sheet_and_its_people(db):
    raw = sent(CLOSED)
    tape = list(TapeLine.objects.filter(job__tag=CLOSED).order_by("number").values_list("kind", "body"))
    wipe()
    taken = take(raw)
    assert taken.added["jobs"] == 1
    assert list(TapeLine.objects.order_by("number").values_list("kind", "body")) == tape
    assert Job.objects.get().stage == "closed"
    assert set(Sheet.objects.values_list("variant", flat=True)) == {Job.objects.get().sheet.variant}


def test_a_job_takes_along_what_its_sheet_shows(bram):
    own = set(TapeLine.objects.filter(job__tag=CLOSED, kind="photo").values_list("body__hash", flat=True))
    name = Photo.objects.exclude(hash__in=own).values_list("hash", flat=True).first()
    Sheet.objects.filter(pk=Job.objects.get(tag=CLOSED).sheet_id).update(tables={"opening": [{"step": "Cover", "picture": name}]})
    assert name in {row["hash"] for _, row in ArchiveReader(sent(CLOSED)).rows("photos")}


def test_a_job_takes_every_sheet_along_that_its_tape_names(db, bram):
    tag, others = FRESH, list(Sheet.objects.filter(facts__family="slot", is_current=True).exclude(job__tag=FRESH)[:2])
    for other in others:
        assert bram.ask(tag, "identify", sheet_id=other.pk).status_code == 200
    named = {sheet for _, sheet in ArchiveReader(sent(tag)).rows("sheets") for sheet in [sheet["variant"]]}
    assert named == {other.variant for other in others}


def test_tags_go_on_after_an_archive_brought_lower_ones(nia):
    take(edited(sent(), "jobs", lambda row: row.update(tag="K-0100")))
    assert Job.objects.order_by("pk").last().tag == "K-0100"
    notes = {"owner_name": "Odo", "owner_contact": "desk", "complaint": "", "supply": "", "limit_cents": 0, "promised_on": None, "condition": {}}
    taken = [nia.post("/jobs", key=f"intake-000{n}", sheet_id=Sheet.objects.first().pk, **notes).json()["tag"] for n in (1, 2)]
    assert taken == ["K-0115", "K-0116"]


def test_an_open_job_does_not_go_alone(db):
    raw = sent(PROVE)
    wipe()
    with pytest.raises(CaseError, match="is not closed"):
        take(raw)
    assert not Job.objects.exists()


@pytest.mark.parametrize(("who", "status"), [("ida", 200), ("bram", 403), ("nia", 403)])
def test_a_manager_alone_takes_a_shop_out_and_in(request, db, who, status):
    browser = request.getfixturevalue(who)
    for path, allowed in {"/archive": status, f"/jobs/{CLOSED}/archive": 200}.items():
        answer = browser.get(path)
        assert answer.status_code == allowed
        assert allowed != 200 or b"".join(answer.streaming_content)[:2] == b"PK"
    file = SimpleUploadedFile("shop.zip", sent().getvalue())
    assert browser.client.post("/api/archive", {"file": file}).status_code == status


def test_a_bad_upload_says_where(ida):
    answer = ida.client.post("/api/archive", {"file": SimpleUploadedFile("shop.zip", b"no zip")})
    assert answer.status_code == 422
    assert answer.json()["params"]["place"] == "archive"


def test_the_commands_write_over_nothing_and_say_what_is_wrong(db, tmp_path):
    file = tmp_path / "shop.zip"
    call_command("export_shop", file)
    with pytest.raises(CommandError, match="there already"):
        call_command("export_shop", file)
    call_command("import_shop", file)
    file.write_bytes(b"no zip")
    with pytest.raises(CommandError, match="Nothing was changed"):
        call_command("import_shop", file)
    with pytest.raises(CommandError, match="There is no job"):
        call_command("export_shop", tmp_path / "job.zip", job="K-9999")
    assert [f.name for f in tmp_path.iterdir()] == ["shop.zip"]


def test_an_archive_that_nobody_reads_leaves_no_file_open(ida):
    answer = ida.client.get("/api/archive")
    assert int(answer["Content-Length"]) > 1_000
    del answer
    gc.collect()  # an open file would warn here, and a warning is an error
