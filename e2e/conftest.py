import os
import time
from pathlib import Path

import pytest
from apps.demo.services import sign_ins
from django.conf import settings
from django.db import connection
from playwright.sync_api import expect

# Playwright's sync API keeps an event loop on the main thread: Django would refuse the ORM there
os.environ.setdefault("DJANGO_ALLOW_ASYNC_UNSAFE", "true")
CHROMIUM = os.environ.get("CHROMIUM", "/usr/bin/chromium")
QUIET = ["--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-component-update", "--disable-sync", "--disable-gpu"]
FAKES = ["--use-fake-ui-for-media-stream", "--use-fake-device-for-media-stream"]
"""A camera that shows a moving pattern, for a browser that asks nobody."""
expect.set_options(timeout=20_000)
"""A slow machine is no defect: journeys do not time, and what never comes is as wrong after twenty seconds as after five."""
AXE = Path(__file__).parents[1] / "web" / "node_modules" / "axe-core" / "axe.min.js"


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args):
    args = [*browser_type_launch_args.get("args", []), *QUIET, *FAKES, "--force-prefers-reduced-motion"]
    return {**browser_type_launch_args, "executable_path": CHROMIUM, "args": args}


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args):
    return {**browser_context_args, "viewport": {"width": 1280, "height": 800}, "locale": "en-GB", "timezone_id": "UTC", "service_workers": "block"}


@pytest.fixture
def page(page):
    """A page that gives up in the end: nothing here takes thirty seconds, not on a slow machine either."""
    page.set_default_timeout(30_000)
    return page


@pytest.fixture
def shop(demo, browser, live_server):
    """The address of a running application with the demo data; its last request has ended before the data are emptied."""
    assert (settings.FRONTEND_DIST / "index.html").exists(), "the front end is not built: tools/setup test"
    yield live_server.url
    for context in browser.contexts:
        context.close()
    let_the_requests_end()


def let_the_requests_end(seconds=30):
    """A request under way would stand in the way of emptying the tables, and write into the next test."""
    others = "SELECT count(*) FROM pg_stat_activity WHERE datname = current_database() AND backend_type = 'client backend' AND pid <> pg_backend_pid()"
    until = time.monotonic() + seconds
    with connection.cursor() as cursor:
        while cursor.execute(others).fetchone()[0]:
            assert time.monotonic() < until, f"a request has not ended {seconds} s after its page was closed"
            time.sleep(0.05)


def sign_in(page, address, role="technician"):
    """Sign in by keyboard."""
    name, password = next((n, p) for r, n, p in sign_ins() if r == role)
    page.goto(f"{address}/day")
    page.get_by_label("Name").fill(name)
    page.get_by_label("Password").fill(password)
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="The day").wait_for()


@pytest.fixture
def bench(page, shop):
    """A page of the technician's, and a way to open a job on it. A script error fails the test."""
    errors = []
    page.on("pageerror", lambda error: errors.append(str(error)))
    sign_in(page, shop)

    def open_(tag):
        page.goto(f"{shop}/bench/{tag}")
        page.get_by_role("heading", name=tag).wait_for()
        return page

    yield open_
    assert errors == []


def axe(page):
    """What axe finds against WCAG 2.2 AA on the page, in words."""
    # read as text: the page's own policy allows no script but the application's
    page.evaluate(AXE.read_text(encoding="utf-8") + "; undefined")
    run = "axe.run(document, {runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']})"
    return [f"{v['id']}: {v['nodes'][0]['html'][:160]}" for v in page.evaluate(run)["violations"]]
