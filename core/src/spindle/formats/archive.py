"""A shop's archive: a ZIP of rows, one JSON object a line, and files, with a manifest that names each member and its checksum.

Written and read as a stream: neither side holds more than a line, or a file, at a time. See ``docs/formats/shop.md``.
"""

from __future__ import annotations

import hashlib
import json
import re
import zipfile
from collections.abc import Iterable, Iterator, Mapping
from contextlib import contextmanager
from dataclasses import dataclass, field
from typing import IO, Any, Final

from spindle.errors import CaseError
from spindle.formats.place import Place, kind_of

FORMAT: Final = "tidy-spindle-shop"
VERSION: Final = 1
MANIFEST: Final = "manifest.json"
MAX_MEMBERS: Final = 400_000
"""Photos and recordings of a shop of ten thousand jobs, several times over."""
MAX_LINE: Final = 8_000_000
"""Bytes of one row: a tape of thousands of lines."""
MAX_FILE: Final = 64_000_000
"""Bytes of one photo or recording: more than any that is taken in."""
MAX_MANIFEST: Final = 100_000_000
_NAME: Final = re.compile(r"[a-z_]{1,40}\.jsonl|[a-z_]{1,40}/[0-9a-f]{64}\.[a-z0-9]{2,5}")
_BLOCK: Final = 1 << 16
_EPOCH: Final = (1980, 1, 1, 0, 0, 0)
_ROWS: Final = ".jsonl"


@dataclass(frozen=True)
class Member:
    """One member: its SHA-256, its bytes, and how many rows it has (None for a file)."""

    sha256: str
    size: int
    rows: int | None = None


@dataclass(frozen=True)
class Manifest:
    """What an archive says of itself. ``of``: "shop", or the tag of the one job that is in it."""

    of: str
    made_at: str
    members: Mapping[str, Member] = field(default_factory=dict)


class ArchiveWriter:
    """Writes an archive member by member; the manifest comes last, for it knows what was written.

    The same rows and files give the same bytes, but for ``made_at``.
    """

    def __init__(self, out: IO[bytes], of: str, made_at: str) -> None:
        self._zip = zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED, allowZip64=True)
        self._of, self._made_at = of, made_at
        self._members: dict[str, Member] = {}

    def rows(self, name: str, rows: Iterable[Mapping[str, Any]]) -> int:
        """Write a table, one row a line; return how many there were."""
        count, size, sha = 0, 0, hashlib.sha256()
        with self._zip.open(_info(name + _ROWS), "w", force_zip64=True) as out:
            for row in rows:
                line = json.dumps(row, ensure_ascii=False, separators=(",", ":")).encode() + b"\n"
                out.write(line)
                sha.update(line)
                count, size = count + 1, size + len(line)
        self._members[name + _ROWS] = Member(sha.hexdigest(), size, count)
        return count

    def file(self, name: str, content: bytes) -> None:
        """Write a photo or a recording: they are packed already."""
        info = _info(name)
        info.compress_type = zipfile.ZIP_STORED
        self._zip.writestr(info, content)
        self._members[name] = Member(hashlib.sha256(content).hexdigest(), len(content))

    def close(self) -> Manifest:
        """Write the manifest, and end the archive."""
        members = {name: {"sha256": m.sha256, "size": m.size} | ({} if m.rows is None else {"rows": m.rows}) for name, m in self._members.items()}
        told = {"format": FORMAT, "version": VERSION, "of": self._of, "made_at": self._made_at, "members": members}
        self._zip.writestr(_info(MANIFEST), json.dumps(told, ensure_ascii=False, indent=1))
        self._zip.close()
        return Manifest(self._of, self._made_at, dict(self._members))


