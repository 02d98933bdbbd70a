"""Every screen at WCAG 2.2 AA, at each size that it must serve, readable and pressable at arm's length, and light enough to load."""

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
    "/drives/VM-S41/console",
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
    "/day/closed",
    "/day/week",
    "/take-in?returns=K-0101",
    "/shop",
    "/shop/people",
    "/shop/has",
    "/shop/archive",
    "/account",
    "/track-record",
    "/track-record/learning",
    "/track-record/months",
    "/track-record/claims",
    "/practice",
    "/bench/tools",
    "/bench/tools/belt",
    "/bench/tools/trimmer",
    "/bench/K-9999",
    "/nowhere",
]
NARROW = [v for v in VIEWS if v.startswith(("/d", "/s", "/t", "/bench/tools"))] + ["/bench/K-0107", "/bench/K-0106", "/bench/K-0105"]
MAX_FIRST_LOAD_KB = 220


def test_no_view_breaks_wcag_22_aa_with_the_lamp_on_or_off(page, shop):
    sign_in(page, shop, "manager")
    found = {}
    for view in VIEWS:
        page.goto(f"{shop}{view}")
        page.wait_for_load_state("networkidle")
        for lamp in ("on", "off"):
            page.evaluate(f"document.documentElement.dataset.lamp = '{lamp}'")
            found[view, lamp] = axe(page)
    assert {view: bad for view, bad in found.items() if bad} == {}


TALLER = """() => {
  document.querySelectorAll('input, select, textarea, button, summary, a').forEach(x => x.focus())
  return [document.documentElement.scrollHeight - innerHeight, scrollY]
}"""


def test_no_page_is_taller_than_its_window_and_none_jumps_when_something_is_focused(page, shop):
    sign_in(page, shop, "manager")
    found = {}
    for view in VIEWS:
        page.goto(f"{shop}{view}")
        page.wait_for_load_state("networkidle")
        found[view] = page.evaluate(TALLER)
    assert {view: by for view, by in found.items() if by != [0, 0]} == {}


@pytest.mark.parametrize("keys", ["f", "m", "t", "i", "o", "d", "c", "h", "?"])
def test_no_dialog_breaks_wcag_22_aa_and_each_gives_the_focus_back(bench, keys):
    page = bench("K-0107")
    page.get_by_role("button", name="Owner and papers").focus()
    page.keyboard.press(keys)
    page.get_by_role("dialog").wait_for()
    assert axe(page) == []
    page.keyboard.press("Escape")
    page.get_by_role("dialog").wait_for(state="detached")
    page.wait_for_function("() => document.activeElement.textContent.includes('Owner and papers')")


SMALL = """() => {
  const seen = x => { const r = x.getBoundingClientRect(); return r.width > 1 && r.height > 1 && getComputedStyle(x).visibility !== 'hidden' ? r : null }
  const own = x => x.closest('label') ?? x
  const bad = [], text = []
  for (const x of document.querySelectorAll('button, select, textarea, summary, a[href], input')) {
    if (x.closest('.sr-only') || x.classList.contains('sr-only') && !x.closest('label')) continue
    const r = seen(own(x))
    const inText = x.tagName === 'A' && x.closest('p, dd, td, h1, h2'), name = (x.textContent || x.ariaLabel || x.type).trim().slice(0, 40)
    if (r && (r.height < 43.5 || r.width < 43.5) && !inText) bad.push(`${x.tagName} ${name}: ${Math.round(r.width)}x${Math.round(r.height)}`)
  }
  const words = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
  while (words.nextNode()) {
    const at = words.currentNode.parentElement
    if (!words.currentNode.data.trim() || at.closest('script, style, .sr-only') || !seen(at)) continue
    const svg = at.closest('svg'), scale = svg ? svg.getBoundingClientRect().width / (svg.viewBox.baseVal.width || 1) : 1
    const size = parseFloat(getComputedStyle(at).fontSize) * scale
    if (size < 12.5) text.push(`${words.currentNode.data.trim().slice(0, 30)}: ${size.toFixed(1)}`)
  }
  return [...new Set([...bad, ...text])]
}"""


@pytest.mark.parametrize(("width", "height"), [(1280, 800), (1024, 768), (390, 844)])
def test_no_control_is_too_small_for_a_thumb_and_no_text_for_a_glance(page, shop, width, height):
    page.set_viewport_size({"width": width, "height": height})
    sign_in(page, shop, "manager")
    found = {}
    for view in VIEWS:
        page.goto(f"{shop}{view}")
        page.wait_for_load_state("networkidle")
        found[view] = page.evaluate(SMALL)
    assert {view: bad for view, bad in found.items() if bad} == {}


COVERED = """plan => {
  const box = x => x.getBoundingClientRect(), all = [...plan.querySelectorAll('rect, circle, text')].filter(x => !x.closest('defs'))
  const cuts = (a, b) => Math.min(a.right, b.right) - Math.max(a.left, b.left) > 1 && Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > 1
  const texts = all.filter(x => x.tagName === 'text' && x.textContent.trim()), found = []
  for (const t of texts) {
    for (const x of all.slice(all.indexOf(t) + 1))
      if (x.getAttribute('fill') !== 'none' && cuts(box(t), box(x))) found.push(`${t.textContent.trim()} is under ${x.tagName} ${x.textContent.trim()}`)
    const r = box(t), frame = box(plan)
    if (r.left < frame.left || r.right > frame.right) found.push(`${t.textContent.trim()} leaves the plan`)
    if (parseFloat(getComputedStyle(t).fontSize) * frame.width / plan.viewBox.baseVal.width < 14) found.push(`${t.textContent.trim()} is too small`)
  }
  return found
}"""


@pytest.mark.parametrize("tag", ["K-0107", "K-0102", "K-0105", "K-0110", "K-0111", "K-0113"])
def test_no_word_of_the_plan_is_covered(bench, tag):
    """Also at its longest: every part with two digits."""
    page = bench(tag)
    page.evaluate("document.querySelectorAll('svg[role=img] tspan').forEach(x => { if (x.textContent) x.textContent = '88' })")
    plan = page.get_by_role("img", name="Drive seen from above")
    assert plan.count() == 0 or plan.evaluate(COVERED) == []


def test_each_page_has_a_title_of_its_own(page, shop):
    sign_in(page, shop, "manager")
    titles = []
    for view in VIEWS[:-2]:
        page.goto(f"{shop}{view}")
        page.wait_for_load_state("networkidle")
        titles.append(page.title())
    assert [t for t in titles if titles.count(t) > 1 and not t.startswith("Take a unit in")] == []


def test_the_top_bar_of_a_phone_is_low_and_the_next_move_stands_in_the_first_half(page, shop):
    page.set_viewport_size({"width": 390, "height": 844})
    sign_in(page, shop)
    page.goto(f"{shop}/bench/K-0107")
    page.get_by_role("region", name="Next move").wait_for()
    assert page.locator("header").first.bounding_box()["height"] <= 84
    assert page.get_by_role("region", name="Next move").get_by_role("heading").bounding_box()["y"] < 422
    assert page.get_by_role("button", name="Mains live").is_visible()


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
