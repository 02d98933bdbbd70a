"""Recordings: sent, heard, taken as answers, kept as references, and thrown away when their time is over."""

import wave
from datetime import timedelta
from io import BytesIO

import numpy as np
import pytest
from apps.demo.sounds import played
from apps.jobs.models import Job
from apps.sounds.models import Reference, Sound
from apps.sounds.services import CLOSED_DAYS, UNNAMED_DAYS
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import call_command
from django.utils import timezone

JOB, TRAY = "K-0107", "K-0110"
CYCLES = played("weak_light", "slot", 21)


@pytest.fixture(autouse=True)
def shelf_of_sounds(settings, tmp_path):
    settings.SOUNDS = tmp_path / "sounds"
    return settings.SOUNDS


def sent(who, raw, name="recording.wav"):
    return who.client.post("/api/sounds", {"file": SimpleUploadedFile(name, raw, "audio/wav")})


def kept(who, tag=JOB, raw=CYCLES, **more):
    """A recording that is kept with a job: its line."""
    job = who.ask(tag, "keep_sound", hash=sent(who, raw).json()["hash"], **more).json()
    return job["tape"][-1]["number"]


def shown(who, tag=JOB):
    return who.get(f"/jobs/{tag}/sounds").json()["sounds"]


def offer(sound, question):
    return next(o for o in sound["offers"] if o["question"] == question)


