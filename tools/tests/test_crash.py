"""A short run of ``./dev crash``: each process killed once in the middle of writes."""

import sys
from pathlib import Path

sys.path.insert(0, str(Path(__file__).parents[1]))

from crash import KINDS, crash  # a tool, not a package


def test_nothing_is_lost_and_nothing_doubled_when_processes_are_killed():
    found = crash(len(KINDS), seed=3)
    assert set(found.pop("kills")) == set(KINDS)
    assert found.pop("answered") > 10
    assert found.pop("asked again") > 0
    assert {name for name, bad in found.items() if bad} == set()
