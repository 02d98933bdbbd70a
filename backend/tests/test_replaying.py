"""Closed jobs played again by each way: which, once, by today's models and figures, and what that says."""

import pytest
from apps.jobs.models import Job
from apps.record.models import Replayed
from apps.record.replaying import AT_ONCE, against_schools, replay_closed
from apps.shop.models import Shop
from apps.shop.selectors import the_shop
from django.utils import timezone
from spindle.learning.past import Done, Past, write_past
from spindle.study.replay import WAYS, WORLD

WAY = (Done("spins", "cycles"), Done("replace_pickup", "clean", is_repair=True))


def closed(tag, **more):
    """A closed job of which this is kept: pickup confirmed, by one look and its repair."""
    row = Job.objects.get(tag=tag)
    past = write_past(Past(row.sheet.variant, "slot", 1.0, True, {}, {"pickup_650": 1.0}, way=WAY))
    Job.objects.filter(pk=row.pk).update(closed_at=timezone.now(), past={**past, **more})
    return row.pk


@pytest.fixture
def shop(db):
    Job.objects.update(past=None)
    return list(Job.objects.order_by("tag").values_list("tag", flat=True)[:6])


def test_confirmed_jobs_are_played_a_few_at_once_and_each_once(shop):
    for tag in shop:
        closed(tag)
    assert replay_closed(lambda: True) == AT_ONCE
    assert set(Replayed.objects.values_list("job__tag", flat=True)) == set(shop[-AT_ONCE:])  # the newest first
    assert [replay_closed(lambda: True) for _ in range(2)] == [len(shop) - AT_ONCE, 0]
    assert all(set(c) == set(WAYS) for c in Replayed.objects.values_list("cents", flat=True))


@pytest.mark.parametrize("more", [{"is_confirmed": False}, {"way": []}, None])
def test_what_was_not_confirmed_or_not_one_after_the_other_is_not_played(shop, more):
    pk = closed(shop[0], **(more or {}))
    if more is None:  # kept before ways were: made anew at the next start
        Job.objects.filter(pk=pk).update(past={k: v for k, v in Job.objects.get(pk=pk).past.items() if k != "way"})
    assert (replay_closed(lambda: True), against_schools().of) == (0, 0)


@pytest.mark.parametrize("change", ["version", "figures"])
def test_what_it_rests_on_is_new_and_it_is_played_anew(shop, change):
    closed(shop[0])
    replay_closed(lambda: True)
    assert against_schools().played == 1
    if change == "version":
        Job.objects.filter(tag=shop[0]).update(version=999)
    else:
        Shop.objects.update(version=999)
    assert against_schools().played == 0  # two moneys are not mixed
    assert [replay_closed(lambda: True) for _ in range(2)] == [1, 0]
    assert Replayed.objects.count() == 1


def test_a_cause_that_todays_models_do_not_have_is_no_unit(shop):
    closed(shop[0], closing={"gremlins": 1.0})
    closed(shop[1])
    assert replay_closed(lambda: True) == 2
    assert (against_schools().played, against_schools().of, against_schools().ways) == (1, 2, ())


def test_who_is_needed_elsewhere_plays_none(shop):
    closed(shop[0])
    assert replay_closed(lambda: False) == 0


def test_each_way_stands_beside_the_advice_with_its_interval(shop, bram):
    for n, tag in enumerate(shop[:3]):
        version, world = Job.objects.get(tag=tag).version, f"{WORLD} {the_shop().version}"
        Replayed.objects.create(
            job_id=closed(tag), version=version, world=world, cents={way: 1000 + 100 * n + (300 * n if way == "here" else 0) for way in WAYS}
        )
    told = bram.get("/record/schools").json()
    ways = {w["way"]: w for w in told["ways"]}
    assert (told["played"], told["of"], list(ways)) == (3, 3, list(WAYS))
    assert (ways["planner"]["mean_cents"], ways["planner"]["more_cents"], ways["planner"]["high_cents"]) == (1100, 0, 0)
    here = ways["here"]
    assert (here["mean_cents"], here["more_cents"]) == (1400, 300)
    assert (here["low_cents"], here["high_cents"]) == (300 - 339, 300 + 339)  # 1.96 times 300 over the root of 3
    assert bram.get("/record/schools.csv").content.decode().splitlines()[1].startswith("here,As it was done here,1400,300")
