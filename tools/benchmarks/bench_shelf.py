"""The shelf with 50,000 parts, 5,000 donors and 10,000 jobs: search, match and assignment in the service layer, p95 of each. ``./dev bench``."""

import statistics
import time

import pytest
from apps.demo.big_shop import Size, fill
from apps.drives.selectors import current_full, fits_of_unit
from apps.jobs.models import Job
from apps.jobs.scarce import scarce
from apps.shelf.models import Donor, Kind, Part
from apps.shelf.offers import offers_for, stock_for
from apps.shelf.selectors import search_parts
from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.utils import timezone
from spindle.diagnosis.given.economy import Economy
from spindle.drives.levels import LEVELS

RUNS = 60
LIMIT_MS = 100
TODAY = timezone.localdate()


pytestmark = pytest.mark.django_db


@pytest.fixture(scope="module")
def codes(snapshot, django_db_blocker):
    """The codes of a big shop's parts; the shop is filled once for all of these."""
    with django_db_blocker.unblock():
        fill(Size(), 7)
        with connection.cursor() as cursor:
            cursor.execute("ANALYZE")
        assert (Part.objects.count() >= 50_000, Donor.objects.count() >= 5_000, Job.objects.count() >= 10_000) == (True, True, True)
        return [k.code for k in Kind.objects.order_by("pk")[::7]]


def search(codes, n):
    search_parts([codes[n % len(codes)], codes[n % len(codes)][:2], f"Drawer {n}", f"P-1000{n:02d}", "pickup"][n % 5])


def what_a_unit_can_use(codes, n):
    offers_for(list(current_full().values())[n % 12], TODAY)


def what_the_diagnosis_gets(codes, n):
    stock_for(list(current_full().values())[n % 12], [r for v in LEVELS.values() for r in v.repairs], TODAY)


def everything_that_is_named(codes, n):
    fits_of_unit(list(current_full().values())[n % 12])


def who_gets_the_part(codes, n):
    scarce(["pickup", "deck", "belt", "switch"][n % 4], Economy(), TODAY)


CASES = [(search, 2), (what_a_unit_can_use, 10), (what_the_diagnosis_gets, 10), (everything_that_is_named, 3), (who_gets_the_part, 6)]


@pytest.mark.parametrize(("act", "most"), CASES, ids=lambda c: getattr(c, "__name__", ""))
def test_it_is_quick_in_a_big_shop(codes, act, most):
    act(codes, 0)
    times = []
    for n in range(RUNS):
        with CaptureQueriesContext(connection) as asked:
            began = time.perf_counter()
            act(codes, n)
            times.append(1_000 * (time.perf_counter() - began))
        assert len(asked) <= most, [q["sql"][:90] for q in asked]
    p95 = statistics.quantiles(times, n=20)[-1]
    print(f"\n{act.__name__}: median {statistics.median(times):.0f} ms, p95 {p95:.0f} ms, at most {most} queries")
    assert p95 < LIMIT_MS
