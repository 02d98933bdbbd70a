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
    "/drives/which",
    "/drives/fits?level=pickup&code=VL-34&variant=VM-S52",
    "/drives/VM-S41",
    "/drives/VM-S41/edit",
    "/shelf",
    "/shelf/wanted",
    "/shelf/coming",
    "/shelf/donors",
    "/shelf/donors/D-0003",
    "/shelf/away",
    "/shelf/parts/P-0012",
    "/shelf/parts/K-0102-A",
    "/bench/K-0112",
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
NARROW = [v for v in VIEWS if v.startswith(("/d", "/s", "/t"))] + ["/bench/K-0107", "/bench/K-0106", "/bench/K-0105"]
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


TALLER = """() => {
  document.querySelectorAll('input, select, textarea, button, summary, a').forEach(x => x.focus())
  return [document.documentElement.scrollHeight - innerHeight, scrollY]
}"""


def test_no_page_is_taller_than_its_window_and_none_jumps_when_something_is_focused(page, shop):
    sign_in(page, shop)
    found = {}
    for view in VIEWS:
        page.goto(f"{shop}{view}")
        page.wait_for_load_state("networkidle")
        found[view] = page.evaluate(TALLER)
    assert {view: by for view, by in found.items() if by != [0, 0]} == {}


@pytest.mark.parametrize("keys", ["f", "m", "t", "i", "o", "?"])
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
    for view in NARROW:
        page.goto(f"{shop}{view}")
        page.wait_for_load_state("networkidle")
        assert page.evaluate("document.documentElement.scrollWidth") <= width, view


def test_the_bench_screen_loads_under_its_budget_of_javascript():
    manifest = json.loads((settings.FRONTEND_DIST / ".vite" / "manifest.json").read_text(encoding="utf-8"))
    needed, files = ["index.html", "src/routes/job.tsx"], set()
    while needed:
        part = manifest[needed.pop()]
        needed += [i for i in part.get("imports", []) if manifest[i]["file"] not in files]
        files.add(part["file"])
    size = sum(len(gzip.compress((settings.FRONTEND_DIST / f).read_bytes(), 9)) for f in files)
    assert size / 1024 < MAX_FIRST_LOAD_KB


def test_nothing_is_fetched_from_elsewhere(page, shop):
    hosts = set()
    page.on("request", lambda request: hosts.add(request.url.split("/")[2]) if request.url.startswith("http") else None)
    sign_in(page, shop)
    page.goto(f"{shop}/bench/K-0107")
    page.wait_for_load_state("networkidle")
    assert hosts == {shop.split("/")[2]}
