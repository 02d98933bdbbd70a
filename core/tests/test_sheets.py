"""The sheet as a file: a round trip is the identity, and a bad file is refused with its place."""

import copy
import json
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st
from jsonschema import Draft202012Validator
from referencing import Registry, Resource
from spindle.drives.tables import TABLES
from spindle.errors import CaseError, SheetError
from spindle.formats.sheet_file import parse_json, read_sheet, write_sheet
from spindle.formats.table_rows import FORMULA_STARTS, read_csv, read_rows, write_csv

PLAIN = {
    "format": "tidy-spindle-sheet",
    "version": 1,
    "maker": "Maker",
    "console": "Console",
    "revision": "A",
    "drive": {"variant": "AA-1", "family": "slot", "classes": ["film_dvd"], "fuse_rating": "1.5 A fast"},
    "looks": {"loader": "slot"},
    "tables": {"trimmers": [{"name": "T1", "nm": "650", "low_ohm": 700, "high_ohm": 840, "more_light": "not known", "origin": "shop", "confidence": "fair"}]},
    "sources": {"pairing": {"origin": "seller", "confidence": "doubtful"}},
}
PLAIN_STEP = {"step": "Cover", "kind": "lift off", "minutes": 1, "origin": "shop", "confidence": "fair"}


def changed(path, value):
    found = copy.deepcopy(PLAIN)
    *way, last = path
    at = found
    for name in way:
        at = at[name]
    at[last] = value
    return found


BAD = [
    (("format",), "another", "/format"),
    (("version",), 2, "/version"),
    (("version",), True, "/version"),
    (("maker",), "=cmd", "/maker"),
    (("tables", "opening"), [PLAIN_STEP | {"picture": "the flex.jpg"}], "/tables/opening/0/picture"),
    (("tables", "opening"), [PLAIN_STEP | {"picture": "a" * 64 + "\n"}], "/tables/opening/0/picture"),
    (("nonsense",), 1, "/nonsense"),
    (("drive", "variant"), " ", "/drive/variant"),
    (("drive", "classes"), ["film_bluish"], "/drive/classes"),
    (("drive", "fuse_rating"), 3, "/drive/fuse_rating"),
    (("tables", "trimmers", 0, "name"), "T\ud800", "/tables/trimmers/0/name"),
    (("sources", "pairing", "said"), "\udfff", "/sources/pairing/said"),
    (("drive", "label_faces"), {"flat": "up\0"}, "/drive/label_faces/flat"),
    (("drive", "label_faces"), {"fl\0at": "up"}, "/drive/label_faces"),
    (("looks", "loader"), "drawer", "/looks/loader"),
    (("tables", "trimmer"), [], "/tables/trimmer"),
    (("tables", "trimmers", 0, "low_ohm"), "700", "/tables/trimmers/0/low_ohm"),
    (("tables", "trimmers", 0, "low_ohm"), 900, "/tables/trimmers/0/high_ohm"),
    (("tables", "trimmers", 0, "high_ohm"), None, "/tables/trimmers/0/high_ohm"),
    (("tables", "trimmers", 0, "low_volt"), 1.5, "/tables/trimmers/0/high_volt"),
    (("tables", "trimmers", 0), {"name": "T", "nm": "650", "more_light": "not known", "origin": "shop", "confidence": "fair"}, "/tables/trimmers/0/low_ohm"),
    (("tables", "trimmers", 0, "low_ohm"), -1, "/tables/trimmers/0/low_ohm"),
    (("tables", "trimmers", 0, "name"), "=1+1", "/tables/trimmers/0/name"),
    (("tables", "trimmers", 0, "origin"), "rumour", "/tables/trimmers/0/origin"),
    (("tables", "trimmers"), PLAIN["tables"]["trimmers"] * 2, "/tables/trimmers/1"),
    (("tables", "fuses"), [{"name": "F1", "rating": "2 A slow", "form": "a", "place": "edge", "origin": "shop", "confidence": "sure"}], "/drive/fuse_rating"),
    (("sources", "colour"), {"origin": "shop", "confidence": "fair"}, "/sources/colour"),
]  # fmt: skip


@pytest.mark.parametrize(("path", "value", "place"), BAD)
def test_a_wrong_sheet_is_refused_at_its_place(path, value, place):
    with pytest.raises(SheetError) as caught:
        read_sheet(changed(path, value))
    assert caught.value.place == place
    assert not caught.value.message.startswith(f"{place}: {place}")


HOSTILE = [
    (b"[" * 100_000, "character 13"),
    (b'{"a": "' + b"x" * 400_000 + b'"}', "/"),
    ("{}".encode("utf-16"), "byte 0"),
    (b'{"a": 1, "a": 2}', "/a"),
    (b'{"a": NaN}', "/"),
    (b'{"a": 1', "line 1, column 8"),
]


@pytest.mark.parametrize(("raw", "place"), HOSTILE)
def test_a_hostile_file_is_refused_before_it_does_harm(raw, place):
    with pytest.raises(SheetError) as caught:
        parse_json(raw)
    assert caught.value.place == place


def test_brackets_inside_a_text_are_no_depth():
    assert parse_json(json.dumps({"a": '[[[[[[[[[[[[[[[["\\'}).encode()) == {"a": '[[[[[[[[[[[[[[[["\\'}


