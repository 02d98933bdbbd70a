import uuid

import pytest
from apps.drives.consoles import forget_sheets
from apps.jobs.models import Job
from apps.people.models import User
from django.test import Client

from conftest import put_back


class Browser:
    """Somebody at a browser: signed in, with a fresh key for each write."""

    def __init__(self, name: str):
        self.client = Client()
        self.client.force_login(User.objects.get(username=name))

    def get(self, path):
        return self.client.get(f"/api{path}")

    def post(self, path, **body):
        return self.client.post(f"/api{path}", body, content_type="application/json")

    def day(self, query=""):
        """The units in the house as the day lists them, each with who must act."""
        return {r["tag"]: {**r, "acts": g["acts"]} for g in self.get(f"/day{query}").json()["groups"] for r in g["rows"]}

    def ask(self, tag, do, *, key=None, version=None, **body):
        """Ask something of a job, on the version that it has."""
        version = Job.objects.get(tag=tag).version if version is None else version
        return self.post(f"/jobs/{tag}/lines", key=key or str(uuid.uuid4()), version=version, ask={"do": do, **body})

    def unplug(self, tag):
        """Pull the plug, and measure that no charge is left."""
        self.ask(tag, "mains", state="out")
        return self.ask(tag, "clear_hold", code="charge")

    def shut(self, tag):
        """Put everything back that is open."""
        while (back := self.get(f"/jobs/{tag}").json()["mat"]["next_back"]) is not None:
            assert self.ask(tag, "open_step", step=back["step"], is_open=False).status_code == 200
        return self.ask(tag, "depth", depth=0)


@pytest.fixture
def forgets_sheets():
    """For a test that empties the house and fills it anew: its sheets had the numbers of the demo's, and nobody after it may read them for those."""
    yield
    forget_sheets()


@pytest.fixture(autouse=True)
def filled(snapshot, django_db_blocker):
    """Every test here finds the demo scenario in the database."""
    with django_db_blocker.unblock():
        put_back(snapshot)


@pytest.fixture
def bram(db):
    return Browser("bram")


@pytest.fixture
def nia(db):
    return Browser("nia")


@pytest.fixture
def ida(db):
    return Browser("ida")


FRESH, SEEN, AGREE, REPAIR, PROVE, HAND_BACK, RATTLE, NOTED = "K-0107", "K-0102", "K-0104", "K-0105", "K-0103", "K-0108", "K-0106", "K-0109"
ANSWER = {"question": "spins", "outcome": "holds"}
