"""What the application refuses by itself; what the core refuses is in :mod:`spindle.errors`, and answered the same way.

::

    SpindleError (core)
    └── RefusalError
        ├── NotAllowedError       this role may not do it
        ├── StaleWriteError       somebody else wrote meanwhile
        ├── KeyReusedError        an idempotency key came back with another content
        └── SupersededError       a long look was given up: its asker asked for something newer
"""

from __future__ import annotations

from spindle.errors import SpindleError


class RefusalError(SpindleError):
    """Base of what the application refuses."""

    code = "refusal"


class NotAllowedError(RefusalError):
    """This role may not do it."""

    code = "not_allowed"


class StaleWriteError(RefusalError):
    """The thing has moved on since the writer last saw it; ``changed`` says how."""

    code = "stale_write"


class KeyReusedError(RefusalError):
    """An idempotency key came back with another content."""

    code = "key_reused"


class SupersededError(RefusalError):
    """A long look was given up, since its asker asked for something newer or the job moved on."""

    code = "superseded"
