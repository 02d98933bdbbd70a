"""What the closed jobs teach: told before it is used, put to use by a press, taken back by another; and the demo's year, whose truth it has to find."""

from datetime import timedelta

import pytest
from apps.demo.year.services import Year, truth
from apps.drives.models import Layer
from apps.drives.selectors import model_in_use, model_of
from apps.jobs.models import Job
from apps.jobs.outlook import rests_on_of
from apps.jobs.selectors import job_row, open_job
from apps.jobs.services.rebuilding import rebuild
from apps.record.learning import MOST_KEPT, Learning, _source, other_suspects, taught
from apps.record.models import Kept
from apps.shop.selectors import the_shop
from scipy.special import betaincinv
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.faults.model import LEAK, NOTHING
from spindle.learning.judging import Judgement
from spindle.learning.layer import Layer as Layer_
from spindle.learning.layer import Part

KEY = "use-what-was-learnt"
SEEN = "K-0107"


@pytest.fixture
def year(db):
    """The first forty jobs of the demo's year."""
    assert Year(truth()).load(40) > 35


@pytest.fixture
def better(monkeypatch):
    """Everything that is learnt is judged better."""
    monkeypatch.setattr("apps.record.learning.judge", lambda *_: dict.fromkeys(Part, Judgement(100, 0.1, 0.01)))


def use(who, jobs, key=KEY):
    return who.post("/record/learning/use", key=key, jobs=jobs)


def test_a_closed_job_teaches_once_and_a_voided_one_nothing(year):
    assert not Job.objects.filter(closed_at__isnull=False, past__isnull=True).exclude(outcome__startswith="Voided").exists()
    assert not Job.objects.filter(closed_at__isnull=True, past__isnull=False).exists()


def test_what_was_kept_by_older_rules_is_made_anew_and_the_rest_left(year):
    row, other = Job.objects.filter(tag__startswith="K-2", past__isnull=False).order_by("tag")[:2]
    Job.objects.filter(pk__in=[row.pk, other.pk]).update(past=None)
    Job.objects.filter(pk=row.pk).update(kept_as=0)
    assert rebuild() == []
    assert [Job.objects.get(pk=j.pk).past is None for j in (row, other)] == [False, True]
    assert Job.objects.get(pk=row.pk).past == row.past


def test_nothing_counts_before_somebody_puts_it_to_use(year, bram):
    told = bram.get("/record/learning").json()
    assert (told["in_use"], told["jobs"]) == (None, Job.objects.filter(past__isnull=False).count())
    assert {p["part"] for p in told["parts"]} == {"causes", "repairs", "pace", "looks", "playing", "rows"}
    assert {r["about"] for r in told["rows"]} > {"repair", "hand"}
    pk = Job.objects.get(tag=SEEN).sheet_id
    assert model_in_use(pk) is model_of(pk)


def test_it_is_used_by_a_press_and_taken_back_by_another(year, better, ida):
    row = job_row(SEEN)
    before = open_job(row, the_shop())
    rested = rests_on_of(before)
    jobs = ida.get("/record/learning").json()["jobs"]
    used = use(ida, jobs).json()["in_use"]
    assert (used["number"], used["jobs"], set(used["parts"])) == (1, jobs, {"causes", "repairs", "pace", "looks", "playing", "rows"})
    now = open_job(row, the_shop())
    assert now.state.belief.p != pytest.approx(before.state.belief.p)
    assert rests_on_of(now) != rested
    assert isinstance(model_in_use(row.sheet_id).learnt_over, CompiledModel)
    assert ida.post("/record/learning/stop", key="stop-0001").json()["in_use"] is None
    assert open_job(row, the_shop()).state.belief.p == pytest.approx(before.state.belief.p)


def test_the_same_press_twice_is_one_layer_and_a_later_one_takes_its_place(year, better, ida):
    jobs = ida.get("/record/learning").json()["jobs"]
    assert [use(ida, jobs, key=k).json()["in_use"]["number"] for k in (KEY, KEY, "another-key")] == [1, 1, 2]
    assert list(Layer.objects.values_list("number", "is_used")) == [(2, True), (1, False)]


def test_a_newer_layer_has_to_predict_better_than_the_one_in_use_and_keeps_what_it_does_not_better(year, better, ida, monkeypatch):
    jobs = ida.get("/record/learning").json()["jobs"]
    use(ida, jobs)
    found = {Part.CAUSES: Judgement(30, 0.2, 0.01), **dict.fromkeys((Part.REPAIRS, Part.PACE, Part.LOOKS, Part.PLAYING, Part.ROWS), Judgement(30, 0.0, 0.01))}
    seen = []
    monkeypatch.setattr("apps.record.learning.judge", lambda *told: seen.append(told) or found)
    Kept.objects.all().delete()
    told = ida.get("/record/learning").json()
    assert [(p["is_better"], p["since_version"]) for p in told["parts"]] == [(True, True), *[(False, True)] * 5]
    first, (_, _, _, standing, knows) = Layer.objects.get(), seen[0]
    assert (knows, standing.written()) == (jobs, first.body)
    used = use(ida, jobs, key="a-later-press").json()["in_use"]
    second = Layer.objects.get(number=2)
    assert (used["number"], set(used["parts"])) == (2, {"causes", "repairs", "pace", "looks", "playing", "rows"})
    assert [p["gain"] for p in second.parts] == [0.2, 0.1, 0.1, 0.1, 0.1, 0.1]
    assert {k: v for k, v in second.body.items() if k != "share"} == {k: v for k, v in first.body.items() if k != "share"}


