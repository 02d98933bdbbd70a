"""How long the bench screen takes from the key to the new next move, in Chromium: ``./dev bench``."""

import statistics

WATCH = """() => new Promise(done => {
  const region = document.querySelector('section[aria-label="Next move"]').parentElement
  const was = region.querySelector('section[aria-label="Next move"] h2').textContent
  let from = 0
  document.addEventListener('keydown', () => { from = performance.now() }, {once: true, capture: true})
  const look = new MutationObserver(() => {
    const now = region.querySelector('section[aria-label="Next move"] h2')
    if (now && now.textContent !== was) { look.disconnect(); requestAnimationFrame(() => done(performance.now() - from)) }
  })
  look.observe(region, {childList: true, subtree: true, characterData: true})
})"""


def test_from_the_key_to_the_new_next_move(bench):
    page = bench("K-0111")
    page.get_by_text("This needs the mains out; it is live.").wait_for()
    page.keyboard.press("Enter")
    page.get_by_text("This needs the mains").wait_for(state="hidden")
    page.keyboard.press("e")  # no charge is left
    page.get_by_text("Charge remains:").wait_for(state="hidden")
    times = []
    for key in ["1", *"u" * 15]:  # an answer, then its strike and its return, each a write and a new advice
        page.evaluate(f"window.waited = ({WATCH})(); undefined")
        page.keyboard.press(key)
        times.append(page.evaluate("Promise.race([window.waited, new Promise((_, no) => setTimeout(() => no('no new next move'), 5000))])"))
        page.wait_for_function("() => !document.querySelector('[aria-busy=true]')")
    print(f"\nbench screen, key to new next move: median {statistics.median(times):.0f} ms, worst {max(times):.0f} ms of {len(times)}")
    assert statistics.median(times) < 300
