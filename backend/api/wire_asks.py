"""The asks of the core as one body with a discriminator: what can be asked of a job is declared there, with its bounds, and nowhere else."""

from __future__ import annotations

import types
from collections.abc import Callable
from dataclasses import MISSING, Field, fields, is_dataclass
from functools import cache, reduce
from operator import or_
from typing import Annotated, Any, Literal, Union, get_args, get_origin, get_type_hints

from api.common import Key, Number
from ninja import Schema
from pydantic import BaseModel, ConfigDict, StringConstraints, create_model
from pydantic import Field as Bound
from spindle.job.asking import AskKind
from spindle.job.ledger import ASKS
from spindle.words.bounds import LengthBound, NumberBound, TextBound

_models: dict[type, type[BaseModel]] = {}


def _bound(found: object) -> Any:
    """Return a bound of the core as pydantic knows it."""
    if isinstance(found, TextBound):
        return StringConstraints(min_length=found.least, max_length=found.most, pattern=found.pattern, strip_whitespace=found.is_stripped)
    if isinstance(found, NumberBound):
        return Bound(gt=found.low, le=found.high) if found.is_above else Bound(ge=found.low, le=found.high)
    if isinstance(found, LengthBound):
        return Bound(min_length=found.least, max_length=found.most)
    raise TypeError(f"no bound of ours: {found!r}")


def _typed(hint: Any) -> Any:
    """Return a type hint of the core as pydantic takes it, dataclasses within it turned into models."""
    if get_origin(hint) is Annotated:
        inner, *bounds = get_args(hint)
        return Annotated[(_typed(inner), *map(_bound, bounds))]
    if isinstance(hint, type) and is_dataclass(hint):
        return _model(hint)
    if get_origin(hint) in (Union, types.UnionType):
        return reduce(or_, (_typed(a) for a in get_args(hint)))
    if get_origin(hint) is not None:
        origin = {tuple: list, frozenset: frozenset}.get(get_origin(hint), dict)
        return origin[tuple(_typed(a) for a in get_args(hint) if a is not Ellipsis)]  # type: ignore[index]
    return hint


def _default(field: Field[Any]) -> Any:
    if field.default_factory is not MISSING:
        return Bound(default_factory=field.default_factory)
    if is_dataclass(field.default):
        return Bound(default_factory=_model(type(field.default)))
    return ... if field.default is MISSING else field.default


@cache
def _hints(body: type) -> dict[str, Any]:
    """Return what each field of an ask is, bounds included: looked up once, for it takes a millisecond."""
    hints = get_type_hints(body, include_extras=True)
    return {f.name: hints[f.name] for f in fields(body)}


def _model(body: type, **more: Any) -> type[BaseModel]:
    if body not in _models:
        hints = _hints(body)
        own: Any = {f.name: (_typed(hints[f.name]), _default(f)) for f in fields(body)}
        name = f"{body.__name__}Ask" if more else body.__name__
        _models[body] = create_model(name, __doc__=body.__doc__, __config__=STRICT, **more, **own)
    return _models[body]


STRICT = ConfigDict(extra="forbid", from_attributes=True, use_attribute_docstrings=False)


def _ask_model(kind: AskKind) -> Any:
    return _model(kind.body, do=(Literal[kind.name], ...))


def asks() -> Any:
    """Return the union of everything that can be asked of a job, told apart by ``do``."""
    models = tuple(_ask_model(k) for k in ASKS.values())
    return Annotated[Union[models], Bound(discriminator="do")]  # noqa: UP007  # the members are known at run time alone


def _plain(value: Any, body: Any) -> Any:
    """Return a model's value as the core's own."""
    if get_origin(body) is Annotated:
        return _plain(value, get_args(body)[0])
    if isinstance(value, BaseModel):
        known = next(b for b in (body, *get_args(body)) if isinstance(b, type) and is_dataclass(b))
        return from_model(value, known)
    if isinstance(value, list):
        return tuple(_plain(v, get_args(body)[0]) for v in value)
    return value


def from_model(value: BaseModel, body: type) -> Any:
    """Return the core's own ask, or a piece of one, from what came over the wire."""
    return body(**{name: _plain(getattr(value, name), hint) for name, hint in _hints(body).items()})


AskIn: type[Schema] = create_model(
    "AskIn", __base__=Schema, __doc__="Something that is asked of a job.", key=(Key, ...), version=(Number, ...), ask=(asks(), ...)
)


def ask_of(body: Any) -> Any:
    """Return what is asked."""
    kind: Callable[..., Any] = next(k.body for k in ASKS.values() if k.name == body.ask.do)
    return from_model(body.ask, kind)  # type: ignore[arg-type]
