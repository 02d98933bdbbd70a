"""What every domain of the API shares: words with their bounds, who asks, and how answers are declared."""

from __future__ import annotations

import inspect
from collections.abc import Callable, Sequence
from typing import Annotated, Any, ParamSpec, TypeVar

from apps.people.models import User
from apps.refusals import NotAllowedError
from django.db import transaction
from django.http import HttpRequest, HttpResponse
from ninja import Path, Schema
from ninja.security import SessionAuth
from pydantic import BaseModel, ConfigDict, Field, StringConstraints
from spindle.words.bounds import NO_NUL

_P = ParamSpec("_P")
_T = TypeVar("_T")
Short = Annotated[str, StringConstraints(max_length=120, pattern=NO_NUL)]
Place = Annotated[str, StringConstraints(max_length=60, pattern=NO_NUL)]
Text = Annotated[str, StringConstraints(max_length=2_000, pattern=NO_NUL)]
Word = Annotated[str, StringConstraints(pattern=r"^[a-z0-9_]{1,40}$")]
Key = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9-]{8,64}$")]
Variant = Annotated[str, StringConstraints(min_length=1, max_length=40, pattern=r"^[^\u0000/]+$")]
Code = Annotated[str, StringConstraints(min_length=1, max_length=60, pattern=r"^[^\u0000]+$")]
Cents = Annotated[int, Field(ge=0, le=10_000_000)]
Number = Annotated[int, Field(ge=0, le=2_000_000_000)]
Tag = Annotated[Short, Path()]


class SignedIn(HttpRequest):
    """A request whose user is one of ours: the API's authentication has made sure of it."""

    user: User


class ProblemDocument(Schema):
    """Every error."""

    status: int
    code: str
    title: str
    params: dict[str, Any]


class View(BaseModel):
    """What goes out: read from the attributes of the thing that it shows, where those are called the same."""

    model_config = ConfigDict(from_attributes=True)


class OnceIn(Schema):
    """What every write but those to a job carries: its idempotency key."""

    key: Key


class _Settled(SessionAuth):
    """Signed in, and with a password of their own."""

    def authenticate(self, request: HttpRequest, key: str | None) -> User | None:
        user = super().authenticate(request, key)
        if isinstance(user, User) and user.has_first_password:
            raise NotAllowedError("Choose a password of your own first: somebody else knows this one.", reason="first_password")
        return user


settled = _Settled()
"""What every operation asks for by itself."""
READS = {400: ProblemDocument, 401: ProblemDocument, 404: ProblemDocument, 422: ProblemDocument}
WRITES = {**READS, 403: ProblemDocument, 409: ProblemDocument}


def as_json(view: BaseModel | Sequence[BaseModel]) -> HttpResponse:
    """Return a view as it goes over the wire, or a list of them. It was checked when it was made, and is not checked again."""
    told = view.model_dump_json() if isinstance(view, BaseModel) else f"[{','.join(v.model_dump_json() for v in view)}]"
    return HttpResponse(told, content_type="application/json; charset=utf-8")


def never_changing(content: bytes, kind: str) -> HttpResponse:
    """Return a file that is known by the hash of its content: kept by the browser for good, and run by none."""
    answer = HttpResponse(content, content_type=kind)
    answer["Cache-Control"] = "private, max-age=31536000, immutable"
    answer["Content-Security-Policy"] = "default-src 'none'; sandbox"
    return answer


def view_before_commit(operation: Callable[_P, _T]) -> Callable[_P, _T]:
    """Answer a write in one transaction with it: what cannot be shown is not committed."""
    whole = transaction.atomic(operation)
    whole.__signature__ = inspect.signature(operation, eval_str=True)  # type: ignore[attr-defined]  # the framework reads the types by the module of the function
    return whole
