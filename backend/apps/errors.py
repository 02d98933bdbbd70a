"""Every error that the application raises on purpose.

::

    AppError
    ├── NotFoundError         there is no such thing
    ├── NotAllowedError       this role may not do it
    ├── NotNowError           the state does not allow it (mains, stage, rattle)
    ├── InvalidError          a value is wrong, with its place
    ├── StaleWriteError       somebody else wrote meanwhile
    ├── KeyReusedError        an idempotency key came back with another content
    └── GoneError             somebody else took the last one; says who has it and what else fits

Each has a stable snake_case ``code`` and an HTTP ``status``; ``params`` carries what a screen may want to say itself.
"""

from __future__ import annotations

from typing import ClassVar


class AppError(Exception):
    """Base of all errors of the application."""

    code: ClassVar[str] = "app_error"
    status: ClassVar[int] = 400

    def __init__(self, message: str, *, reason: str = "", **params: object) -> None:
        super().__init__(message)
        self.message = message
        self.params = {**params, **({"reason": reason} if reason else {})}


class NotFoundError(AppError):
    """There is no such thing."""

    code = "not_found"
    status = 404


class NotAllowedError(AppError):
    """This role may not do it."""

    code = "not_allowed"
    status = 403


class NotNowError(AppError):
    """The state of the job does not allow it."""

    code = "not_now"
    status = 409


class InvalidError(AppError):
    """A value is wrong; ``place`` says which."""

    code = "invalid"
    status = 422

    def __init__(self, place: str, message: str) -> None:
        super().__init__(message, place=place)


class StaleWriteError(AppError):
    """The job has moved on since the writer last saw it; ``changed`` says how."""

    code = "stale_write"
    status = 409


class KeyReusedError(AppError):
    """An idempotency key came back with another content."""

    code = "key_reused"
    status = 422


class GoneError(AppError):
    """The last one was taken by somebody else; ``holders`` says by whom, ``others`` what else fits."""

    code = "gone"
    status = 409