class ArchiveReader:
    """Reads an archive. Everything is checked against the manifest before a row of it is handed out.

    ``most_bytes`` unpacked and ``most_rows`` where somebody waits for it; without them as much as there is.

    Raises
    ------
    CaseError
        If it is no archive, of a later version, damaged, or holds what its manifest does not name; says which member.
    """

    def __init__(self, file: IO[bytes], *, most_bytes: int | None = None, most_rows: int | None = None) -> None:
        try:
            self._zip = zipfile.ZipFile(file)
        except (zipfile.BadZipFile, OSError, ValueError) as error:
            raise CaseError("archive", "is no ZIP file, or a part of it is missing") from error
        infos = self._zip.infolist()
        if len(infos) > MAX_MEMBERS:
            raise CaseError("archive", f"has {len(infos)} members; at most {MAX_MEMBERS}")
        self._infos = {info.filename: info for info in infos}
        if len(self._infos) != len(infos):
            raise CaseError("archive", "names a member twice")
        self.manifest = self._read_manifest()
        size = sum(m.size for m in self.manifest.members.values())
        if most_bytes is not None and size > most_bytes:
            raise CaseError(
                "archive", f"holds {size // 1_000_000} MB; at most {most_bytes // 1_000_000} this way. A whole shop is taken in by ./spindle import"
            )
        rows = sum(m.rows or 0 for m in self.manifest.members.values())
        if most_rows is not None and rows > most_rows:
            raise CaseError("archive", f"holds {rows} rows; at most {most_rows} this way: use ./spindle import")
        for name, member in self.manifest.members.items():
            self._check(name, member)

    def rows(self, name: str) -> Iterator[tuple[str, dict[str, Any]]]:
        """Yield the rows of a table, each with its place ("parts.jsonl, line 17"); none if the archive has no such table."""
        if name + _ROWS not in self.manifest.members:
            return
        with self._zip.open(self._infos[name + _ROWS]) as lines:
            for n, line in enumerate(_lines(lines, name + _ROWS), 1):
                yield f"{name}{_ROWS}, line {n}", _read_line(line, f"{name}{_ROWS}, line {n}")

    def has(self, name: str) -> bool:
        """Tell whether a file is in it."""
        return name in self.manifest.members

    def file(self, name: str) -> bytes:
        """Return a file's content."""
        return self._zip.read(self._infos[name])

    def _read_manifest(self) -> Manifest:
        info = self._infos.get(MANIFEST)
        if info is None:
            raise CaseError(MANIFEST, "is missing: this is no archive of a shop, or not a whole one")
        if info.file_size > MAX_MANIFEST:
            raise CaseError(MANIFEST, "is larger than any that is written")
        with _unpacked(MANIFEST):
            raw = self._zip.read(info)
        told = Place(_read_line(raw, MANIFEST), MANIFEST, ("format", "version", "of", "made_at", "members"))
        if told.text("format") != FORMAT:
            raise CaseError(told.at("format"), f"expected {FORMAT!r}, got {told.text('format')[:40]!r}")
        if told.raw("version") != VERSION:
            raise CaseError(told.at("version"), f"is {told.raw('version')!r}; this program reads version {VERSION}: update it, or export again")
        members = {name: _member(name, value, f"{told.at('members')}/{name}") for name, value in told.pairs("members").items()}
        extra = sorted(set(self._infos) - set(members) - {MANIFEST})
        if extra:
            raise CaseError(extra[0][:80], "is in the archive and not in its manifest")
        return Manifest(told.text("of"), told.text("made_at"), members)

    def _check(self, name: str, member: Member) -> None:
        info = self._infos.get(name)
        if info is None:
            raise CaseError(name, "is named by the manifest and not in the archive")
        if info.flag_bits & 1:
            raise CaseError(name, "is locked with a password")
        if info.file_size != member.size:
            raise CaseError(name, f"has {info.file_size} bytes, and its manifest says {member.size}")
        sha, read, lines = hashlib.sha256(), 0, 0
        with _unpacked(name), self._zip.open(info) as content:
            while block := content.read(_BLOCK):
                sha.update(block)
                read, lines = read + len(block), lines + block.count(b"\n")
        if read != member.size or sha.hexdigest() != member.sha256:
            raise CaseError(name, "is damaged: its checksum is not the manifest’s. Nothing was taken in")
        if name.endswith(_ROWS) and lines != member.rows:
            raise CaseError(name, f"has {lines} rows, and its manifest says {member.rows}")


def _member(name: str, value: object, place: str) -> Member:
    if not _NAME.fullmatch(name):
        raise CaseError(place[:120], "is no name of a table, nor of a file by its hash")
    told = Place(value, place, ("sha256", "size", "rows"))
    size, rows = told.number("size", 0.0, high=1e13), told.number("rows", 0.0, high=1e10) if "rows" in told else None
    if not name.endswith(_ROWS) and size > MAX_FILE:
        raise CaseError(place, f"is larger than {MAX_FILE // 1_000_000} MB")
    return Member(told.text("sha256"), int(size), None if rows is None else int(rows))


def _lines(content: IO[bytes], name: str) -> Iterator[bytes]:
    n = 0
    while line := content.readline(MAX_LINE + 1):
        n += 1
        if len(line) > MAX_LINE:
            raise CaseError(f"{name}, line {n}", f"is longer than {MAX_LINE // 1_000_000} MB")
        yield line


def _read_line(line: bytes, place: str) -> dict[str, Any]:
    try:
        text = line.decode()
        value = json.loads(text, parse_constant=_no_number)
        if "\\u" in text:
            _check_text(value)
    except (ValueError, RecursionError) as error:
        raise CaseError(place, f"is no JSON ({error})") from error
    if not isinstance(value, dict):
        raise CaseError(place, f"expected an object, got {kind_of(value)}")
    return value


def _check_text(value: object) -> None:
    """Refuse a NUL and half of a surrogate pair, which no database takes."""
    if isinstance(value, str) and ("\0" in value or any("\ud800" <= c <= "\udfff" for c in value)):
        raise ValueError("a NUL, or half a character")
    for inner in [*value, *value.values()] if isinstance(value, dict) else value if isinstance(value, list) else ():
        _check_text(inner)


def _no_number(word: str) -> float:
    raise ValueError(f"{word} is no number of JSON")


@contextmanager
def _unpacked(name: str) -> Iterator[None]:
    try:
        yield
    except (zipfile.BadZipFile, zipfile.zlib.error, EOFError, NotImplementedError, RuntimeError) as error:  # type: ignore[attr-defined]
        raise CaseError(name, f"cannot be unpacked ({error}). Nothing was taken in") from error


def _info(name: str) -> zipfile.ZipInfo:
    info = zipfile.ZipInfo(name, _EPOCH)
    info.compress_type = zipfile.ZIP_DEFLATED
    return info
