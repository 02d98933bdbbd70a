"""Signing in and out, and one's own password."""

from __future__ import annotations

from apps.people.models import OWNERS_HAND, Role, User
from apps.refusals import NotAllowedError
from django.contrib.auth import authenticate, login, logout, update_session_auth_hash
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.http import HttpRequest
from spindle.errors import InvalidError


def owners_hand() -> User:
    """Return the hand that writes an owner's answer onto a tape. It may what the counter may, and nobody can sign in as it."""
    own = {"first_name": "Owner’s page", "is_active": False, "role": Role.COUNTER, "password": "!"}
    return User.objects.get_or_create(username=OWNERS_HAND, defaults=own)[0]


def sign_in(request: HttpRequest, username: str, password: str) -> User:
    """Sign somebody in and give the session a new key.

    Raises
    ------
    NotAllowedError
        If name or password is wrong; it does not say which.
    """
    user = authenticate(request, username=username, password=password)
    if not isinstance(user, User):
        raise NotAllowedError("Name or password is wrong.", reason="sign_in")
    login(request, user)
    return user


def sign_out(request: HttpRequest) -> None:
    """End the session."""
    logout(request)


def check_password(password: str, user: User, *, place: str = "password") -> None:
    """Refuse a password that others would guess.

    Raises
    ------
    InvalidError
    """
    try:
        validate_password(password, user)
    except ValidationError as error:
        raise InvalidError(place, " ".join(error.messages)) from error


def change_own_password(request: HttpRequest, user: User, old: str, new: str) -> None:
    """Change one's own password. Every other session of theirs ends by it, and guessing at the old one locks out as at the sign-in.

    Raises
    ------
    NotAllowedError
        If the old one is wrong.
    InvalidError
        If the new one is weak, or the old one again.
    """
    if authenticate(request, username=user.username, password=old) is None:
        raise NotAllowedError("The old password is wrong.", reason="old_password")
    if old == new:
        raise InvalidError("new", "That is the old one. Choose another.")
    check_password(new, user, place="new")
    user.set_password(new)
    user.has_first_password = False
    user.save(update_fields=["password", "has_first_password"])
    update_session_auth_hash(request, user)
