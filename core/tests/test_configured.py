"""What was fitted when: the posterior against counting every state of every item, and whose drive a finding is about."""

from itertools import product
from types import MappingProxyType

import numpy as np
import pytest
from spindle.diagnosis.belief.item_health import item_health
from spindle.diagnosis.belief.likelihood import unreliability
from spindle.diagnosis.belief.posterior import believe
from spindle.diagnosis.belief.trials import trials_log_likelihood
from spindle.diagnosis.evidence.gather import LeftOut
from spindle.diagnosis.explaining.configurations import places, to_ask_again
from spindle.diagnosis.given.case import Answer, Change, Finding, Setting, Trial, TrialResult
from spindle.diagnosis.given.compiled import compile_model, silent
from spindle.drives.levels import LEVELS
from spindle.errors import CaseError
from spindle.faults.model import QuestionKind
from spindle.words.bench import Reach
from spindle.words.health import P_BAD_ITEM, P_BAD_KNOWN_FAILING, Health

from .conftest import FAMILIES, FREE, PAIRED

MODELS = {name: compile_model(sheet) for name, sheet in FAMILIES.items()}
SLOT = compile_model(PAIRED)
RETRIES = (("takes_disc", "takes"), ("spins", "cycles"), ("game_bd", "fails"), ("film_dvd", "fails"))


def tape(*whats):
    return tuple(
        Finding(f"f{n}", w if isinstance(w, (Answer, Trial)) else Answer(w[0], w[1], setting=Setting(**(w[2] if len(w) > 2 else {}))))
        for n, w in enumerate(whats)
    )


def p(*whats, model=SLOT):
    return believe(tape(*whats), model).p


def chance(fault, *whats):
    return float(p(*whats)[SLOT.fault_index[fault]])


def function_of(fault, model):
    return next(x.function for x in model.parts if x.id == fault.part)


def may_be_bad(change, model):
    """Item -> function -> share of each fault that it then has."""
    repair = model.repairs[model.repair_index[change.repair]]
    does = next(v.functions for v in LEVELS.values() if repair.id in v.repairs)
    shares = {}
    for i, fault in enumerate(model.faults):
        if fault.id in repair.cures and function_of(fault, model) in does and fault.id != "not_listed" and not fault.opened_by:
            share = shares.setdefault(function_of(fault, model), np.zeros(len(model.faults)))
            share[i] = model.prior[i] * model.success[model.repair_index[repair.id], i]
    return {g: s / s.sum() for g, s in shares.items()}


def p_bad(change, function):
    return P_BAD_ITEM[Health.PROVEN] if function in change.works else P_BAD_KNOWN_FAILING if function in change.fails else P_BAD_ITEM[change.health]


def counted(whats, model, only=MappingProxyType({})):
    """P(all of it | fault) by counting every state of every item, every cause's own answer, and whether the disc was home."""
    changes = {c.item: c for w in whats for c in (w.changes if isinstance(w, Trial) else w.setting.fitted)}
    may = {item: may_be_bad(c, model) for item, c in changes.items()}
    bits = [(item, g) for item, of in may.items() for g in of]
    total, n_faults, sound = np.zeros(len(model.faults)), len(model.faults), model.fault_index["nothing_wrong"]
    for state in product((False, True), repeat=len(bits)):
        bad = dict(zip(bits, state, strict=True))
        if any(bad[b] != s for b, s in only.items()):
            continue
        weight = np.prod([p_bad(changes[k], g) if b else 1 - p_bad(changes[k], g) for (k, g), b in bad.items()])
        like, at = np.ones(n_faults), {}
        for w in whats:
            if isinstance(w, Trial):
                like *= [tried(w, f, bad, model) for f in range(n_faults)]
            else:
                at.setdefault(tuple(sorted(c.item for c in w.setting.fitted)), []).append(w)
        for seen in at.values():
            own_out = 1 - np.prod([1 - model.success[model.repair_index[c.repair]] for c in seen[0].setting.fitted], axis=0)
            own_out[sound] = 0
            causes = [may[c.item][g] for c in seen[0].setting.fitted for g in may[c.item] if bad[c.item, g]]
            home = (own_out * model.p_home[sound] + (1 - own_out) * model.p_home) * np.prod([model.p_home @ s for s in causes])
            like *= home * answers(seen, own_out, causes, model, is_home=True) + (1 - home) * answers(seen, own_out, causes, model, is_home=False)
        total += weight * like
    return total


