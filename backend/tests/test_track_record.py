"""The track record: counted from closed jobs, told with its numbers, and for who runs the shop."""

from datetime import timedelta

import pytest
from apps.jobs.models import Job
from apps.shelf.models import Kind, Order, Part, Supplier
from django.utils import timezone


@pytest.fixture
def past(db):
    """Thirty closed jobs of this month and the last: said 0.8, every fifth in vain; half of them late, one voided."""
    Job.objects.filter(closed_at__isnull=False).update(outcome="Voided: it is the demo's")
    sheet, now = Job.objects.first().sheet, timezone.now()
    for n in range(31):
        closed = now - timedelta(days=35 * (n % 2))
        own = {"owner_name": "W", "owner_contact": "", "complaint": "c", "supply": "own", "stage": "closed", "taken_in_at": closed - timedelta(days=3 + n % 3)}
        judged = [["replace_rollers", 0.8, n % 3 == 0, n % 5 != 0]]
        outcome = "Voided: twice" if n == 30 else "Repaired" if n % 5 else "As it is"
        more = {"judged": judged, "tried": [["replace_rollers", n % 5 != 0]], "paid_cents": 5_000 if n % 4 else None, "outcome": outcome, "closed_at": closed}
        Job.objects.create(tag=f"K-9{n:02}", is_covered=n < 2, sheet=sheet, promised_on=(closed - timedelta(days=1 - 2 * (n % 2))).date(), **own, **more)


def test_the_advice_is_counted_with_its_interval_and_voided_jobs_nowhere(past, nia):
    told = nia.get("/record/advice").json()
    (group,) = told["every"]["groups"]
    assert (told["jobs"], group["n"], group["came"]) == (30, 30, 24)
    assert group["said"] == pytest.approx(0.8)
    assert group["low"] < 0.8 < group["high"]
    assert (told["every"]["is_enough"], told["followed"]["n"], told["followed"]["is_enough"], told["chosen"]["n"]) == (True, 10, False, 20)
    assert told["parts_for_nothing"] == pytest.approx(6 / 30)


def test_the_months_count_what_came_and_went(past, ida):
    months = ida.get("/record/months").json()["months"]
    assert len(months) == 12
    assert months[0]["handed_back"] + sum(m["handed_back"] for m in months[1:3]) == 30
    assert sum(m["late"] for m in months) == 15
    assert sum(m["repaired"] for m in months) == 24
    assert sum(m["paid_cents"] for m in months) == 5_000 * 22
    assert sum(m["unpaid"] for m in months) == 8
    assert sum(m["came_back"] for m in months) == 2
    assert all(m["days"] is None or 3 <= m["days"] <= 5 for m in months)


def test_what_lies_is_the_shops_own_that_came_over_a_year_ago(ida):
    Part.objects.filter(is_owned=False).update(count=0)
    part = Part.objects.filter(is_owned=False).first()
    old = timezone.now() - timedelta(days=400)
    Part.objects.filter(pk=part.pk).update(count=3, piece_cents=250, at=old)
    told = ida.get("/record/months").json()
    assert [told[k] for k in ("stock_cents", "stock_pieces", "lies_cents", "lies_pieces")] == [750, 3, 750, 3]
    Part.objects.filter(pk=part.pk).update(at=timezone.now())
    assert ida.get("/record/months").json()["lies_pieces"] == 0


def test_figures_are_for_who_runs_the_shop_and_the_table_holds_the_same(past, ida, bram):
    assert {bram.get(p).status_code for p in ("/record/months", "/record/months.csv")} == {403}
    table = ida.get("/record/months.csv").content.decode().splitlines()
    assert table[0].startswith("first,taken_in,handed_back")
    assert len(table) == 13


def test_the_record_takes_few_queries_however_long_it_is(past, ida, django_assert_max_num_queries):
    with django_assert_max_num_queries(13):
        assert ida.get("/record/months").status_code == 200
    with django_assert_max_num_queries(4):
        assert ida.get("/record/advice").status_code == 200


def test_what_a_bench_tries_is_kept_beside_its_job(bram):
    row = Job.objects.get(tag="K-0103")
    ((_, p, _, is_clean),) = row.judged
    assert 0 < p < 1
    assert is_clean


def kept(weight, cause, seen, *, is_confirmed=True):
    return {"weight": weight, "is_confirmed": is_confirmed, "seen": seen, "closing": {cause: 1.0}}


def test_causes_returns_and_money_are_counted_from_what_is_kept(past, nia):
    jobs = list(Job.objects.filter(tag__startswith="K-9").exclude(outcome__startswith="Voided").order_by("pk"))
    seen = {"a": 0.5, "b": 0.3, "c": 0.1, "d": 0.05}
    for n, job in enumerate(jobs):
        job.past = kept(1.0 if n % 2 else 0.5, "abcd"[n % 4], seen, is_confirmed=n < 20)
        job.offered_cents, job.paid_cents = 4_000, 5_000 if n < 10 else None
        job.save()
    clean = [j for j in jobs if j.tried[-1][1]]
    Job.objects.filter(pk=jobs[-1].pk).update(returns=clean[0], is_covered=True)
    told = nia.get("/record/advice").json()
    assert [(told[x]["k"], told[x]["n"]) for x in ("first", "first_three")] == [(5, 20), (15, 20)]
    back = {told[x]["k"] for x in ("proven_back", "probable_back")}
    assert (back, told["proven_back"]["n"] + told["probable_back"]["n"]) == ({0, 1}, len(clean))
    assert told["money"] == {"n": 10, "mean_cents": 1_000, "low_cents": 1_000, "high_cents": 1_000, "is_enough": False}


def test_suppliers_are_counted_by_what_came_and_what_is_late(ida):
    kind, today = Kind.objects.first(), timezone.localdate()
    slow, quick = (Supplier.objects.create(name=n) for n in ("Slow", "Quick"))
    own = {"kind": kind, "packs": 1, "pack_cents": 100}
    for n in range(12):
        came = today - timedelta(days=40 + n)
        Order.objects.create(tag=f"O-8{n:02}", supplier=slow, ordered_on=came - timedelta(days=20), arrived_on=came, **own)
        Order.objects.create(tag=f"O-9{n:02}", supplier=quick, ordered_on=came - timedelta(days=3), arrived_on=came, **own)
    Order.objects.create(tag="O-999", supplier=quick, ordered_on=today - timedelta(days=30), **own)
    rows = {r["name"]: r for r in ida.get("/record/months").json()["suppliers"]}
    assert [name for name in rows if name in ("Slow", "Quick")] == ["Slow", "Quick"]
    assert (rows["Quick"]["n"], rows["Quick"]["on_the_way"], rows["Quick"]["late"], rows["Slow"]["late"]) == (12, 1, 1, 0)
    assert [round(rows[name]["half_days"]) for name in ("Quick", "Slow")] == [3, 17]
