"""Errors as problem+json with a stable code: one format from the core to the screen, and words that are true whatever broke."""

from __future__ import annotations

import logging
import secrets
import sys
from types import MappingProxyType
from typing import Any, Final

from django.db import InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse, JsonResponse
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError
from spindle.errors import SpindleError

_log = logging.getLogger("spindle.errors")
PROBLEM: Final = "application/problem+json"
STATUS: Final = MappingProxyType(
    {"not_found": 404, "not_now": 409, "gone": 409, "refused": 409, "stale_write": 409, "superseded": 409, "meter": 409, "not_allowed": 403}
)
"""Codes that are answered with another status than 422."""


def problem(status: int, code: str, message: str, **params: Any) -> JsonResponse:
    """Return a problem document."""
    return JsonResponse({"status": status, "code": code, "title": message, "params": params}, status=status, content_type=PROBLEM)


def add_handlers(api: NinjaAPI) -> None:
    """Turn every error that is raised on purpose into a problem document."""

    @api.exception_handler(SpindleError)
    def _core(request: HttpRequest, error: SpindleError) -> HttpResponse:
        return problem(STATUS.get(error.code, 422), error.code, error.message, **error.params)

    @api.exception_handler(OperationalError)
    @api.exception_handler(InterfaceError)
    def _away(request: HttpRequest, error: Exception) -> HttpResponse:
        return database_away()

    @api.exception_handler(ValidationError)
    def _validation(request: HttpRequest, error: ValidationError) -> HttpResponse:
        fields = [{"place": ".".join(str(x) for x in e["loc"][1:]), "message": e["msg"]} for e in error.errors]
        where = ", ".join(f["place"] or "the body" for f in fields)
        return problem(422, "invalid", f"Some of it cannot be taken: {where}.", fields=fields)

    @api.exception_handler(AuthenticationError)
    def _auth(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
        return problem(401, "signed_out", "You are not signed in. Sign in again; what you typed is kept.")

    @api.exception_handler(HttpError)
    def _http(request: HttpRequest, error: HttpError) -> HttpResponse:
        if error.status_code == 403:  # the framework's own way of saying that the token is missing or old
            return csrf_failure(request)
        return problem(error.status_code, "bad_request", str(error))


def locked_out(request: HttpRequest, *_: object, **__: object) -> HttpResponse:
    """Answer somebody who tried too often."""
    return problem(429, "locked_out", "Too many failed attempts. Wait a quarter of an hour, or ask the manager.")


def csrf_failure(request: HttpRequest, reason: str = "") -> HttpResponse:
    """Answer a request without a valid CSRF token."""
    return problem(403, "csrf", "This page is out of date. Load it again; what you typed is kept.")


def not_found(request: HttpRequest, exception: Exception) -> HttpResponse:
    """Answer an address that leads nowhere."""
    return problem(404, "not_found", f"There is nothing at {request.path}.")


def database_away() -> HttpResponse:
    """Answer while the database cannot be reached: it may be starting again."""
    return problem(503, "database_away", "The database is away. Nothing is lost: the same press asks again by itself.")


def broken(request: HttpRequest) -> HttpResponse:
    """Answer a request that broke the server. Whether it was written first is not known here, so nothing is said of that that may be false."""
    if isinstance(sys.exc_info()[1], OperationalError | InterfaceError):
        return database_away()
    name = secrets.token_hex(4)
    _log.error("error %s at %s %s", name, request.method, request.path, exc_info=sys.exc_info())
    said = f"The server made a mistake ({name}). It may have been written all the same; the same press asks again."
    return problem(500, "unexpected", said, id=name)