def tried(trial, f, bad, model):
    left = 1.0
    for c in trial.changes:
        is_good = not bad.get((c.item, function_of(model.faults[f], model)), False)
        left *= 1 - model.success[model.repair_index[c.repair], f] * is_good
    return left * 0.97 * (0.03 if model.faults[f].id == "nothing_wrong" else 1)


def answers(seen, own_out, causes, model, *, is_home):
    like = np.ones(len(model.faults))
    for a in seen:
        question = model.questions[a.question]
        ids, eps, table = [o.id for o in question.outcomes], unreliability(a.source, question), model.likelihood[a.question]
        if not is_home and question.stage >= Reach.DISC:
            like *= (1 - eps) * silent(question)[ids.index(a.outcome)] + eps / len(ids)
            continue
        rank = {o: question.bad.index(o) + 1 if o in question.bad else 0 for o in ids}
        own = table * (1 - own_out) + table[:, [model.fault_index["nothing_wrong"]]] * own_out
        shown = np.zeros(len(model.faults))
        for kinds in product(range(len(ids)), repeat=1 + len(causes)):
            worst = max(kinds, key=lambda k: (rank[ids[k]], -k))
            if ids[worst] == a.outcome:
                shown += own[kinds[0]] * np.prod([table[k] @ s for k, s in zip(kinds[1:], causes, strict=True)])
        like *= (1 - eps) * shown + eps / len(ids)
    return like


def random_tape(model, rng):
    parts = [r.id for r in model.repairs if r.uses_item and 0 < len(may_be_bad(Change(r.id, "x"), model)) < 4 and "not_listed" not in r.cures]
    health = [Health.NEW, Health.PROVEN, Health.UNKNOWN]
    items = [Change(str(r), f"P-{n}", health[rng.integers(3)]) for n, r in enumerate(rng.choice(parts, rng.integers(1, 3), replace=False))]
    asked = [q for q in model.questions.values() if q.kind is not QuestionKind.INTAKE and not q.proves and not q.stops and len(q.outcomes) == len(q.bad) + 1]
    whats = []
    for q in rng.choice(np.array(asked, dtype=object), rng.integers(1, 5), replace=False):
        fitted = tuple(c for c in items if rng.random() < 0.7) or (items[0],)
        whats.append(Answer(q.id, str(rng.choice([o.id for o in q.outcomes])), setting=Setting(fitted=fitted)))
    if rng.random() < 0.5:
        whats.append(Trial((items[0],), TrialResult.NO_CHANGE))
    return whats


@pytest.mark.parametrize("family", MODELS)
def test_the_posterior_is_what_counting_every_state_gives(family):
    model, rng = MODELS[family], np.random.default_rng(5)
    for _ in range(200):
        whats = random_tape(model, rng)
        belief = believe(tape(*whats), model)
        steady = belief.steadiness
        evidence = belief.evidence
        ours = trials_log_likelihood(evidence.trials, model, steadiness=steady, occasions=evidence.occasions)
        mine = counted(whats, model)
        assert ours == pytest.approx(np.log(mine), abs=1e-9)


@pytest.mark.parametrize("seen", [("game_bd", "reads"), ("game_bd", "fails"), ("spins", "never"), ("takes_disc", "ignores"), ("power", "no")])
def test_what_a_donor_shows_by_itself_moves_nothing_of_this_unit_until_a_piece_of_it_is_in(seen):
    alone, own = (*seen, {"on": "D-1"}), p(*RETRIES)
    assert p(*RETRIES, alone) == pytest.approx(own, abs=1e-12)
    swap = Trial((Change("replace_pickup", "D-1", Health.UNKNOWN),), TrialResult.NO_CHANGE)
    assert seen[0] != "game_bd" or p(*RETRIES, alone, swap) != pytest.approx(p(*RETRIES, swap), abs=1e-3)


