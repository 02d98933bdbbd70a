"""Which role may do which duty. Every write asks here first; there is no flag that skips it."""

from __future__ import annotations

from types import MappingProxyType
from typing import Final

from apps.people.models import Role, User
from apps.refusals import NotAllowedError
from spindle.words.duty import Duty

_MAY: Final = MappingProxyType(
    {
        Role.COUNTER: frozenset({Duty.TAKE_IN, Duty.NOTE, Duty.AGREE, Duty.HAND_BACK}),
        Role.TECHNICIAN: frozenset(Duty) - {Duty.SHOP},
        Role.MANAGER: frozenset(Duty),
    }
)


def allowed(user: User) -> frozenset[Duty]:
    """Return what a user may do."""
    return _MAY[Role(user.role)]


def require(user: User, duty: Duty) -> None:
    """Raise NotAllowedError unless the user may do it."""
    if duty not in allowed(user):
        who = " or ".join(r.label.lower() for r, may in _MAY.items() if duty in may)
        raise NotAllowedError(f"Your role ({Role(user.role).label.lower()}) may not {duty.value}. Ask a {who}.", action=duty.name.lower())
