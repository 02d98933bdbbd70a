"""A request of somebody who is signed in: the API's authentication has made sure of it."""

from __future__ import annotations

from apps.people.models import User
from django.http import HttpRequest


class SignedIn(HttpRequest):
    """A request whose user is one of ours."""

    user: User
