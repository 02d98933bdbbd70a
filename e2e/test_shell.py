"""Installed on a tablet: the application starts without a network, says so, and keeps nothing of what a server says."""

from playwright.sync_api import expect

from .conftest import sign_in


def test_the_shell_starts_without_a_network_and_says_that_there_is_none(browser, shop):
    context = browser.new_context(viewport={"width": 1280, "height": 800}, service_workers="allow")
    page = context.new_page()
    sign_in(page, shop)
    page.evaluate("navigator.serviceWorker.ready.then(() => undefined)")
    kept = page.evaluate("caches.keys().then(async (n) => (await (await caches.open(n[0])).keys()).map((r) => new URL(r.url).pathname))")
    assert "/day" in kept
    assert not [path for path in kept if path.startswith(("/api", "/o/", "/c/"))]
    context.set_offline(True)
    page.goto(f"{shop}/shelf")
    expect(page.get_by_text("No connection to the server").first).to_be_visible()
    context.set_offline(False)
    page.reload()
    expect(page.get_by_role("heading", name="The shelf").or_(page.get_by_role("link", name="Shelf")).first).to_be_visible()


def test_it_can_be_installed(page, shop):
    page.goto(shop)
    told = page.evaluate("fetch(document.querySelector('link[rel=manifest]').href).then((r) => r.json())")
    assert (told["start_url"], told["display"], {i["sizes"] for i in told["icons"]}) == ("/day", "standalone", {"192x192", "512x512"})
    assert [page.request.get(f"{shop}{i['src']}").status for i in told["icons"]] == [200, 200]
