"""A copy of the database that follows it, where a shop has one: lists of what is past and the record are read there, everything else is not.

A copy is a moment behind. So nothing is read there that somebody acts on in the next minute: jobs, the day, the shelf, who may what.
"""

from __future__ import annotations

import functools
import inspect
import logging
from collections.abc import Callable
from contextvars import ContextVar
from typing import Any, Final, ParamSpec, TypeVar

from django.conf import settings
from django.db import DatabaseError, InterfaceError

COPY: Final = "copy"
_reads: ContextVar[bool] = ContextVar("reads from the copy", default=False)
_log = logging.getLogger(__name__)
_P = ParamSpec("_P")
_T = TypeVar("_T")


class Router:
    """Which database is asked: the copy inside of what is read from it, and never for a write."""

    def db_for_read(self, _model: Any, **_hints: Any) -> str:
        """Return the copy while something is read from it."""
        return COPY if _reads.get() else "default"

    def db_for_write(self, _model: Any, **_hints: Any) -> str:
        """Return the database itself."""
        return "default"

    def allow_relation(self, _one: Any, _other: Any, **_hints: Any) -> bool:
        """Both hold the same rows."""
        return True

    def allow_migrate(self, db: str, _app: str, **_hints: Any) -> bool:
        """The copy follows by itself."""
        return db != COPY


def from_the_copy(operation: Callable[_P, _T]) -> Callable[_P, _T]:
    """Let an operation that only reads do so from the copy, if there is one; where that does not answer, from the database itself."""

    @functools.wraps(operation)
    def read(*args: _P.args, **kwargs: _P.kwargs) -> _T:
        if not settings.HAS_COPY:
            return operation(*args, **kwargs)
        token = _reads.set(True)
        try:
            return operation(*args, **kwargs)
        except (DatabaseError, InterfaceError) as error:
            _log.warning("the copy does not answer, the database itself is asked: %s", error)
        finally:
            _reads.reset(token)
        return operation(*args, **kwargs)

    read.__signature__ = inspect.signature(operation, eval_str=True)  # type: ignore[attr-defined]  # the framework reads the types by the module of the function
    return read
