"""Every write happens once per idempotency key, whatever it writes to; and two that get in each other's way try once more."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Final, TypeVar

from apps.people.models import User
from apps.people.permissions import require
from apps.refusals import KeyReusedError
from apps.writing.models import UsedKey
from django.db import OperationalError, connection, transaction
from django.utils import timezone
from psycopg.errors import DeadlockDetected, SerializationFailure
from spindle.words.duty import Duty

_T = TypeVar("_T")
CLAIM: Final = "INSERT INTO writing_usedkey (key, digest, result, by_id, at) VALUES (%s, %s, %s, %s, %s) ON CONFLICT (key) DO NOTHING RETURNING id"


@dataclass(frozen=True)
class Command:
    """Who writes, with which idempotency key, and when it happened (None is now)."""

    user: User
    key: str
    at: datetime | None = None


def digest_of(what: str, body: dict[str, Any]) -> str:
    """Return a digest of a write's content, to tell a replay from a key that is used twice."""
    return hashlib.sha256(json.dumps([what, body], sort_keys=True, default=str).encode()).hexdigest()


def claim(command: Command, digest: str, result: str = "") -> UsedKey | None:
    """Claim a key for a write. Return None if it is ours now, or what came of it if this very write was done already.

    Two at once with the same key wait for each other: the second sees what the first has done.

    Raises
    ------
    KeyReusedError
        If the key was used for something else.
    """
    with connection.cursor() as cursor:
        cursor.execute(CLAIM, [command.key, digest, result, command.user.pk, command.at or timezone.now()])
        if cursor.fetchone() is not None:
            return None
    done = UsedKey.objects.get(key=command.key)
    if done.digest != digest:
        raise KeyReusedError("This idempotency key was used for something else. Make a new key for each write.")
    return done


def lock(name: str) -> None:
    """Let one transaction at a time pass that name, until it ends."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT pg_advisory_xact_lock(hashtextextended(%s, 0))", [name])


def trying_twice(work: Callable[[], _T]) -> _T:
    """Do some work in a transaction; if another one stood in its way so that the database gave ours up, do it once more."""
    try:
        with transaction.atomic():
            return work()
    except OperationalError as error:
        if not isinstance(error.__cause__, DeadlockDetected | SerializationFailure):
            raise
    with transaction.atomic():
        return work()


@dataclass
class Once:
    """A write in progress, inside its transaction. A replay has its ``result`` and must write nothing."""

    at: datetime
    result: str = ""
    is_replay: bool = False


@contextmanager
def once(command: Command, duty: Duty, what: str, body: dict[str, Any]) -> Iterator[Once]:
    """Open a write to anything but a job's tape, or a replay of one that is done.

    Raises
    ------
    NotAllowedError, KeyReusedError
    """
    require(command.user, duty)
    with transaction.atomic():
        done = claim(command, digest_of(what, body))
        if done is not None:
            yield Once(timezone.now(), done.result, True)
            return
        write = Once(command.at or timezone.now())
        yield write
        UsedKey.objects.filter(key=command.key).update(result=write.result)
