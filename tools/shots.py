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


def _measure(page: Page) -> None:
    page.goto(f"{BASE}/bench/K-0102")
    page.get_by_role("heading", name="K-0102").wait_for()
    page.keyboard.press("m")
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("button", name="DVD", exact=True).click()
    for ohm in (990, 972, 930):
        for n in (1, 2, 3):
            dialog.get_by_label(f"Read, {n}", exact=True).first.fill(str(ohm))
        dialog.get_by_role("button", name="Add it").click()
        dialog.get_by_role("img", name=f"Stands at {ohm}").wait_for()


def _opening(page: Page) -> None:
    page.goto(f"{BASE}/bench/K-0105")
    page.get_by_role("heading", name="K-0105").wait_for()
    page.keyboard.press("c")
    page.get_by_role("dialog").get_by_text("Put it back").click()
    page.get_by_role("region", name="Next").wait_for()


def _sounds(page: Page) -> None:
    page.goto(f"{BASE}/bench/K-0110")
    page.get_by_role("heading", name="K-0110").wait_for()
    page.keyboard.press("s")
    page.get_by_role("dialog").get_by_role("listitem").first.get_by_role("button").click()
    page.get_by_role("list", name="What is heard").wait_for()


def _practice(page: Page) -> None:
    page.goto(f"{BASE}/practice")
    page.get_by_role("button", name="It ticks").click()
    page.get_by_role("tab", name="Repair and try").wait_for()
    for n, ask in enumerate(("Does the console power up", "Offer a disc", "During the spin-up"), start=1):
        page.get_by_role("button", name=ask).first.click()
        page.get_by_role("list", name="What happened").get_by_role("listitem").nth(n - 1).wait_for()
    page.get_by_label("Find a look").fill("in its band")
    page.get_by_role("group", name="Measure J7-2 to frame").get_by_role("button", name="running").click()
    page.get_by_role("list", name="What happened").get_by_role("listitem").nth(3).wait_for()


def _owner_page(page: Page) -> None:
    page.goto(f"{BASE}/bench/K-0104")
    page.get_by_role("button", name="Make a page for the owner").or_(page.get_by_role("button", name="Make a new one")).click()
    address = page.locator("p", has_text="/o/").last.inner_text()
    page.goto(address)


def _learning(page: Page) -> None:
    page.goto(f"{BASE}/track-record/learning")
    page.get_by_role("heading", name="Causes").wait_for()


VIEWS: dict[str, Callable[[Page], None]] = {
    "day": _open("/day"),
    "week": _open("/day/week"),
    "take-in": _open("/take-in"),
    "seen": _open("/bench/K-0106"),
    "isolate": _open("/bench/K-0107"),
    "measure": _measure,
    "opening": _opening,
    "sounds": _sounds,
    "owner-page": _owner_page,
    "agree": _open("/bench/K-0104"),
    "swap-plan": _plan,
    "repair": _open("/bench/K-0105"),
    "prove": _open("/bench/K-0103"),
    "hand-back": _open("/bench/K-0108"),
    "sheet": _open("/drives/VM-S41"),
    "shelf": _open("/shelf"),
    "learning": _learning,
    "practice": _practice,
    "shop": _open("/shop"),
}

OF_MANAGERS = {"shop", "learning"}
"""Views that managers alone see."""


def main(wanted: list[str]) -> None:
    """Take the wanted pictures, or all."""
    people = json.loads((ROOT / "demo" / "scenario.json").read_text(encoding="utf-8"))["people"]
    who = {role: next(p for p in people if p["role"] == role) for role in ("technician", "manager")}
    width, height = (int(x) for x in os.environ.get("SPINDLE_SIZE", "1280x800").split("x"))
    OUT.mkdir(parents=True, exist_ok=True)
    with sync_playwright() as play:
        browser = play.chromium.launch(executable_path=CHROMIUM, args=["--disable-gpu", "--force-prefers-reduced-motion"])
        for role, person in who.items():
            page = browser.new_page(viewport={"width": width, "height": height}, locale="en-GB", timezone_id="UTC")
            page.goto(f"{BASE}/day")
            page.get_by_label("Name").fill(person["username"])
            page.get_by_label("Password").fill(person["password"])
            page.keyboard.press("Enter")
            page.get_by_role("heading", name="The day").wait_for()
            for name, go in VIEWS.items():
                if (not wanted or name in wanted) and (name in OF_MANAGERS) is (role == "manager"):
                    go(page)
                    page.wait_for_load_state("networkidle")
                    page.wait_for_timeout(3_500 if "/bench/" in page.url else 0)  # the deeper look waits a moment, then answers
                    page.evaluate("document.fonts.ready")
                    page.screenshot(path=str(OUT / f"{name}.png"))
                    sys.stdout.write(f"{name}\n")
        browser.close()


if __name__ == "__main__":
    main(sys.argv[1:])
