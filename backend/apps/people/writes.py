"""Every write happens once per idempotency key, whatever it writes to."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from apps.errors import KeyReusedError
from apps.people.models import User, Write
from apps.people.permissions import Action, require
from django.db import connection, transaction
from django.utils import timezone


def digest_of(what: str, body: dict[str, Any]) -> str:
    """Return a digest of a write's content, to tell a replay from a key that is used twice."""
    return hashlib.sha256(json.dumps([what, body], sort_keys=True, default=str).encode()).hexdigest()


def written_before(key: str, digest: str) -> str | None:
    """Return what came of this very write if it was done already, or None. Two at once with the same key wait for each other.

    Raises
    ------
    KeyReusedError
        If the key was used for something else.
    """
    lock("write:" + key)
    done = Write.objects.filter(key=key).first()
    if done is not None and done.digest != digest:
        raise KeyReusedError("This idempotency key was used for something else. Make a new key for each write.")
    return None if done is None else done.result


def note_write(key: str, digest: str, result: str, by: User, at: datetime) -> None:
    """Remember a write by its key."""
    Write.objects.create(key=key, digest=digest, result=result, by=by, at=at)


def lock(name: str) -> None:
    """Let one transaction at a time pass that name, until it ends."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT pg_advisory_xact_lock(hashtextextended(%s, 0))", [name])


@dataclass
class Once:
    """A write in progress, inside its transaction. A replay has its ``result`` and must write nothing."""

    at: datetime
    result: str = ""
    is_replay: bool = False


@dataclass(frozen=True)
class Order:
    """Who writes, with which idempotency key, and when it happened (None is now)."""

    user: User
    key: str
    at: datetime | None = None


@contextmanager
def once(order: Order, action: Action, what: str, body: dict[str, Any]) -> Iterator[Once]:
    """Open a write to anything but a job's tape, or a replay of one that is done.

    Raises
    ------
    NotAllowedError, KeyReusedError
    """
    require(order.user, action)
    digest = digest_of(what, body)
    with transaction.atomic():
        result = written_before(order.key, digest)
        if result is not None:
            yield Once(timezone.now(), result, True)
            return
        write = Once(order.at or timezone.now())
        yield write
        note_write(order.key, digest, write.result, order.user, write.at)
