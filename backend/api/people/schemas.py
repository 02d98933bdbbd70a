"""What goes over the wire about people and their session."""

from __future__ import annotations

from datetime import datetime

from api.common import Short, View
from ninja import Schema


class SignIn(Schema):
    """Name and password."""

    username: Short
    password: Short
    code: Short = ""
    """Of the second factor, where there is one."""


class CodeIn(Schema):
    """A code of the second factor."""

    code: Short


class PasswordIn(Schema):
    """One's own password, once more."""

    password: Short


class SignedInView(View):
    """Where somebody is signed in."""

    device: str
    began_at: datetime | None
    is_this: bool


class AccountView(View):
    """What is one's own: where one is signed in, and whether a second factor is asked for, with how many codes on paper are left."""

    sessions: list[SignedInView]
    has_factor: bool
    on_paper: int


class BegunFactorView(View):
    """A second factor to be scanned: the square, and what it says for typing."""

    square: str
    secret: str


class PaperView(View):
    """The codes for paper: they are shown once."""

    codes: list[str]


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
    """The shop: its name, the sign of its money, its clock, and how its sheets of labels are divided."""

    name: str
    sign: str
    time_zone: str
    label_columns: int
    label_rows: int


class Session(View):
    """The session of this browser."""

    user: Me | None
    csrf_token: str
    shop: ShopView
