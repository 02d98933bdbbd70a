"""Signing in and out, and one's own password."""

from __future__ import annotations

from apps.people.models import OWNERS_HAND, Role, User
from apps.people.second_factor import drop, factor_of, takes
from apps.people.sessions import BEGAN, DEVICE, device_of
from apps.refusals import NotAllowedError
from django.contrib.auth import authenticate, login, logout, update_session_auth_hash
from django.contrib.auth.password_validation import validate_password
from django.contrib.auth.signals import user_login_failed
from django.core.exceptions import ValidationError
from django.http import HttpRequest
from django.utils import timezone
from spindle.errors import InvalidError


def owners_hand() -> User:
    """Return the hand that writes an owner's answer onto a tape. It may what the counter may, and nobody can sign in as it."""
    own = {"first_name": "Owner’s page", "is_active": False, "role": Role.COUNTER, "password": "!"}
    return User.objects.get_or_create(username=OWNERS_HAND, defaults=own)[0]


def sign_in(request: HttpRequest, username: str, password: str, code: str = "") -> User:
    """Sign somebody in and give the session a new key.

    Raises
    ------
    NotAllowedError
        If name or password is wrong; it does not say which. With a second factor: if its code is missing or wrong, and wrong ones are
        counted like wrong passwords.
    """
    user = authenticate(request, username=username, password=password)
    if not isinstance(user, User):
        raise NotAllowedError("Name or password is wrong.", reason="sign_in")
    factor = factor_of(user)
    if factor is not None and not code.strip():
        raise NotAllowedError("Now the code from your device, or one from paper.", reason="code_wanted")
    if factor is not None and not takes(factor, code, timezone.now()):
        user_login_failed.send(sender=__name__, credentials={"username": username}, request=request)
        raise NotAllowedError("That code is not right, or was used already. Take the one that shows now.", reason="code")
    login(request, user)
    request.session[DEVICE], request.session[BEGAN] = device_of(request.headers.get("User-Agent", "")), timezone.now().isoformat()
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


def drop_own_factor(request: HttpRequest, user: User, password: str) -> None:
    """Switch one's own second factor off, by the password: a tablet that was left open is not enough.

    Raises
    ------
    NotAllowedError
        If the password is wrong.
    """
    if authenticate(request, username=user.username, password=password) is None:
        raise NotAllowedError("The password is wrong.", reason="old_password")
    drop(user)
