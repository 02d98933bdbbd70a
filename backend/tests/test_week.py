"""The week: worked out apart from requests, kept until something changes, and told without an owner's name."""

from datetime import datetime, timedelta

import pytest
from api.day.views import _why
from apps.day.keeping import keep_day
from apps.day.models import CalendarAddress, JobWays, WeekPlan
from apps.day.selectors import ahead_of, floor_of, pace_of, plain
from apps.day.services import draw_unseen, refresh
from apps.drives.models import Sheet
from apps.jobs.models import Job, TapeLine
from apps.people.models import User
from apps.shop.models import Shop
from apps.shop.selectors import the_shop
from config.beside import Beside
from django.db.models import F
from django.test import Client
from django.utils import timezone
from icalendar import Calendar
from spindle.day.legs import Leg, LegKind, Pace
from spindle.diagnosis.given.case import Stock


@pytest.fixture(autouse=True)
def few_ways(monkeypatch):
    monkeypatch.setattr("apps.day.services.WAYS", 6)
    monkeypatch.setattr("apps.day.services.IMPROVED_S", 0.0)


@pytest.fixture
def week(nia):
    refresh(timezone.now())
    return nia.get("/week").json()


def test_before_it_was_worked_out_it_says_so_and_asks_nothing_of_the_server(nia):
    told = nia.get("/week").json()
    assert (told["computed_at"], told["rows"], told["is_stale"]) == (None, [], True)
    assert nia.get(f"/week/offer?sheet_id={Sheet.objects.first().pk}").json() == {"is_ready": False, "days": [], "moved": []}


def test_every_job_in_the_house_stands_in_it_once_with_its_days(week):
    assert sorted(r["tag"] for r in week["rows"]) == sorted(Job.objects.exclude(stage="closed").values_list("tag", flat=True))
    assert all(r["half"] <= r["nine"] for r in week["rows"])
    assert all((r["p_kept"] is None) == (r["promised_on"] is None) for r in week["rows"])
    assert (week["is_stale"], week["unread"], len(week["days"]), week["units"]) == (False, [], 14, len(week["rows"]))
    assert {r["tag"]: r["hands"] for r in week["rows"]} == dict(Job.objects.exclude(stage="closed").values_list("tag", "hands"))


def test_of_a_long_week_what_comes_first_is_shown_and_the_rest_on_demand(week, nia, monkeypatch):
    monkeypatch.setattr("apps.day.selectors.AT_FIRST", 3)
    told, whole = (nia.get(path).json() for path in ("/week", "/week?whole=true"))
    assert (told["rows"], told["units"], whole["rows"]) == (week["rows"][:3], week["units"], week["rows"])


def test_a_job_that_only_waits_to_be_fetched_needs_no_bench(week):
    row = next(r for r in week["rows"] if r["tag"] == "K-0108")
    assert (row["first"], row["begins"], row["why"]) == (None, None, "Waits to be fetched")


def test_what_somebody_writes_makes_it_stale_and_draws_that_job_alone_anew(week, bram):
    before = dict(JobWays.objects.values_list("job__tag", "rests_on"))
    assert not refresh(timezone.now())
    assert bram.ask("K-0107", "remark", text="It smells of dust.").status_code == 200
    assert bram.get("/week").json()["is_stale"]
    assert refresh(timezone.now())
    after = dict(JobWays.objects.values_list("job__tag", "rests_on"))
    assert {tag for tag in before if before[tag] != after[tag]} == {"K-0107"}


def test_a_job_that_cannot_be_read_is_named_and_the_others_stand(nia):
    row = Job.objects.get(tag="K-0107")
    body = {"question": "nonsense", "outcome": "x", "source": "bench"}
    TapeLine.objects.create(job=row, number=900, version=900, kind="answer", body=body, at=timezone.now(), by_id=row.lines.first().by_id)
    refresh(timezone.now())
    told = nia.get("/week").json()
    assert told["unread"] == ["K-0107"]
    assert "K-0105" in {r["tag"] for r in told["rows"]}


@pytest.mark.parametrize("error", [ValueError, KeyError, TypeError])
def test_a_job_that_breaks_the_drawing_takes_no_other_with_it(nia, monkeypatch, error):
    def breaks(state, *_, **__):
        if state.job.tag == "K-0107":
            raise error("x")
        return ((),)

    monkeypatch.setattr("apps.day.services.draw_futures", breaks)
    assert refresh(timezone.now())
    assert nia.get("/week").json()["unread"] == ["K-0107"]