def wav(bits=16, rate=16_000, channels=1, seconds=2):
    out = BytesIO()
    with wave.open(out, "wb") as file:
        file.setparams((channels, bits // 8, rate, 0, "NONE", ""))
        file.writeframes(bytes(seconds * rate * channels * bits // 8))
    return out.getvalue()


@pytest.mark.parametrize(
    ("raw", "code"),
    [
        (b"ID3" + bytes(99), "sound_not_wav"),
        (wav(bits=24), "sound_not_pcm16"),
        (wav(channels=4), "sound_channels"),
        (wav(rate=96_000), "sound_rate"),
        (wav(seconds=0), "sound_too_short"),
        (b"", "sound_not_wav"),
    ],
)
def test_what_cannot_be_read_is_refused_in_plain_words_and_leaves_nothing(bram, shelf_of_sounds, raw, code):
    before = Sound.objects.count()
    answer = sent(bram, raw)
    assert (answer.status_code, answer.json()["code"]) == (422, code)
    assert (Sound.objects.count(), list(shelf_of_sounds.rglob("*.wav"))) == (before, [])


def test_a_recording_is_kept_once_and_played_as_it_was_sent(bram):
    names = {sent(bram, CYCLES).json()["hash"] for _ in range(2)}
    (name,) = names
    assert bram.client.get(f"/api/sounds/{name}").content == CYCLES
    assert bram.client.get(f"/api/sounds/{name}/picture").content[:4] == b"\x89PNG"
    assert Sound.objects.filter(hash=name).count() == 1


def test_who_does_not_work_at_the_bench_sends_none(nia, client):
    assert sent(nia, CYCLES).status_code == 403
    assert client.get("/api/sounds/" + "a" * 64).status_code == 401


def test_what_is_heard_is_offered_and_moves_nothing_before_it_is_taken(bram):
    before = bram.get(f"/jobs/{JOB}").json()["diagnosis"]["suspects"]
    line = kept(bram)
    sound = next(s for s in shown(bram) if s["line"] == line)
    assert [e["kind"] for e in sound["events"]].count("spin_up") >= 2
    assert offer(sound, "spins")["outcome"] == "cycles"
    assert bram.get(f"/jobs/{JOB}").json()["diagnosis"]["suspects"] == before


def test_an_answer_that_is_taken_moves_the_suspects_once_and_is_struck_with_its_recording(bram):
    line = kept(bram, TRAY, played("belt", "tray", 3))
    before = bram.get(f"/jobs/{TRAY}").json()["diagnosis"]["suspects"]
    told = offer(shown(bram, TRAY)[0], "tray_sound")
    assert (told["outcome"], told["taken"]) == ("whirrs", None)
    assert told["moves"]
    body = {"sound": line, "question": "tray_sound", "outcome": "whirrs"}
    after = bram.ask(TRAY, "hear", **body)
    assert after.json()["diagnosis"]["suspects"] != before
    assert offer(shown(bram, TRAY)[0], "tray_sound")["taken"] == after.json()["tape"][-1]["number"]
    again = bram.ask(TRAY, "hear", **body)
    assert (again.status_code, again.json()["params"]["reason"]) == (409, "taken_already")
    assert bram.ask(TRAY, "strike", line=line).json()["diagnosis"]["suspects"] == before


def test_a_recording_does_not_stand_in_the_place_of_what_the_bench_saw(bram):
    line = kept(bram)
    told = offer(shown(bram)[0], "spins")
    assert (told["moves"], told["seen"] is not None) == ([], True)
    answer = bram.ask(JOB, "hear", sound=line, question="spins", outcome="cycles")
    assert answer.json()["params"]["reason"] == "seen_already"
    assert bram.ask(JOB, "hear", sound=line, question="spins", outcome="cycles", listened=True).status_code == 200


def test_what_is_put_right_is_offered_anew_and_can_be_undone(bram):
    line = kept(bram)
    was = shown(bram)[0]
    assert bram.ask(JOB, "retell", sound=line, events=[{"kind": "ticking", "start_s": 3, "end_s": 5}]).status_code == 200
    now = shown(bram)[0]
    assert offer(now, "sled_sound")["outcome"] == "hammers"
    bram.ask(JOB, "strike", line=now["retold"])
    assert shown(bram)[0]["events"] == was["events"]


def test_a_healthy_recording_is_a_reference_until_it_is_none(bram):
    line = kept(bram)
    say = lambda is_one, key: bram.post(f"/jobs/{JOB}/sounds/reference", key=key, line=line, is_reference=is_one)  # noqa: E731
    assert say(True, "reference-1").json()["sounds"][0]["is_reference"]
    assert say(True, "reference-2").status_code == 200
    assert Reference.objects.filter(ended_at=None).count() == 1
    kept(bram, "K-0102", played("healthy", "slot", 4))
    assert "1 of them: fewer than 10 say nothing" in shown(bram, "K-0102")[0]["compared"][0]["what"]
    assert not say(False, "reference-3").json()["sounds"][0]["is_reference"]
    assert say(False, "reference-4").status_code == 404


def test_a_poor_recording_is_no_reference(bram):
    rng = np.random.default_rng(1)
    out = BytesIO()
    with wave.open(out, "wb") as file:
        file.setparams((1, 2, 16_000, 0, "NONE", ""))
        file.writeframes(rng.integers(-2, 3, 80_000).astype("<i2").tobytes())
    line = kept(bram, raw=out.getvalue())
    assert bram.post(f"/jobs/{JOB}/sounds/reference", key="reference-9", line=line, is_reference=True).json()["params"]["reason"] == "poor"
    assert shown(bram)[0]["grade"] == "poor"


def test_a_second_recording_is_laid_beside_the_first(bram):
    kept(bram)
    kept(bram, raw=played("end_stop", "slot", 5))
    compared = shown(bram)[0]["compared"][0]
    assert "first recording" in compared["what"]
    assert any("ticking now" in d["text"] and d["is_worse"] for d in compared["differences"])


def test_a_recording_goes_when_its_time_is_over_and_what_was_heard_stays(bram, shelf_of_sounds):
    line = kept(bram)
    unnamed = sent(bram, played("healthy", "lid", 6)).json()["hash"]
    call_command("sweep_sounds")
    assert len(list(shelf_of_sounds.rglob("*.wav"))) == 2
    Sound.objects.update(at=timezone.now() - timedelta(days=UNNAMED_DAYS + 1))
    call_command("sweep_sounds")
    assert not Sound.objects.filter(hash=unnamed).exists()
    Job.objects.filter(tag=JOB).update(closed_at=timezone.now() - timedelta(days=CLOSED_DAYS + 1))
    call_command("sweep_sounds")
    sound = next(s for s in shown(bram) if s["line"] == line)
    assert (list(shelf_of_sounds.rglob("*.wav")), sound["is_here"], bool(sound["events"])) == ([], False, True)


def test_a_recording_that_was_just_sent_again_waits_to_be_named(bram, shelf_of_sounds):
    kept(bram)
    Job.objects.filter(tag=JOB).update(closed_at=timezone.now() - timedelta(days=CLOSED_DAYS + 1))
    sent(bram, CYCLES)
    call_command("sweep_sounds")
    assert len(list(shelf_of_sounds.rglob("*.wav"))) == 1


def test_nothing_is_listened_to_again_to_show_what_was_heard(bram, shelf_of_sounds):
    kept(bram)
    for file in shelf_of_sounds.rglob("*.wav"):
        file.unlink()
    sound = shown(bram)[0]
    assert (sound["is_here"], sound["grade"], offer(sound, "spins")["outcome"]) == (False, "good", "cycles")


def test_a_reference_outlives_its_job(bram, shelf_of_sounds):
    line = kept(bram)
    bram.post(f"/jobs/{JOB}/sounds/reference", key="reference-7", line=line, is_reference=True)
    Sound.objects.update(at=timezone.now() - timedelta(days=UNNAMED_DAYS + 1))
    Job.objects.filter(tag=JOB).update(closed_at=timezone.now() - timedelta(days=CLOSED_DAYS + 1))
    call_command("sweep_sounds")
    assert len(list(shelf_of_sounds.rglob("*.wav"))) == 1