def cells(column):
    if column.kind == "flag":
        return st.booleans()
    if column.kind == "picture":
        return st.text("0123456789abcdef", min_size=64, max_size=64)
    if column.kind == "choice":
        return st.sampled_from(column.choices).map(str)
    if column.kind == "count":
        return st.integers(int(column.low), int(column.high))
    if column.kind == "number":
        return st.floats(column.low, column.high, allow_subnormal=False)
    text = st.text(st.characters(codec="utf-8", exclude_categories=("Cc", "Cs")), min_size=1, max_size=30).map(str.strip)
    return text.filter(lambda t: t and not t.startswith(FORMULA_STARTS))


NAMES = {"after", "takes", "at"}
"""Columns that name other rows: what they may say is told in test_opening.py."""


def row_of(table):
    return st.fixed_dictionaries(
        {c.id: st.none() if c.optional and c.id in NAMES else st.none() | cells(c) if c.optional else cells(c) for c in table.columns}
    ).map(lambda r: _in_order(table, r))


def _in_order(table, row):
    for low, high in table.ordered * 2:  # three in a row come right by the second pass
        if row[low] is not None:
            row[low], row[high] = sorted((row[low], row[high]))
    for n, (low, high) in enumerate(table.bands):
        ends = sorted(x for x in (row[low], row[high]) if x is not None)
        row[low], row[high] = ends if len(ends) == 2 else (2.0, 3.0) if n == 0 else (None, None)
    return row


tables = st.sampled_from(list(TABLES.values())).flatmap(
    lambda t: st.tuples(st.just(t), st.lists(row_of(t), max_size=4, unique_by=lambda r: tuple(r[k] for k in t.key)))
)


@given(tables)
def test_any_table_survives_json_and_csv_unchanged(told):
    table, rows = told
    read = read_rows(table, rows, "")
    again = (
        read_sheet(parse_json(json.dumps(write_sheet(read_sheet(changed(("tables",), {table.id: rows}))) | {}).encode()))
        if table.id not in ("fuses", "ways")
        else None
    )
    assert again is None or again.rows(table.id) == read
    assert read_csv(table, write_csv(table, read)) == read


CSV = [
    ("", "line 1"),
    ("name\r\nx\r\n", "line 1"),
    ("{head}\r\nT1,650,700\r\n", "line 2"),
    ("{head}\r\nT1,650,seven,840,not known,,,,,,,,,shop,fair,\r\n", "line 2, low_ohm"),
    ("{head}\r\n=1+1,650,700,840,not known,,,,,,,,,shop,fair,\r\n", "line 2, name"),
    ("{head}\r\nT1,650,700,840,not known,,,,,,,,,shop,fair,\r\n\r\nT1,650,700,840,not known,,,,,,,,,shop,fair,\r\n", "line 4"),
    ('{head}\r\n"T1,650\r\n', "line 2"),
]


@pytest.mark.parametrize(("text", "place"), CSV)
def test_a_bad_csv_names_line_and_column(text, place):
    table = TABLES["trimmers"]
    with pytest.raises(CaseError) as caught:
        read_csv(table, text.format(head=",".join(c.id for c in table.columns)))
    assert caught.value.place == place


def test_a_csv_from_before_a_column_was_there_still_reads():
    old = "name,nm,low_ohm,high_ohm,more_light,place,origin,confidence,said\r\nT1,650,700,840,not known,,shop,fair,\r\n"
    assert [r["strong_ohm"] for r in read_csv(TABLES["trimmers"], old)] == [None]


ROOT = Path(__file__).parents[2]


def validator():
    case, own = (json.loads((ROOT / "docs" / "formats" / name).read_text(encoding="utf-8")) for name in ("case.schema.json", "sheet.schema.json"))
    registry = Registry().with_resource("case.schema.json", Resource.from_contents(case))
    return Draft202012Validator(own, registry=registry)


@pytest.mark.parametrize("file", sorted((ROOT / "demo" / "sheets").glob("*.json")), ids=lambda f: f.stem)
def test_every_demo_sheet_keeps_the_schema_and_a_round_trip_loses_nothing(file):
    document = json.loads(file.read_text(encoding="utf-8"))
    assert list(validator().iter_errors(document)) == []
    written = write_sheet(read_sheet(document))
    assert list(validator().iter_errors(written)) == []
    assert write_sheet(read_sheet(written)) == written


@pytest.mark.parametrize("file", sorted((ROOT / "demo" / "consoles").glob("*.json")), ids=lambda f: f.stem)
def test_every_demo_console_keeps_its_schema(file):
    schema = Draft202012Validator(json.loads((ROOT / "docs" / "formats" / "console.schema.json").read_text(encoding="utf-8")))
    document = json.loads(file.read_text(encoding="utf-8"))
    assert list(schema.iter_errors(document)) == []
    assert list(schema.iter_errors(document | {"wings": 1})) != []


BEYOND_A_SCHEMA = {
    "/tables/trimmers/0/high_ohm",
    "/tables/trimmers/1",
    "/drive/fuse_rating",
    "/drive/variant",
    "/drive/label_faces",
    "/drive/label_faces/flat",
    "/sources/pairing/said",
}
"""What only the reader can see: order, rows named twice, one table against another, blanks, characters that no text has."""


@pytest.mark.parametrize(("path", "value", "place"), [b for b in BAD if b[2] not in BEYOND_A_SCHEMA and b[1] != "T\ud800"])
def test_the_schema_refuses_what_the_reader_refuses(path, value, place):
    assert list(validator().iter_errors(changed(path, value))) != []
