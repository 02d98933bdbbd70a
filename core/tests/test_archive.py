"""An archive comes out as it went in, and whatever is wrong with one is said before a row is handed out."""

import hashlib
import io
import json
import zipfile

import pytest
from hypothesis import given
from hypothesis import strategies as st
from spindle.errors import CaseError
from spindle.formats.archive import MANIFEST, ArchiveReader, ArchiveWriter, Member

PHOTO = f"photos/{'a' * 64}.jpg"
TEXT = st.text(st.characters(exclude_categories=["Cs"], exclude_characters="\0"))
VALUES = st.recursive(
    st.none() | st.booleans() | st.integers(-(10**9), 10**9) | TEXT, lambda inner: st.lists(inner) | st.dictionaries(TEXT, inner), max_leaves=6
)


def packed(rows=({"n": 1}, {"n": 2}), content=b"picture", made_at="2026-01-01T00:00:00+00:00"):
    out = io.BytesIO()
    writer = ArchiveWriter(out, "shop", made_at)
    writer.rows("parts", rows)
    writer.file(PHOTO, content)
    writer.close()
    return out.getvalue()


def changed(edit):
    """An archive with its members edited: name -> bytes, before they are packed again."""
    with zipfile.ZipFile(io.BytesIO(packed())) as old:
        members = {n: old.read(n) for n in old.namelist()}
    edit(members)
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as new:
        for name, content in members.items():
            new.writestr(name, content)
    return out.getvalue()


def of_manifest(**told):
    def edit(members):
        members[MANIFEST] = json.dumps({**json.loads(members[MANIFEST]), **told}).encode()

    return edit


def of_rows_told(members):
    told = json.loads(members[MANIFEST])
    told["members"]["parts.jsonl"]["rows"] = 1
    members[MANIFEST] = json.dumps(told).encode()


def of_rows(content):
    """Other rows under a manifest that vouches for them."""
    out = io.BytesIO()
    writer = ArchiveWriter(out, "shop", "")
    writer.rows("parts", [{}])
    writer._members["parts.jsonl"] = Member(hashlib.sha256(content).hexdigest(), len(content), content.count(b"\n"))
    writer.close()
    with zipfile.ZipFile(out) as made, zipfile.ZipFile(again := io.BytesIO(), "w") as new:
        new.writestr(MANIFEST, made.read(MANIFEST))
        new.writestr("parts.jsonl", content)
    return again.getvalue()


@given(st.lists(st.dictionaries(TEXT, VALUES), max_size=5), st.binary(max_size=50))
def test_what_goes_in_comes_out(rows, content):
    found = ArchiveReader(io.BytesIO(packed(rows, content)))
    assert [row for _, row in found.rows("parts")] == rows
    assert found.file(PHOTO) == content
    assert list(found.rows("donors")) == []


def test_the_same_rows_give_the_same_bytes():
    assert packed() == packed() != packed([{"n": 1}])


@pytest.mark.parametrize(
    ("raw", "where", "what"),
    [
        (b"PK no zip", "archive", "is no ZIP file"),
        (packed()[:-30], "archive", "is no ZIP file"),
        (changed(lambda m: m.pop(MANIFEST)), MANIFEST, "is missing"),
        (changed(lambda m: m.pop("parts.jsonl")), "parts.jsonl", "not in the archive"),
        (changed(lambda m: m.update({"more.jsonl": b""})), "more.jsonl", "not in its manifest"),
        (changed(lambda m: m.update({"../up.jsonl": b""})), "../up.jsonl", "not in its manifest"),
        (changed(lambda m: m.update({"parts.jsonl": b'{"n":1}\n{"n":3}\n'})), "parts.jsonl", "is damaged"),
        (changed(lambda m: m.update({"parts.jsonl": b"{}\n"})), "parts.jsonl", "has 3 bytes"),
        (changed(of_rows_told), "parts.jsonl", "has 2 rows, and its manifest says 1"),
        (changed(of_manifest(version=2)), "manifest.json/version", "update it"),
        (changed(of_manifest(format="other")), "manifest.json/format", "expected 'tidy-spindle-shop'"),
        (changed(of_manifest(extra=1)), "manifest.json/extra", "unknown key"),
        (changed(of_manifest(members={"/etc/passwd": {}})), "manifest.json/members//etc/passwd", "no name of a table"),
        (changed(of_manifest(members={"../a.jsonl": {}})), "manifest.json/members/../a.jsonl", "no name of a table"),
        (changed(of_manifest(members={PHOTO: {"sha256": "", "size": 65_000_000}})), f"manifest.json/members/{PHOTO}", "larger than 64 MB"),
    ],
)  # fmt: skip
def test_what_is_wrong_with_an_archive_is_said_before_a_row_is_read(raw, where, what):
    with pytest.raises(CaseError, match=what) as caught:
        ArchiveReader(io.BytesIO(raw))
    assert caught.value.place == where


@pytest.mark.parametrize(
    ("content", "line", "what"),
    [
        (b'{"n":1}\n{"n":', 2, "no JSON"),
        (b"[1]\n", 1, "expected an object, got a list"),
        (b'{"n":NaN}\n', 1, "no number of JSON"),
        (b'{"n":"\\u0000"}\n', 1, "a NUL"),
        (b'{"n":[{"m":"\\ud800"}]}\n', 1, "half a character"),
        (b'{"\\u0000":1}\n', 1, "a NUL"),
        (b"\xff\xfe\n", 1, "no JSON"),
        (b"[" * 100_000, 1, "no JSON"),
    ],
)
def test_a_row_that_cannot_be_read_is_named(content, line, what):
    with pytest.raises(CaseError, match=what) as caught:
        list(ArchiveReader(io.BytesIO(of_rows(content))).rows("parts"))
    assert caught.value.place == f"parts.jsonl, line {line}"


def test_a_backslash_that_only_looks_like_a_nul_is_read():
    rows = [{"said": "\\u0000"}]
    assert [row for _, row in ArchiveReader(io.BytesIO(packed(rows))).rows("parts")] == rows


def test_where_somebody_waits_it_may_not_unpack_to_more_than_that():
    raw = packed([{"n": "0" * 3_000_000}])
    with pytest.raises(CaseError, match="holds 3 MB; at most 1"):
        ArchiveReader(io.BytesIO(raw), most_bytes=1_000_000)
    with pytest.raises(CaseError, match="holds 2 rows; at most 1"):
        ArchiveReader(io.BytesIO(packed()), most_rows=1)
    assert ArchiveReader(io.BytesIO(raw), most_bytes=4_000_000, most_rows=1)


def test_a_member_named_twice_is_refused():
    out = io.BytesIO(packed())
    with zipfile.ZipFile(out, "a") as more, pytest.warns(UserWarning, match="Duplicate"):
        more.writestr("parts.jsonl", b"")
    with pytest.raises(CaseError, match="twice"):
        ArchiveReader(out)