def test_a_swap_in_vain_weighs_by_what_the_donor_shows_by_itself():
    swap = ("game_bd", "fails", {"fitted": (Change("replace_pickup", "D-1 pickup", Health.UNKNOWN),)})
    reads, fails = (chance("pickup_dead", *RETRIES, swap, ("game_bd", o, {"on": "D-1"})) for o in ("reads", "fails"))
    assert reads < chance("pickup_dead", *RETRIES, swap) < fails <= chance("pickup_dead", *RETRIES) + 0.01


def test_what_another_drive_does_on_this_console_tells_drive_from_console():
    other = Change("replace_drive", "D-2", Health.PROVEN)
    drive, console = (p(*RETRIES, ("spins", o, {"fitted": (other,)})) for o in ("holds", "cycles"))
    supply = SLOT.fault_index["supply_weak"]
    assert drive[supply] < p(*RETRIES)[supply] < console[supply]


def test_this_drive_on_another_console_clears_what_stays_behind():
    there = ("spins", "cycles", {"console": "other"})
    assert chance("supply_weak", *RETRIES, there) < 0.5 * chance("supply_weak", *RETRIES)


def test_another_console_does_not_recognise_a_paired_drive_and_a_free_one_it_does():
    reads = ("film_dvd", "fails", {"console": "other"})
    assert believe(tape(reads), SLOT).evidence.left_out == {"f0": LeftOut.UNPAIRED_BOARD}
    assert believe(tape(reads), compile_model(FREE)).evidence.left_out == {}


FITTED = {"fitted": (Change("replace_pickup", "P-1"),)}


def test_with_its_own_parts_in_it_the_unit_did_what_it_did():
    """Neither replaces the other, and a question that was answered with another part in is still open for the own one."""
    evidence = believe(tape(("spins", "cycles"), ("spins", "holds", FITTED), ("spins", "cycles", FITTED)), SLOT).evidence
    assert evidence.answers["spins"].outcome == "cycles"
    assert evidence.left_out == {"f1": LeftOut.REPLACED}
    assert [o.seen["spins"].outcome for o in evidence.occasions] == ["cycles"]


def test_a_drive_that_takes_no_disc_with_that_part_in_says_nothing_of_its_reading_then():
    evidence = believe(tape(*RETRIES, ("takes_disc", "ignores", FITTED), ("film_bd", "fails", FITTED)), SLOT).evidence
    assert evidence.left_out == {"f5": LeftOut.NOT_REACHED}
    assert evidence.far.halted is None


def test_the_order_does_not_matter_between_changes():
    whats = [
        *RETRIES,
        ("game_bd", "fails", FITTED),
        ("game_bd", "reads", {"on": "P-1"}),
        ("film_dvd", "reads", FITTED),
        ("spins", "holds", {"console": "other"}),
    ]
    assert p(*whats) == pytest.approx(p(*whats[::-1]), abs=1e-12)


def test_after_a_change_the_unit_is_looked_at_anew_and_a_donor_is_not():
    changed = Trial((Change("clean_lens"),), TrialResult.CHANGED)
    left = believe(tape(*RETRIES, ("game_bd", "fails", FITTED), ("spins", "holds", {"on": "D-1"}), changed), SLOT).evidence.left_out
    assert left["f4"] is LeftOut.OLDER_THAN_CHANGE
    assert "f5" not in left


def test_more_items_than_can_be_told_apart_are_left_out_and_said():
    drives = [("spins", "cycles", {"fitted": (Change("replace_drive", f"D-{n}"),)}) for n in range(4)]
    left = believe(tape(*RETRIES, *drives), SLOT).evidence.left_out
    assert set(left.values()) == {LeftOut.TOO_MANY_ITEMS}
    assert 1 <= len(left) <= 2


