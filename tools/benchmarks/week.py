"""Processor seconds of a week of 60 jobs in 200 worlds, their ways at hand (target D3): ``python tools/benchmarks/week.py``."""

from __future__ import annotations

from time import process_time

import numpy as np
from spindle.day.hours import Clock
from spindle.day.promise import plan_week
from spindle.day.study import HOURS, MORNING, a_shop, pools
from spindle.day.worlds import Floor

floor = Floor(Clock(HOURS, MORNING), 2)
jobs, _ = a_shop(pools(1, n=60), np.random.default_rng(1), floor, jobs=60)
for _ in range(5):
    began = process_time()
    plan_week(jobs, floor, seed=1, keep_going=lambda: False)
    print(f"{process_time() - began:.2f} s")
