"""Every screen at WCAG 2.2 AA, at each size that it must serve, and light enough to load."""

import gzip
import json

import pytest
from django.conf import settings

from .conftest import axe, sign_in

VIEWS = [
    "/day",
    "/take-in",
    "/drives",
    "/bench/K-0109",
    "/bench/K-0106",
    "/bench/K-0107",
    "/bench/K-0102",
    "/bench/K-0104",
    "/bench/K-0105",
    "/bench/K-0103",
    "/bench/K-0108",
    "/bench/K-0101",
    "/bench/K-0110",
    "/bench/K-0111",
    "/track-record",
    "/bench/K-9999",
    "/nowhere",
]
MAX_FIRST_LOAD_KB = 220


@pytest.mark.parametrize("lamp", ["on", "off"])
def test_no_view_breaks_wcag_22_aa(page, shop, lamp):
    sign_in(page, shop)
    page.evaluate(f"localStorage.setItem('spindle:lamp', '\"{lamp}\"')")
    found = {}
    for view in VIEWS:
        page.goto(f"{shop}{view}")
        page.wait_for_load_state("networkidle")
        found[view] = axe(page)
    assert {view: bad for view, bad in found.items() if bad} == {}


@pytest.mark.parametrize("keys", ["f", "m", "t", "?"])
def test_no_dialog_breaks_wcag_22_aa(bench, keys):
    page = bench("K-0107")
    page.keyboard.press(keys)
    page.get_by_role("dialog").wait_for()
    assert axe(page) == []
    page.keyboard.press("Escape")
    page.get_by_role("dialog").wait_for(state="detached")


@pytest.mark.parametrize(("width", "height"), [(1280, 800), (1024, 768), (390, 844)])
def test_nothing_is_cut_off_sideways(page, shop, width, height):
    page.set_viewport_size({"width": width, "height": height})
    sign_in(page, shop)
    for view in ("/day", "/take-in", "/drives", "/bench/K-0107", "/bench/K-0106", "/bench/K-0105"):
        page.goto(f"{shop}{view}")
        page.wait_for_load_state("networkidle")
        assert page.evaluate("document.documentElement.scrollWidth") <= width, view


def test_the_bench_screen_loads_under_its_budget_of_javascript():
    manifest = json.loads((settings.FRONTEND_DIST / ".vite" / "manifest.json").read_text(encoding="utf-8"))
    entry = manifest["index.html"]
    files = [entry["file"], *(manifest[i]["file"] for i in entry.get("imports", []))]
    size = sum(len(gzip.compress((settings.FRONTEND_DIST / f).read_bytes(), 9)) for f in files)
    assert size / 1024 < MAX_FIRST_LOAD_KB


def test_nothing_is_fetched_from_elsewhere(page, shop):
    hosts = set()
    page.on("request", lambda request: hosts.add(request.url.split("/")[2]) if request.url.startswith("http") else None)
    sign_in(page, shop)
    page.goto(f"{shop}/bench/K-0107")
    page.wait_for_load_state("networkidle")
    assert hosts == {shop.split("/")[2]}