def test_whatever_goes_wrong_the_process_goes_on(db, monkeypatch):
    tries, naps = [], []
    monkeypatch.setattr("apps.day.keeping.refresh", lambda *_: tries.append(1) or 1 / 0)
    monkeypatch.setattr("config.beside.os.nice", lambda _: None)
    monkeypatch.setattr("config.beside.os.getppid", lambda: 7 if len(tries) < 2 else 1)
    monkeypatch.setattr("config.beside.time.sleep", naps.append)
    Beside("the week", 15, 2.0, keep_day).run(7)
    assert (len(tries), naps) == (2, [60.0, 60.0])


@pytest.mark.parametrize(("worked", "rests", "nap"), [(0.1, 6.0, 2.0), (3.0, 6.0, 18.0), (3.0, 0.0, 2.0)])
def test_what_runs_beside_rests_longer_the_longer_it_worked(db, monkeypatch, worked, rests, nap):
    clock, naps = [0.0], []
    monkeypatch.setattr("config.beside.os.nice", lambda _: None)
    monkeypatch.setattr("config.beside.os.getppid", lambda: 1 if naps else 7)
    monkeypatch.setattr("config.beside.time.monotonic", lambda: clock[0])
    monkeypatch.setattr("config.beside.time.sleep", naps.append)
    Beside("the week", 15, 2.0, lambda _: clock.__setitem__(0, worked), rests).run(7)
    assert naps == [nap]


def test_what_was_drawn_of_a_closed_job_goes(week, nia):
    Job.objects.filter(tag="K-0108").update(stage="closed", version=99)
    refresh(timezone.now())
    assert not JobWays.objects.filter(job__tag="K-0108").exists()


def test_what_a_week_rests_on_is_written_alike_in_every_process():
    assert plain(frozenset("cab")) == ["a", "b", "c"]
    assert plain(Stock("replace_pickup", "P-1"))["works"] == frozenset()


def test_what_keeps_the_power_off_comes_before_the_bench(db):
    row, now = Job.objects.get(tag="K-0107"), timezone.now()
    row.held_until = now + timedelta(minutes=40)
    first = ahead_of(row, ((Leg(LegKind.BENCH, 10.0),),), Shop.objects.get(), now).futures[0][0]
    assert first == Leg(LegKind.ALONE, 40.0)


def test_what_the_owners_took_for_their_last_answers_is_reckoned_with(week, bram):
    job, before = Job.objects.get(tag="K-0101"), dict(JobWays.objects.values_list("job__tag", "rests_on"))
    monday = datetime(2026, 11, 2, 10, 0, tzinfo=the_shop().clock)
    for n in range(40):
        said = (("proposal", 0), ("consent", 45))
        own = {"job": job, "version": 900, "body": {}, "by": User.objects.get(username="nia")}
        TapeLine.objects.bulk_create(TapeLine(number=900 + 2 * n + k, kind=kind, at=monday + timedelta(minutes=m), **own) for k, (kind, m) in enumerate(said))
    pace, waits = pace_of(the_shop())
    answers = len(waits.answered)
    assert (pace.owner_min < 90.0, answers >= 40, week["owner_min"] >= 360.0, week["answers"]) == (True, True, True, 0)
    Job.objects.filter(tag="K-0108").update(version=F("version") + 1)
    refresh(timezone.now())
    told = bram.get("/week").json()
    assert (told["owner_min"], told["answers"]) == (pace.owner_min, answers)
    after = dict(JobWays.objects.values_list("job__tag", "rests_on"))
    assert all(after[tag] != before[tag] for tag in before)


def test_an_owner_who_has_not_answered_yet_counts_for_as_long_as_they_were_waited_for(week, nia):
    before, own = pace_of(the_shop())[1], {"version": 900, "body": {}, "by": User.objects.get(username="nia"), "kind": "proposal"}
    for tag, acts in (("K-0104", "owner"), ("K-0107", "bench")):
        Job.objects.filter(tag=tag).update(acts=acts)
        TapeLine.objects.create(job=Job.objects.get(tag=tag), number=900, at=timezone.now() - timedelta(days=21), **own)
    waits = pace_of(the_shop())[1]
    assert (waits.answered, len(waits.so_far), max(waits.so_far) > 5_000) == (before.answered, 1, True)
    Job.objects.filter(tag="K-0108").update(version=F("version") + 1)
    refresh(timezone.now())
    assert nia.get("/week").json()["unanswered"] == 1


def test_a_new_unit_is_told_its_days_and_what_it_moves(week, nia):
    assert draw_unseen() == Sheet.objects.filter(is_current=True).count()
    assert draw_unseen() == 0
    told = nia.get(f"/week/offer?sheet_id={Sheet.objects.get(variant='VM-S41', is_current=True).pk}").json()
    chances = [d["p"] for d in told["days"]]
    assert told["is_ready"]
    assert chances == sorted(chances)
    assert chances[-1] >= 0.85
    assert WeekPlan.objects.count() == 1


