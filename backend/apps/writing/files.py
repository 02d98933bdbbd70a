"""Files beside the database, each under the hash of its content: photos and recordings."""

from __future__ import annotations

import os
from dataclasses import dataclass
from pathlib import Path

from spindle.errors import NotFoundError


@dataclass(frozen=True)
class Files:
    """A folder of files of one kind. ``kind`` is what it is called if it is gone."""

    root: Path
    suffix: str
    kind: str

    def path(self, name: str) -> Path:
        """Return where the file of that hash lies."""
        return self.root / name[:2] / f"{name}{self.suffix}"

    def put(self, name: str, content: bytes) -> None:
        """Write a file whole or not at all: it gets its name when it is complete and on the disk."""
        file = self.path(name)
        if file.exists():
            return
        file.parent.mkdir(parents=True, exist_ok=True)
        new = file.with_suffix(f".{os.getpid()}")
        with new.open("wb") as out:
            out.write(content)
            out.flush()
            os.fsync(out.fileno())
        new.replace(file)

    def read(self, name: str) -> bytes:
        """Return a file's content.

        Raises
        ------
        NotFoundError
            If it is not where it was put.
        """
        try:
            return self.path(name).read_bytes()
        except FileNotFoundError as error:
            raise NotFoundError(f"This {self.kind}’s file is not there any more: it has to come back from a backup.") from error

    def drop(self, name: str) -> None:
        """Throw a file away."""
        self.path(name).unlink(missing_ok=True)
