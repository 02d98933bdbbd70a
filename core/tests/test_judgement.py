"""What the best technician would say, as a table: a situation, the parts to suspect first, the steps that make sense next."""

import pytest
from spindle.diagnosis.explaining.moves import MoveKind
from spindle.words.bench import Depth

from .conftest import FREE, PAIRED, RETRIES, Bench

DEAD = "takes_disc=ignores wakes=no ejects=no spins=never"
SUSPECTS = [
    ("nothing moves at all", DEAD, {"fuse", "flex_board"}),
    ("dead, fuse measured closed", f"{DEAD} fuse_test=closed", {"flex_board"}),
    ("dead, fuse open", f"{DEAD} fuse_test=open", {"fuse"}),
    ("dead, plug hangs", f"{DEAD} flex_board_look=loose", {"flex_board"}),
    ("asleep to discs, ejects well", "takes_disc=ignores wakes=no ejects=yes", {"switch_insert"}),
    ("insert switch fails its test", "takes_disc=ignores ejects=yes switch_insert_test=fails", {"switch_insert"}),
    ("taken in, never told so", "takes_disc=motor_only spins=never switch_home_test=fails", {"switch_home"}),
    ("slips in and out", "takes_disc=hesitates ejects=slow load_sound=smooth", {"rollers"}),
    ("slips, rubber shiny", "takes_disc=hesitates roller_look=glazed", {"rollers"}),
    ("a click each turn", "takes_disc=motor_only load_sound=grinds gears_look=broken", {"load"}),
    ("hums and stays", "takes_disc=ignores load_sound=strains load_motor_test=weak", {"load"}),
    ("refuses after the mains went", "takes_disc=ignores mains_lost=yes wakes=yes ejects=no", {"mechanism"}),
    ("gears not at rest", "takes_disc=motor_only gears_look=out_of_step", {"mechanism"}),
    ("rattles, scratched disc", "rattle=rattles disc_marks=straight takes_disc=motor_only", {"object"}),
    ("object seen", "object_search=found takes_disc=hesitates", {"object"}),
    ("ring on the disc, slips by hand", "disc_marks=ring clamp_look=slips spins=cycles", {"clamp"}),
    ("starts well, then stutters", "spins=holds later_data=stutters game_bd=reads", {"sled"}),
    ("stutters, sled stiff", "later_data=stutters sled_slide=stiff", {"sled"}),
    ("stutters, sled skips", "later_data=stutters sled_slide=slack", {"sled"}),
    ("one light dead, the other flawless", f"{RETRIES} game_bd=fails film_bd=fails film_dvd=reads", {"pickup"}),
    ("every light slow, lens hazy", f"{RETRIES} game_bd=slow film_dvd=slow lens_look=hazy", {"lens"}),
    ("turned trimmer, hands inside", f"{RETRIES} opened_before=opened trimmer_mark=turned trimmer_reading=out_of_band", {"trimmer", "lens", "pickup"}),
    ("flex bar open", f"{RETRIES} flex_pickup_look=loose", {"flex_pickup"}),
    ("a track open", f"{RETRIES} flex_pickup_tracks=open", {"flex_pickup"}),
    ("lens still, sled hammers", "spins=never lens_seek=still sled_sound=hammers", {"driver", "flex_pickup", "pickup"}),
    ("chip too hot", "spins=twitches sled_sound=hammers driver_heat=hot", {"driver"}),
    ("works cold, fails warm, pressed it reads", "spins=cycles warm_up=better_cold press_board=reads", {"driver"}),
    ("spindle stiff", "spins=twitches spindle_turn=bad lens_seek=searches", {"spindle"}),
    ("spindle caught by hand", "spins=never spin_helped=catches spindle_turn=bad", {"spindle"}),
    ("supply sags", "power=drops supply_reading=sags", {"supply"}),
    ("supply missing at the drive only", "takes_disc=ignores board_supply=missing", {"flex_board", "fuse"}),
    ("foreign board, own discs barred", "spins=holds game_bd=fails film_bd=reads film_dvd=reads board_match=foreign", {"board"}),
]


@pytest.mark.parametrize(("words", "parts"), [c[1:] for c in SUSPECTS], ids=[c[0] for c in SUSPECTS])
def test_first_suspect(words, parts):
    assert Bench(words).found.parts[0].id in parts


