"""The file: a tar whose first member says what is in it, what each member's checksum is, and what each table holds."""

from __future__ import annotations

import hashlib
import io
import json
import os
import tarfile
from collections.abc import Iterator
from dataclasses import asdict, dataclass, field
from pathlib import Path, PurePosixPath
from typing import Any, Final

FORMAT: Final = "tidy-spindle-backup"
VERSION: Final = 1
MANIFEST: Final = "manifest.json"
DUMP: Final = "database.dump"
SECRET: Final = "secret-key"
FOLDERS: Final = ("photos", "sounds")
CHUNK: Final = 1 << 20
MOST_MANIFEST: Final = 200_000_000
"""Bytes of a manifest: a line of a hundred for each of two million files."""


class BackupError(Exception):
    """A backup cannot be made or used; the message says why, and what to do."""


@dataclass(frozen=True)
class Manifest:
    """What a backup holds.

    Attributes
    ----------
    made_at : when, as ISO 8601
    server : version of the database's server
    migrations : every migration that its database has seen, as app.name
    rows : table -> rows
    members : name in the tar -> (bytes, SHA-256)
    missing : names of files that the database speaks of and that were not there any more
    """

    made_at: str
    server: str
    migrations: tuple[str, ...]
    rows: dict[str, int]
    members: dict[str, tuple[int, str]] = field(default_factory=dict)
    missing: tuple[str, ...] = ()

    def written(self) -> bytes:
        """Return it as it stands in the file."""
        return json.dumps({"format": FORMAT, "version": VERSION, **asdict(self)}, indent=1).encode()


def read_manifest(raw: bytes) -> Manifest:
    """Return what a backup says of itself.

    Raises
    ------
    BackupError
        If it is none of ours, or of a newer format.
    """
    try:
        body: dict[str, Any] = json.loads(raw)
    except ValueError as error:
        raise BackupError("Its manifest cannot be read: this is no backup of Tidy Spindle, or it is damaged.") from error
    if body.pop("format", None) != FORMAT:
        raise BackupError("This is no backup of Tidy Spindle.")
    if body.pop("version", 0) != VERSION:
        raise BackupError("It was made by a newer version of Tidy Spindle: restore it with that one.")
    try:
        members = {str(name): (int(size), str(digest)) for name, (size, digest) in body.pop("members").items()}
        return Manifest(**{**body, "members": members, "migrations": tuple(body["migrations"]), "missing": tuple(body["missing"])})
    except (AttributeError, KeyError, TypeError, ValueError) as error:
        raise BackupError("Its manifest lacks something: it is damaged.") from error


def digest_of(file: Path) -> tuple[int, str]:
    """Return a file's size and checksum."""
    with file.open("rb") as content:
        digest = hashlib.file_digest(content, "sha256").hexdigest()
    return file.stat().st_size, digest


def write_archive(target: Path, manifest: Manifest, sources: dict[str, Path]) -> None:
    """Write the whole file, or nothing: it gets its name when it is complete and on the disk. Only its owner may read it."""
    part = target.with_name(f".{target.name}.{os.getpid()}")
    try:
        with os.fdopen(os.open(part, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "wb") as out:
            with tarfile.open(fileobj=out, mode="w", format=tarfile.PAX_FORMAT) as tar:
                _add(tar, MANIFEST, io.BytesIO(raw := manifest.written()), len(raw))
                for name, source in sources.items():
                    with source.open("rb") as content:
                        _add(tar, name, content, manifest.members[name][0])
            out.flush()
            os.fsync(out.fileno())
        part.replace(target)
    except OSError as error:
        raise BackupError(f"It could not be written to {target}: {error.strerror}.") from error
    finally:
        part.unlink(missing_ok=True)


def _add(tar: tarfile.TarFile, name: str, content: Any, size: int) -> None:
    told = tarfile.TarInfo(name)
    told.size, told.mode = size, 0o600
    tar.addfile(told, content)


def unpack(source: Path, into: Path) -> Manifest:
    """Unpack a backup into an empty folder, every member looked at: what does not stand in the manifest, or is not what stands there, ends it.

    Raises
    ------
    BackupError
        If it is damaged, cut off, or holds anything that a backup does not hold.
    """
    try:
        with tarfile.open(source, mode="r:") as tar:
            members = iter(tar)
            manifest = _manifest(tar, next(members, None))
            left = dict(manifest.members)
            for told in members:
                size, digest = left.pop(told.name, (-1, ""))
                if not told.isreg() or told.size != size or not _is_ours(told.name):
                    raise BackupError(f"“{told.name}” is not what its manifest says: it is damaged.")
                _unpack(tar, told, into / told.name, digest)
    except (tarfile.TarError, EOFError, OSError) as error:
        raise BackupError(f"It cannot be read to its end, so nothing was restored: {error}.") from error
    if left:
        raise BackupError(f"{len(left)} of its {len(manifest.members)} members are missing: it was cut off.")
    return manifest


def _manifest(tar: tarfile.TarFile, told: tarfile.TarInfo | None) -> Manifest:
    content = tar.extractfile(told) if told is not None and told.name == MANIFEST and told.size <= MOST_MANIFEST else None
    if content is None:
        raise BackupError("This is no backup of Tidy Spindle.")
    return read_manifest(content.read())


def _is_ours(name: str) -> bool:
    path = PurePosixPath(name)
    return name in {DUMP, SECRET} or (path.parts[0] in FOLDERS and len(path.parts) == 3 and ".." not in path.parts)


def _unpack(tar: tarfile.TarFile, told: tarfile.TarInfo, file: Path, digest: str) -> None:
    content = tar.extractfile(told)
    if content is None:
        raise BackupError(f"“{told.name}” cannot be read: it is damaged.")
    file.parent.mkdir(parents=True, exist_ok=True)
    seen = hashlib.sha256()
    with file.open("wb") as out:
        for chunk in _chunks(content):
            seen.update(chunk)
            out.write(chunk)
        out.flush()
        os.fsync(out.fileno())
    if seen.hexdigest() != digest:
        raise BackupError(f"“{told.name}” has another checksum than its manifest says: it is damaged.")


def _chunks(content: Any) -> Iterator[bytes]:
    while chunk := content.read(CHUNK):
        yield chunk