def test_what_is_taken_back_is_there_as_it_was_worked_out_before(year, better, ida, monkeypatch):
    before = ida.get("/record/learning").json()
    use(ida, before["jobs"])
    monkeypatch.setattr("apps.record.learning.judge", None)
    assert ida.post("/record/learning/stop", key="stop-0001").json() == before
    monkeypatch.setattr("apps.record.learning._written", lambda _: Kept.objects.latest("pk").body)
    for n in range(MOST_KEPT + 2):
        monkeypatch.setattr("apps.record.learning._rests_on", lambda n=n: str(n))
        taught()
    assert sorted(Kept.objects.values_list("rests_on", flat=True)) == [str(n) for n in range(2, MOST_KEPT + 2)]


@pytest.mark.parametrize(("who", "more", "status"), [("bram", 0, 403), ("nia", 0, 403), ("ida", 1, 409)])
def test_only_who_runs_the_shop_uses_it_and_only_what_was_shown(year, better, request, who, more, status):
    jobs = request.getfixturevalue("ida").get("/record/learning").json()["jobs"]
    assert use(request.getfixturevalue(who), jobs + more).status_code == status
    assert not Layer.objects.exists()


def test_what_is_no_better_is_not_put_to_use(year, ida, monkeypatch):
    monkeypatch.setattr("apps.record.learning.judge", lambda *_: dict.fromkeys(Part, Judgement(100, 0.1, 0.06)))
    refused = use(ida, ida.get("/record/learning").json()["jobs"])
    assert (refused.status_code, refused.json()["code"]) == (409, "not_now")
    assert "the figures in use stay" in refused.json()["title"]


def test_a_job_teaches_what_the_shipped_model_says_whatever_is_in_use(year, better, ida):
    before = Learning().pasts
    use(ida, len(before))
    Job.objects.update(kept_as=0)
    assert rebuild() == []
    assert Learning().pasts == before


def test_names_go_into_the_table_and_never_as_formulas(year, ida):
    row = Job.objects.filter(past__took__0__isnull=False).first()
    row.past["took"][0]["who"] = "=1+1"
    row.save()
    table = ida.get("/record/learning.csv").content.decode()
    assert table.startswith("about,of,name,was,now,n,low,high,confirmed,of_confirmed")
    assert "hand,'=1+1," in table


@pytest.mark.parametrize(
    ("lot", "supplier", "donor", "says"),
    [("7", "Dune parts", None, "Lot 7, Dune parts"), ("7", None, None, "Lot 7"), ("", "Dune parts", None, ""), ("7", None, "D-0003", "Donor D-0003")],
)
def test_a_part_comes_from_its_donor_or_its_lot(lot, supplier, donor, says):
    assert _source(lot, supplier, donor) == says


def test_what_came_back_with_the_same_fault_says_how_long_a_repair_lasts(year):
    job = next(j for j in Job.objects.filter(outcome="Repaired", tag__startswith="K-2") if j.judged[-1][3])
    family, repair = job.past["family"], job.judged[-1][0]
    before = Learning().lessons.lasting[family][repair]
    Job.objects.create(tag="K-9999", sheet=job.sheet, taken_in_at=job.closed_at + timedelta(days=20), owner_name="W", returns=job, is_covered=True)
    after = Learning().lessons.lasting[family][repair]
    assert (before.came_back, after.came_back, after.n) == (0, 1, before.n)
    assert after.months < before.months


def test_open_jobs_that_would_get_another_first_suspect_are_named(year):
    row = job_row(SEEN)
    model = model_of(row.sheet_id)
    share = {f.id: 0.01 for f in model.faults} | {"lens_dirty": 0.5}
    found = next(s for s in other_suspects(Layer_(share={row.sheet.variant: share})) if s.tag == SEEN)
    assert (found.was, found.now) == ("Pickup: short-wave diode weak", "Lens dirty or hazy")
    assert found.p_now > 0.2
    assert other_suspects(Layer_()) == []


def test_the_year_holds_its_truth_and_the_record_finds_it(db):
    told = truth()
    assert Year(told).load(told["jobs"]) > 0.95 * told["jobs"]
    learning = Learning()
    rows = learning.rows
    for variant, weak in told["weak"].items():
        model = learning.models[variant]
        place = model.fault_index[weak["fault"]]
        row = next(r for r in rows if (r.about, r.of, r.name) == ("cause", variant, model.faults[place].name))
        low, high = betaincinv(0.5 + row.confirmed, 0.5 + row.of_confirmed - row.confirmed, [0.05, 0.95])
        times = weak["times"] * model.prior[place]
        assert row.now > 2 * row.was
        real = sum(p for p, f in zip(model.prior, model.faults, strict=True) if f.id not in (NOTHING, LEAK))  # what can be confirmed at all
        assert low < times / (real + times - model.prior[place]) < high
    lot = next(r for r in rows if r.name == f"Lot {told['lots']['bad']}")
    assert lot.low < told["lots"]["bad_share"] < lot.high
    assert max((r for r in rows if r.about == "source"), key=lambda r: r.now) is lot
    slow = next(r for r in rows if (r.about, r.name) == ("hand", "Soldering") and r.of.startswith("Ida"))
    assert slow.low < told["hands"]["ida"]["solder"] < slow.high
    looks = [r for r in rows if r.about == "look" and r.n >= 40]
    assert len(looks) > 4
    assert sum(r.low < told["hands"]["ida"]["look"] < r.high for r in looks) >= 0.75 * len(looks)
    assert learning.judged[Part.CAUSES].is_better
