"""Data files that ship inside the package: the only files that the core reads."""

from __future__ import annotations

import tomllib
from collections.abc import Mapping
from functools import cache
from hashlib import sha256
from importlib.resources import files
from typing import Any

from spindle.errors import ModelError


@cache
def read_toml(package: str, name: str) -> Mapping[str, Any]:
    """Return a TOML file that ships with a package of ours.

    Raises
    ------
    ModelError
        If it is no TOML.
    """
    try:
        return tomllib.loads((files(package) / f"{name}.toml").read_text(encoding="utf-8"))
    except tomllib.TOMLDecodeError as error:
        raise ModelError(f"{name}.toml: {error}") from error


def fingerprint(*files_: tuple[str, str], rules: int = 0) -> str:
    """Return a short name of what these files say (package and name of each), by which rules: another one as soon as a word of it is another."""
    return sha256(repr((rules, [read_toml(package, name) for package, name in files_])).encode()).hexdigest()[:16]
