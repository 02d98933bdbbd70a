"""What people do here. Who may do what is the shop's affair; what a deed asks for is said where the deed is."""

from __future__ import annotations

from enum import StrEnum


class Duty(StrEnum):
    """One kind of work."""

    TAKE_IN = "take a unit in"
    NOTE = "add a remark"
    BENCH = "work at the bench"
    AGREE = "record what the owner agreed to"
    HAND_BACK = "hand a unit back"
    SHEETS = "change drive sheets and what fits where"
    SHELF = "change what is on the shelf"
    SHOP = "set what the shop has, reckons with, and who works here"
