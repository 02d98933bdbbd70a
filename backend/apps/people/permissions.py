"""What each role may do. Every service asks here first; there is no flag that skips it."""

from __future__ import annotations

from enum import StrEnum
from types import MappingProxyType
from typing import Final

from apps.errors import NotAllowedError
from apps.people.models import Role, User


class Action(StrEnum):
    """What can be done."""

    TAKE_IN = "take a unit in"
    NOTE = "add a remark"
    BENCH = "work at the bench"
    AGREE = "record what the owner agreed to"
    HAND_BACK = "hand a unit back"
    SHEETS = "change drive sheets and what fits where"
    SHELF = "change what is on the shelf"


_MAY: Final = MappingProxyType(
    {
        Role.COUNTER: frozenset({Action.TAKE_IN, Action.NOTE, Action.AGREE, Action.HAND_BACK}),
        Role.TECHNICIAN: frozenset(Action),
        Role.MANAGER: frozenset(Action),
    }
)


def allowed(user: User) -> frozenset[Action]:
    """Return what a user may do."""
    return _MAY[Role(user.role)]


def require(user: User, action: Action) -> None:
    """Raise NotAllowedError unless the user may do it."""
    if action not in allowed(user):
        who = " or ".join(r.label.lower() for r, may in _MAY.items() if action in may)
        raise NotAllowedError(f"Your role ({Role(user.role).label.lower()}) may not {action.value}. Ask a {who}.", action=action.name.lower())