@pytest.mark.parametrize(
    ("setting", "where"),
    [
        (Setting(fitted=(Change("clean_lens", "P-1"),)), "/setting/fitted/0/repair"),
        (Setting(fitted=(Change("replace_pickup"),)), "/setting/fitted/0/item"),
        (Setting(fitted=(Change("replace_moon", "P-1"),)), "/setting/fitted/0/repair"),
        (Setting(fitted=(Change("replace_pickup", "P-1"),), on="D-1"), "/setting/on"),
    ],
)
def test_what_cannot_have_been_fitted_is_refused_with_its_place(setting, where):
    with pytest.raises(CaseError) as refused:
        believe((Finding("f", Answer("spins", "holds", setting=setting)),), SLOT)
    assert refused.value.place.endswith(where)


def health_of(*whats):
    return {(i.item, f.function): f for i in item_health(believe(tape(*whats), SLOT), SLOT) for f in i.functions}


def test_items_are_known_function_by_function_by_all_that_was_seen():
    swap = ("game_bd", "fails", {"fitted": (Change("replace_deck", "D-1 deck", Health.UNKNOWN),)})
    before = health_of(*RETRIES, swap)
    spins = health_of(*RETRIES, swap, ("spins", "holds", {"on": "D-1"}), ("game_bd", "fails", {"on": "D-1"}))
    assert before["D-1", "reads"].before == P_BAD_ITEM[Health.UNKNOWN]
    assert before["D-1", "reads"].p_bad > before["D-1", "reads"].before
    assert spins["D-1", "spins"].p_bad < spins["D-1", "spins"].before
    assert spins["D-1", "reads"].p_bad > spins["D-1", "reads"].before


def test_an_item_that_went_in_in_vain_is_doubted_and_one_without_a_name_is_not_listed():
    trial = Trial((Change("replace_pickup", "P-1"), Change("replace_fuse"), Change("clean_lens")), TrialResult.NO_CHANGE)
    health = health_of(*RETRIES, trial)
    assert list(health) == [("P-1", "reads")]
    assert health["P-1", "reads"].p_bad > health["P-1", "reads"].before == P_BAD_ITEM[Health.NEW]


def test_the_chances_of_items_are_those_of_counting():
    rng, model = np.random.default_rng(9), MODELS["lid"]
    for _ in range(25):
        whats = random_tape(model, rng)
        belief = believe(tape(*whats), model)
        changes = {c.item: c for w in whats for c in (w.changes if isinstance(w, Trial) else w.setting.fitted)}
        for one in item_health(belief, model):
            for f in one.functions:
                bad, good = (counted(whats, model, only={(one.item, f.function): state}) for state in (True, False))
                mine = float(belief.p @ (bad / (bad + good)))
                assert f.p_bad == pytest.approx(mine, abs=1e-9)
                assert f.before == p_bad(changes[one.item], f.function)


FITTED_DRIVE = (Change("replace_drive", "D-2"),)


def test_places_say_what_sits_where_and_what_stays_the_owners():
    sits = {p.name: p.item for p in places(FITTED_DRIVE, "slot")}
    assert sits["Pickup"] == sits["Loader"] == "D-2"
    assert sits["Supply"] == sits["Drive board"] == ""
    assert {p.name for p in places((Change("replace_deck", "P-3"),), "lid") if p.item} == {"Cables", "Deck", "Motors", "Pickup"}


def test_what_failed_with_its_own_parts_is_asked_again_with_these_once():
    belief = believe(tape(*RETRIES, ("game_bd", "fails", FITTED)), SLOT)
    assert [q.id for q in to_ask_again(belief, FITTED["fitted"])] == ["spins", "film_dvd"]
    assert [q.id for q in to_ask_again(belief, FITTED_DRIVE)] == ["spins", "game_bd", "film_dvd"]
