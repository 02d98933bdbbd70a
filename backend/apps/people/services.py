"""Signing in and out."""

from __future__ import annotations

from apps.people.models import User
from apps.refusals import NotAllowedError
from django.contrib.auth import authenticate, login, logout
from django.http import HttpRequest


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
