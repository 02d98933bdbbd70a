"""Doors and errors: who gets in, what a refusal looks like, and that no request breaks the server."""

import pytest
import schemathesis
from config.wsgi import application
from django.core.signals import request_finished, request_started
from django.db import close_old_connections
from django.test import Client
from hypothesis import HealthCheck, settings
from schemathesis.checks import not_a_server_error
from schemathesis.specs.openapi.checks import content_type_conformance, response_schema_conformance, status_code_conformance

from .conftest import FRESH, Browser

RIGHT = {"username": "bram", "password": "rope-kettle-72"}


@pytest.mark.parametrize("path", ["/day", "/sheets", "/prompts", "/search?q=K", f"/jobs/{FRESH}", f"/jobs/{FRESH}/report.pdf"])
def test_nobody_reads_without_signing_in(db, path):
    answer = Client().get(f"/api{path}")
    assert (answer.status_code, answer.json()["code"]) == (401, "signed_out")


def test_signing_in_needs_the_token_of_this_browser(db):
    client = Client(enforce_csrf_checks=True)
    assert client.post("/api/session", RIGHT, content_type="application/json").json()["code"] == "csrf"
    token = client.get("/api/session").json()["csrf_token"]
    answer = client.post("/api/session", RIGHT, content_type="application/json", headers={"X-CSRFToken": token})
    assert answer.json()["user"]["name"] == "Bram Tewell"
    write = client.post(f"/api/jobs/{FRESH}/lines", {"key": "12345678", "version": 0, "ask": {"do": "remark", "text": "x"}}, content_type="application/json")
    assert write.status_code == 403


def test_five_wrong_passwords_lock_the_door_even_for_the_right_one(db):
    client = Client()
    answers = [client.post("/api/session", {**RIGHT, "password": "no"}, content_type="application/json") for _ in range(5)]
    assert answers[0].json()["title"] == "Name or password is wrong."
    locked = client.post("/api/session", RIGHT, content_type="application/json")
    assert (locked.status_code, locked.json()["code"]) == (429, "locked_out")


def test_the_page_forbids_foreign_and_inline_scripts(db):
    answer = Client().get("/day")
    policy = answer["Content-Security-Policy"]
    assert answer.status_code == 200
    assert "script-src 'self'" in [part.strip() for part in policy.split(";")]  # the order of directives is not ours
    assert "unsafe-inline" not in policy.split("script-src")[1].split(";")[0]
    assert answer["X-Frame-Options"] == "DENY"


def test_the_day_says_what_each_job_waits_for_in_few_queries(bram, django_assert_max_num_queries):
    with django_assert_max_num_queries(8):
        rows = bram.day()
    assert {r["stage"] for r in rows.values()} == {"taken_in", "fault_seen", "isolate", "agree", "repair", "prove", "hand_back"}
    assert rows["K-0104"]["waits_for"].startswith("The owner's consent: ")


schema = schemathesis.openapi.from_wsgi("/api/openapi.json", application)
CHECKS = [not_a_server_error, status_code_conformance, content_type_conformance, response_schema_conformance]


@pytest.fixture
def signed_in(db):
    """A session for real WSGI requests, which must not close the connection that holds the test's transaction."""
    session = _session()  # first: the test client connects the signals again after each request
    signals = (request_started, request_finished)
    for signal in signals:
        signal.disconnect(close_old_connections)
    yield session
    for signal in signals:
        signal.connect(close_old_connections)


def _session():
    client = Browser("bram").client
    token = client.get("/api/session").json()["csrf_token"]
    return {"cookies": {k: m.value for k, m in client.cookies.items()}, "headers": {"X-CSRFToken": token}}


@schema.exclude(path_regex="/session").parametrize()
@settings(max_examples=25, deadline=None, suppress_health_check=list(HealthCheck))
def test_no_request_breaks_the_server(case, signed_in):
    if "tag" in (case.path_parameters or {}) and len(case.path_parameters["tag"]) % 2:
        case.path_parameters["tag"] = FRESH
    case.call_and_validate(checks=CHECKS, **signed_in)


@pytest.mark.parametrize("path", ["/api/nowhere", "/assets/gone.js", "/static/gone.css", "/favicon.png"])
def test_an_address_that_leads_nowhere_is_a_problem_document(db, path):
    answer = Client().get(path)
    assert (answer.status_code, answer["Content-Type"], answer.json()["code"]) == (404, "application/problem+json", "not_found")


def test_a_server_that_breaks_says_that_nothing_was_written(bram, monkeypatch):
    monkeypatch.setattr("api.jobs.house_router.in_the_house", lambda *_: 1 / 0)
    bram.client.raise_request_exception = False
    answer = bram.get("/day")
    assert (answer.status_code, answer.json()["code"]) == (500, "unexpected")


def test_the_pages_of_the_interface_are_one_page_that_is_never_cached(db):
    pages = [Client().get(path) for path in ("/", "/day", "/bench/K-0107", "/nowhere/at/all")]
    assert {p.status_code for p in pages} == {200}
    assert all("no-store" in p["Cache-Control"] for p in pages)
    assert Client().post("/day").status_code in {403, 405}


@pytest.mark.parametrize("body", [b"", b"{", b"[]", b'"x"', b'{"key": null}', b"\xff\xfe"])
def test_a_body_that_is_no_write_is_refused_with_its_place(bram, body):
    answer = bram.client.post(f"/api/jobs/{FRESH}/lines", body, content_type="application/json")
    assert answer.status_code in {400, 422}
    assert answer.json()["code"] in {"bad_request", "invalid"}


def test_the_key_narrows_with_each_answer_and_writes_nothing(nia):
    first = nia.post("/key", answers={}).json()
    then = nia.post("/key", answers={"loader": "lid"}).json()
    assert first["next_feature"]
    assert then["candidates"][0]["p"] > first["candidates"][0]["p"]
    assert {c["variant"] for c in then["candidates"][:3]} == {"OP-L3", "OP-L5", "KD-L1"}


@pytest.mark.parametrize("answers", [{"colour": "red"}, {"loader": "drawer"}])
def test_the_key_refuses_what_no_eye_can_see(nia, answers):
    answer = nia.post("/key", answers=answers)
    assert (answer.status_code, answer.json()["code"]) == (422, "invalid")