@pytest.mark.parametrize(
    ("field", "value"),
    [("opening", "Mon 9-17"), ("opening", ""), ("closed_days", "Christmas"), ("benches", 0), ("without_iron", 1), ("label_columns", 5), ("label_rows", 0)],
)
def test_hours_that_cannot_be_read_are_refused_and_nothing_is_changed(ida, field, value):
    told = "opening", "closed_days", "benches", "without_iron", "label_columns", "label_rows"
    before = Shop.objects.values(*told).get()
    answer = ida.post("/shop", key="hours-refused-1", version=Shop.objects.get().version, **{field: value})
    assert answer.status_code == 422
    assert Shop.objects.values(*told).get() == before


def test_whoever_does_not_solder_leaves_the_iron_to_the_others(week, ida):
    told = ida.post("/shop", key="two-people-1", version=Shop.objects.get().version, benches=2, without_iron=1).json()
    assert (told["benches"], told["without_iron"]) == (2, 1)
    refused = ida.post("/shop", key="one-person-1", version=told["version"], benches=1)
    assert (refused.status_code, refused.json()["params"]["place"]) == (422, "without_iron")
    shop, ways = Shop.objects.get(), ((Leg(LegKind.BENCH, 10.0, iron=True), Leg(LegKind.BENCH, 5.0)),)
    assert floor_of(shop, timezone.now(), Pace()).without_iron == 1
    row = Job.objects.get(tag="K-0107")
    assert ahead_of(row, ways, shop, timezone.now()).futures == ways
    shop.without_iron = 0
    assert ahead_of(row, ways, shop, timezone.now()).futures == ((Leg(LegKind.BENCH, 15.0),),)


FIRST, IRON = "Taken first: that helps the others most", "or somebody who solders"


@pytest.mark.parametrize(("lifted", "iron", "why"), [(False, False, ""), (True, False, FIRST), (False, True, f"F{IRON}"), (True, True, f"{FIRST}, f{IRON}")])
def test_the_week_says_why_a_unit_stands_where_it_does(lifted, iron, why):
    assert _why({"first": "bench", "iron": iron}, lifted=lifted) == why


def test_the_hours_move_the_week(week, ida):
    only = ida.post("/shop", key="hours-set-0001", version=Shop.objects.get().version, opening="Wed 9:00-12:00")
    assert only.status_code == 200
    refresh(timezone.now())
    days = [d["is_open"] for d in ida.get("/week").json()["days"]]
    assert sum(days) == 2


def events(content):
    return {str(e["UID"]): e for e in Calendar.from_ical(content).walk("VEVENT")}


def test_a_calendar_tells_promises_deliveries_and_guarantees_and_no_owner(nia):
    content = nia.get("/week/calendar.ics").content
    found = events(content)
    assert {u.split("-")[0] for u in found} >= {"promise", "order"}
    assert found["promise-K-0105@tidy-spindle"].decoded("dtstart") == Job.objects.get(tag="K-0105").promised_on
    assert not [name for name in Job.objects.values_list("owner_name", flat=True) if name.encode() in content]


def test_an_event_keeps_its_name_and_its_sequence_rises_with_what_is_written(nia, bram):
    def sequence():
        return int(events(nia.get("/week/calendar.ics").content)["promise-K-0107@tidy-spindle"]["SEQUENCE"])

    before = sequence()
    assert bram.ask("K-0107", "remark", text="Later.").status_code == 200
    assert sequence() > before


def test_an_address_opens_without_signing_in_until_it_is_taken_back(ida):
    (made,) = ida.post("/calendars", key="calendar-make-1", name="Counter tablet").json()
    assert events(Client().get(made["path"]).content)
    assert made["path"].rpartition("/")[2].removesuffix(".ics") not in str(CalendarAddress.objects.values().get())
    assert ida.post(f"/calendars/{made['id']}/end", key="calendar-end-01").json() == []
    assert Client().get(made["path"]).status_code == 404


def test_addresses_are_the_managers_and_each_is_made_once(bram, ida):
    assert bram.get("/calendars").status_code == 403
    assert bram.post("/calendars", key="calendar-make-2", name="Mine").status_code == 403
    assert [len(ida.post("/calendars", key="calendar-make-3", name="Phone").json()) for _ in range(2)] == [1, 1]
    assert ida.post("/calendars", key="calendar-make-4", name="  ").status_code == 422


def test_whoever_guesses_addresses_is_sent_away(db):
    assert {Client().get(f"/c/guess{n}.ics").status_code for n in range(25)} == {404, 429}
