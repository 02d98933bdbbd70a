"""The targets of the calculators, on few units and with room for luck; docs/measuring.md has the whole figures."""

import pytest
from spindle.study.measuring.alignments import study_alignment
from spindle.study.measuring.flexes import study_flex
from spindle.study.measuring.meters import study_readings
from spindle.study.measuring.orders import study_ordering
from spindle.study.measuring.parts import study_belt, study_capacitors, study_fuse, study_shim
from spindle.study.measuring.screws import study_screws
from spindle.study.measuring.switches import study_switch
from spindle.study.measuring.trimmers import study_creep, study_trimmer

AT_LEAST, AT_MOST = "at least", "at most"
TARGETS = [
    (study_readings, 300, ["soft_over_crisp"], AT_MOST, 0.65),
    (study_readings, 300, ["covered_percent_by_repeats", 3], AT_LEAST, 93),
    (study_readings, 300, ["slips_found_percent"], AT_LEAST, 90),
    (study_trimmer, 120, ["usual", "done_percent"], AT_LEAST, 97),
    (study_trimmer, 120, ["usual", "in_band_percent"], AT_LEAST, 99.5),
    (study_trimmer, 120, ["usual", "turns_mean"], AT_MOST, 5),
    (study_trimmer, 120, ["usual", "over_limit_under_power_percent"], AT_MOST, 0.2),
    (study_trimmer, 120, ["broken", "done_percent"], AT_MOST, 4),
    (study_creep, 60, ["healthy_read_percent"], AT_LEAST, 93),
    (study_creep, 60, ["reserve_auc"], AT_LEAST, 0.9),
    (study_alignment, 60, ["solving", "done_of_alignable_percent"], AT_LEAST, 95),
    (study_switch, 300, ["matched", "missed_percent"], AT_MOST, 6),
    (study_switch, 300, ["other", "false_percent"], AT_MOST, 12),
    (study_flex, 120, ["share_of_sweep"], AT_MOST, 0.75),
    (study_flex, 120, ["missed_percent"], AT_MOST, 6),
    (study_fuse, 500, ["unsafe"], AT_MOST, 0),
    (study_fuse, 500, ["unexplained"], AT_MOST, 0),
    (study_fuse, 500, ["shorts_missed_percent"], AT_MOST, 0.5),
    (study_belt, 1500, ["path_error"], AT_MOST, 1e-6),
    (study_belt, 1500, ["brier", "with_sheet_and_gauge"], AT_MOST, 0.09),
    (study_shim, 200, ["in_tolerance_of_possible_percent"], AT_LEAST, 99),
    (study_shim, 200, ["worse"], AT_MOST, 0),
    (study_capacitors, 60, ["worse_than_brute_force"], AT_MOST, 0),
    (study_capacitors, 60, ["fewer_volts"], AT_MOST, 0),
    (study_screws, 300, ["stopped_or_remarked_percent"], AT_LEAST, 99),
    (study_screws, 300, ["false_stops"], AT_MOST, 0),
    (study_screws, 300, ["fillings_off"], AT_MOST, 1e-12),
    (study_screws, 300, ["likeliest_is_true_percent"], AT_LEAST, 65),
    (study_screws, 300, ["opened_of_any_order"], AT_MOST, 0.6),
    (study_ordering, 60, ["worst_standard_errors"], AT_MOST, 4),
    (study_ordering, 60, ["dearer_percent", "one_at_a_time"], AT_LEAST, 1),
    (study_ordering, 60, ["dearer_percent", "all_at_once"], AT_LEAST, 1),
]


@pytest.fixture(scope="module")
def studied():
    """Each study once."""
    return {}


@pytest.mark.parametrize(("study", "n", "path", "bound", "target"), TARGETS, ids=lambda x: getattr(x, "__name__", None))
def test_a_calculator_keeps_its_target(studied, study, n, path, bound, target):
    found = studied.setdefault(study, study(n, 7)) if study not in studied else studied[study]
    for key in path:
        found = found[key]
    assert found >= target if bound == AT_LEAST else found <= target


def test_the_chances_of_the_stated_belts_are_theirs(studied):
    for one in (studied.get(study_belt) or study_belt(1500, 7))["chances"].values():
        assert [one["loaded"], one["empty"]] == pytest.approx(one["stated"], abs=0.045)
