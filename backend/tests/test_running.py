"""Running it for real: settings that refuse to be half-set, a door that cannot be shut on another, health, and logs that quote nobody."""

import json
import logging
import os
import subprocess
import sys
from pathlib import Path

import pytest
from apps.demo.services import published_sign_ins
from apps.people.models import User
from config.logs import AsJson
from django.core.cache import cache
from django.db.migrations.recorder import MigrationRecorder
from django.test import Client

MANAGE = str(Path(__file__).parents[1] / "manage.py")
RIGHT = {"username": "bram", "password": "rope-kettle-72"}
WRONG = {**RIGHT, "password": "no"}


def checked(**env):
    task = [sys.executable, MANAGE, "check", "--deploy", "--fail-level", "WARNING"]
    return subprocess.run(task, capture_output=True, text=True, env={**os.environ, "DJANGO_SETTINGS_MODULE": "config.real", **env}, check=False)


@pytest.mark.parametrize(("hosts", "says"), [("", "SPINDLE_HOSTS is not set"), ("*", "SPINDLE_HOSTS is *")])
def test_real_settings_refuse_to_be_half_set(hosts, says):
    refused = checked(SPINDLE_HOSTS=hosts)
    assert refused.returncode
    assert says in refused.stderr


def test_real_settings_pass_every_check_for_a_deployment():
    assert checked(SPINDLE_HOSTS="shop.example").returncode == 0


def test_the_demos_passwords_are_known_to_be_published_until_they_are_changed(db):
    assert sorted(published_sign_ins()) == ["bram", "ida", "nia"]
    User.objects.filter(username="bram").update(password="!")
    assert sorted(published_sign_ins()) == ["ida", "nia"]


def signed(client, body):
    return client.post("/api/session", body, content_type="application/json").status_code


def test_a_stranger_who_guesses_locks_out_strangers_and_never_who_is_known_here(db):
    bench, stranger = Client(), Client()
    assert signed(bench, RIGHT) == 200
    bench.delete("/api/session")
    for _ in range(5):
        signed(stranger, WRONG)
    assert signed(stranger, RIGHT) == 429
    assert signed(bench, RIGHT) == 200


def test_who_is_known_here_is_locked_out_too_after_guessing(db):
    bench = Client()
    assert signed(bench, RIGHT) == 200
    for _ in range(5):
        signed(bench, WRONG)
    assert signed(bench, RIGHT) == 429


def test_a_made_up_cookie_is_a_stranger(db):
    bench = Client()
    bench.cookies["known_here"] = "WyJicmFtIl0:forged"
    for _ in range(5):
        signed(bench, WRONG)
    assert signed(Client(), RIGHT) == 429


def test_it_is_alive_and_ready_and_says_what_is_wrong(db, monkeypatch):
    assert Client().get("/health").status_code == 200
    assert Client().get("/ready").json() == {"is_ready": True, "wrong": []}
    monkeypatch.setattr("config.health.LEAST_FREE", 10**18)
    full = Client().get("/ready")
    assert full.status_code == 503
    assert "MB are free" in full.json()["wrong"][0]


def test_a_database_older_than_the_application_is_not_ready(db):
    cache.clear()
    MigrationRecorder.Migration.objects.filter(app="day").delete()
    assert "older than the application" in Client().get("/ready").json()["wrong"][0]


def test_a_log_says_where_it_broke_and_quotes_nobody():
    try:
        int("Wenna, 0491")
    except ValueError:
        record = logging.LogRecord("spindle.errors", logging.ERROR, "f", 1, "error %s", ("ab12",), sys.exc_info())
    told = json.loads(AsJson().format(record))
    assert (told["says"], told["error"], len(told["places"])) == ("error ab12", "ValueError", 1)
    assert "Wenna" not in json.dumps(told)


def test_figures_for_the_machine_are_for_who_knows_the_token_and_name_nobody(bram, settings):
    settings.METRICS_TOKEN = "known-to-the-watch"
    bram.get("/jobs/K-0107")
    Client().generic("FANCY", "/health")
    asked = [Client().get("/metrics", headers={"Authorization": a}).status_code for a in ("", "Bearer wrong", "Bearer known-to-the-watch")]
    told = Client().get("/metrics", headers={"Authorization": "Bearer known-to-the-watch"}).content.decode()
    settings.METRICS_TOKEN = ""
    assert [*asked, Client().get("/metrics", headers={"Authorization": "Bearer "}).status_code] == [404, 404, 200, 404]
    assert 'route="api/jobs/<tag>",status="2xx"' in told
    assert "spindle_open_jobs 13.0" in told
    assert "K-0107" not in told
    assert "FANCY" not in told
