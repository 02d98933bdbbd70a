"""One PNG of each main view, from the demo data of a running application: ``./dev shots [NAME …]``."""

from __future__ import annotations

import json
import os
import sys
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

ROOT = Path(__file__).resolve().parents[1]
BASE = os.environ.get("SPINDLE_URL", "http://127.0.0.1:8420")
OUT = Path(os.environ.get("SPINDLE_SHOTS", ROOT / "docs" / "screenshots"))
CHROMIUM = os.environ.get("CHROMIUM", "/usr/bin/chromium")


def _open(path: str) -> Callable[[Page], None]:
    return lambda page: page.goto(f"{BASE}{path}")


def _plan(page: Page) -> None:
    page.goto(f"{BASE}/bench/K-0104")
    page.get_by_role("heading", name="K-0104").wait_for()
    page.get_by_label("Plan a swap of").select_option("drive")
    page.get_by_role("list", name="Steps of the plan").wait_for()


def _key(page: Page) -> None:
    page.goto(f"{BASE}/take-in")
    page.get_by_role("button", name="Not sure which").click()
    for key in ("4", "1"):
        page.get_by_role("dialog").get_by_role("group").first.wait_for()
        page.keyboard.press(key)
        page.wait_for_timeout(600)


VIEWS: dict[str, Callable[[Page], None]] = {
    "day": _open("/day"),
    "take-in": _open("/take-in"),
    "seen": _open("/bench/K-0106"),
    "isolate": _open("/bench/K-0107"),
    "tray": _open("/bench/K-0110"),
    "suspect-cleared": _open("/bench/K-0102"),
    "agree": _open("/bench/K-0104"),
    "swap-plan": _plan,
    "repair": _open("/bench/K-0105"),
    "prove": _open("/bench/K-0103"),
    "hand-back": _open("/bench/K-0108"),
    "drives": _open("/drives"),
    "sheet": _open("/drives/VM-S41"),
    "fits": _open("/drives/fits?level=pickup&code=VL-34"),
    "key": _key,
    "shelf": _open("/shelf"),
    "wanted": _open("/shelf/wanted"),
    "donor": _open("/shelf/donors/D-0003"),
    "claims": _open("/track-record"),
}


def main(wanted: list[str]) -> None:
    """Take the wanted pictures, or all."""
    people = json.loads((ROOT / "demo" / "scenario.json").read_text(encoding="utf-8"))["people"]
    bench = next(p for p in people if p["role"] == "technician")
    width, height = (int(x) for x in os.environ.get("SPINDLE_SIZE", "1280x800").split("x"))
    OUT.mkdir(parents=True, exist_ok=True)
    with sync_playwright() as play:
        browser = play.chromium.launch(executable_path=CHROMIUM, args=["--disable-gpu", "--force-prefers-reduced-motion"])
        page = browser.new_page(viewport={"width": width, "height": height}, locale="en-GB", timezone_id="UTC")
        page.goto(f"{BASE}/day")
        page.get_by_label("Name").fill(bench["username"])
        page.get_by_label("Password").fill(bench["password"])
        page.keyboard.press("Enter")
        page.get_by_role("heading", name="The day").wait_for()
        for name, go in VIEWS.items():
            if not wanted or name in wanted:
                go(page)
                page.wait_for_load_state("networkidle")
                page.wait_for_timeout(3_500 if "/bench/" in page.url else 0)  # the deeper look waits a moment, then answers
                page.evaluate("document.fonts.ready")
                page.screenshot(path=str(OUT / f"{name}.png"))
                sys.stdout.write(f"{name}\n")
        browser.close()


if __name__ == "__main__":
    main(sys.argv[1:])