SPOKEN_AGAINST = [
    ("another wavelength reads", f"{RETRIES} game_bd=fails", "film_dvd=reads", {"lens", "trimmer", "spindle", "driver", "supply"}),
    ("it loads", "spins=never", "takes_disc=takes", {"rollers", "load", "mechanism", "switch_insert", "fuse"}),
    ("it wakes", "takes_disc=ignores", "wakes=yes", {"fuse", "switch_insert", "flex_board"}),
    ("it holds its spin", "screen_message=unreadable", "spins=holds", {"spindle", "driver", "fuse"}),
    ("lens clear", RETRIES, "lens_look=clear", {"lens"}),
    ("flex well seated", RETRIES, "flex_pickup_look=seated", {"flex_pickup"}),
    ("own board", RETRIES, "board_match=own", {"board"}),
    ("a fault that never lets up", RETRIES, "repeats=always", {"driver", "flex_pickup"}),
    ("pressing changes nothing", RETRIES, "press_board=same", {"driver", "flex_pickup"}),
    ("sealed", RETRIES, "opened_before=sealed", {"trimmer", "board", "flex_pickup"}),
]


@pytest.mark.parametrize(("before", "then", "parts"), [c[1:] for c in SPOKEN_AGAINST], ids=[c[0] for c in SPOKEN_AGAINST])
def test_what_a_finding_speaks_against(before, then, parts):
    was, now = Bench(before), Bench(f"{before} {then}")
    assert {p for p in parts if now.p(f"part:{p}") >= was.p(f"part:{p}")} == set()


NEXT = [
    ("nothing known", "", Depth.CLOSED, {"takes_disc", "spins"}),
    ("dead drive", DEAD, Depth.CLOSED, {"fuse_test", "flex_board_look"}),
    ("dead drive, fuse open", f"{DEAD} fuse_test=open", Depth.COVER_OFF, {"replace_fuse"}),
    ("dead drive, plug hangs", f"{DEAD} flex_board_look=loose", Depth.COVER_OFF, {"reseat_flex_board"}),
    ("flex bar open", f"{RETRIES} flex_pickup_look=loose", Depth.DRIVE_OPEN, {"reseat_flex_pickup"}),
    ("one diode", f"{RETRIES} game_bd=fails film_bd=fails film_dvd=reads lens_look=clear", Depth.DRIVE_OPEN, {"replace_pickup", "replace_deck"}),
    ("hazy lens", f"{RETRIES} film_dvd=slow lens_look=hazy", Depth.DRIVE_OPEN, {"clean_lens"}),
    ("gears out of step", "takes_disc=motor_only gears_look=out_of_step", Depth.DRIVE_OPEN, {"reset_mechanism"}),
    ("shiny rollers", "takes_disc=hesitates roller_look=glazed", Depth.DRIVE_OPEN, {"clean_rollers", "replace_rollers"}),
    ("coin", "takes_disc=motor_only object_search=found", Depth.DRIVE_OPEN, {"remove_object"}),
    ("switch fails", "takes_disc=ignores ejects=yes switch_insert_test=fails", Depth.DRIVE_OPEN, {"clean_switch_insert", "replace_switch_insert"}),
    ("stiff sled", "spins=holds later_data=stutters sled_slide=stiff", Depth.DRIVE_OPEN, {"clean_rails"}),
    ("cracked joint", "spins=cycles warm_up=better_cold press_board=reads repeats=comes_and_goes", Depth.DRIVE_OPEN, {"reflow_driver", "reseat_flex_pickup"}),
    ("worse after reflow", "spins=twitches driver_heat=hot press_board=reads reflow_driver!worse", Depth.DRIVE_OPEN, {"replace_driver"}),
]


@pytest.mark.parametrize(("words", "depth", "ids"), [c[1:] for c in NEXT], ids=[c[0] for c in NEXT])
def test_next_move_or_the_repair_that_a_cheap_last_look_precedes(words, depth, ids):
    advice = Bench(words, depth=depth).found.advice
    first = advice.moves[0]
    assert {first.id, advice.best_repair} & ids
    assert first.id in ids or (first.kind is MoveKind.ASK and first.step_eur <= 9 and first.saves_eur > 0)


UNPAIRED = [
    ("red diode on a red-light console", "spins=cycles nudges_out=yes game_dvd=fails music_cd=reads", {"pickup"}),
    ("every disc fails", "spins=cycles nudges_out=yes game_dvd=fails music_cd=fails", {"lens", "pickup", "flex_pickup"}),
    ("dead, and no fuse to blame", DEAD, {"flex_board"}),
]


@pytest.mark.parametrize(("words", "parts"), [c[1:] for c in UNPAIRED], ids=[c[0] for c in UNPAIRED])
def test_first_suspect_on_the_unpaired_drive(words, parts):
    found = Bench(words, FREE).found
    assert found.parts[0].id in parts
    assert not {"wrong_board", "fuse_open"} & {s.id for s in found.suspects}


@pytest.mark.parametrize("sheet", [PAIRED, FREE], ids=["paired", "unpaired"])
def test_whole_drive_is_never_the_first_move_on_a_bare_retry(sheet):
    assert Bench(RETRIES, sheet).found.advice.moves[0].id != "replace_drive"
