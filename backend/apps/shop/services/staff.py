"""Who works here: added, renamed, given another role, let go. One manager at least can always sign in.

Nothing of a password is kept but its own slow hash: a write is told from its replay by everything else that it says.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, Final

from apps.people.models import Role, User
from apps.people.services import check_password
from apps.writing.once import Command, lock, once
from apps.writing.traces import trace
from spindle.errors import InvalidError, NotFoundError, NotNowError
from spindle.words.duty import Duty

_TRACED: Final = ("first_name", "last_name", "role", "is_active")


def add_person(command: Command, *, username: str, name: str, role: str, password: str) -> None:
    """Add somebody, with a first password that they have to change when they sign in.

    Raises
    ------
    NotAllowedError, KeyReusedError
    InvalidError
        If the sign-in name is taken or none, or the password is weak.
    """
    signs_in_as = username.strip().lower()
    if not signs_in_as.isidentifier():
        raise InvalidError("username", "A sign-in name is letters, digits and _ alone, and begins with a letter: “nia”.")
    with once(command, Duty.SHOP, "add_person", {"username": signs_in_as, "name": name, "role": role}) as write:
        if write.is_replay:
            return
        lock("staff")
        if User.objects.filter(username=signs_in_as).exists():
            raise InvalidError("username", f"“{signs_in_as}” signs in here already. Take another name, or let that person back in.")
        new = User(username=signs_in_as, role=Role(role), has_first_password=True, **_named(name))
        check_password(password, new)
        new.set_password(password)
        new.save()
        trace(_about(new), {}, _facts(new), by_id=command.user.pk, at=write.at)


def change_person(command: Command, username: str, changes: Mapping[str, Any]) -> None:
    """Rename somebody, give them another role or a new first password, let them go (``is_active``) or back in.

    Who is let go is signed out by that, everywhere; so is who gets a new password.

    Raises
    ------
    NotAllowedError, NotFoundError, KeyReusedError, InvalidError
    NotNowError
        If nobody could set the shop's figures any more.
    """
    told = dict(changes)
    password = told.pop("password", None)
    with once(command, Duty.SHOP, "change_person", {"username": username, **told, "password": password is not None}) as write:
        if write.is_replay:
            return
        lock("staff")
        person = User.objects.select_for_update().filter(username=username).first()
        if person is None:
            raise NotFoundError(f"Nobody signs in as {username}.")
        was = _facts(person)
        for field, value in {**(_named(told.pop("name")) if "name" in told else {}), **told}.items():
            setattr(person, field, value)
        if password is not None:
            check_password(password, person)
            person.set_password(password)
            person.has_first_password = person.pk != command.user.pk
        person.save()
        if not User.objects.filter(role=Role.MANAGER, is_active=True).exists():
            raise NotNowError("One manager has to stay: nobody else could let anybody in again.", reason="last_manager")
        trace(_about(person), was, {**_facts(person), **({"password": "set anew"} if password is not None else {})}, by_id=command.user.pk, at=write.at)


def first_person(username: str, password: str) -> User:
    """Return the first person of a shop that has nobody yet: a manager who has to change the password."""
    user = User(username=username, role=Role.MANAGER, has_first_password=True)
    user.set_password(password)
    user.save()
    return user


def _named(name: str) -> dict[str, str]:
    if not name.strip():
        raise InvalidError("name", "Write the name that stands on tapes and reports.")
    first, _, last = " ".join(name.split()).partition(" ")
    return {"first_name": first, "last_name": last}


def _facts(person: User) -> dict[str, Any]:
    return {field: getattr(person, field) for field in _TRACED}


def _about(person: User) -> str:
    return f"person {person.username}"
