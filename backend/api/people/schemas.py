"""What goes over the wire about people and their session."""

from __future__ import annotations

from api.common import Short, View
from ninja import Schema


class SignIn(Schema):
    """Name and password."""

    username: Short
    password: Short


class OwnPasswordIn(Schema):
    """One's own password, the old one and the new one."""

    old: Short
    new: Short


class Me(View):
    """Who is signed in, and what they may do."""

    username: str
    name: str
    role: str
    may: list[str]
    has_first_password: bool
    """Nothing can be done before they have chosen one of their own."""


class ShopView(View):
    """The shop: its name, the sign of its money, and its clock."""

    name: str
    sign: str
    time_zone: str


class Session(View):
    """The session of this browser."""

    user: Me | None
    csrf_token: str
    shop: ShopView
