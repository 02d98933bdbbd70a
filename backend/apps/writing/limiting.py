"""Who asks for page after page that is not there is sent away for a while. A page that is there is always shown: nobody can lock out another."""

from __future__ import annotations

from typing import Final

from django.core.cache import cache

MISSES: Final = 20
"""Wrong addresses from one place in a window: more than a hand mistypes."""
WINDOW_S: Final = 60


def is_guessing(where: str) -> bool:
    """Count a miss, and tell whether there were too many of them."""
    name = f"owner-page-misses:{where}"
    cache.add(name, 0, WINDOW_S)
    try:
        return cache.incr(name) > MISSES
    except ValueError:  # the window ended between the two
        return False
