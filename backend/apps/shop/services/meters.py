"""The shop's meters: set up by the manager, read at the benches, one at a time."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import asdict, dataclass, field, replace
from typing import Any, Final, TypeVar

from apps.people.models import User
from apps.people.permissions import require
from apps.shop.models import Meter
from apps.shop.selectors import meter_of
from apps.writing.once import Command, lock, once
from apps.writing.traces import trace
from devices.meter import Meter as Device
from devices.meter import Taken, is_steady, understood
from devices.scpi import ADDRESS, QUERIES, within_time
from django.db import OperationalError, transaction
from spindle.bench.reading import Accuracy, accuracy_at
from spindle.errors import InvalidError, NotFoundError, NotNowError
from spindle.words.duty import Duty

_T = TypeVar("_T")
_TOLD: Final = ("name", "address", "functions", "leads_ohm", "is_here")


@dataclass(frozen=True, slots=True)
class MeterSaid:
    """What a manager says of a meter."""

    name: str
    address: str
    functions: Mapping[str, Mapping[str, Any]]
    leads_ohm: float | None = None
    is_here: bool = True


def say_meter(command: Command, said: MeterSaid, *, pk: int | None = None) -> None:
    """Set a meter up, or put one right, with a trace of each field.

    Raises
    ------
    NotAllowedError, KeyReusedError, NotFoundError
    InvalidError
        If its name is taken or empty, its address is none of a bench meter, or it reads nothing.
    """
    functions = {q: dict(said.functions[q]) for q in sorted(said.functions)}
    told = {"name": said.name.strip(), "address": said.address.strip(), "functions": functions, "leads_ohm": said.leads_ohm, "is_here": said.is_here}
    with once(command, Duty.SHOP, "meter", {"pk": pk, **told}) as write:
        lock("meters")
        if write.is_replay:
            return
        _check(told, pk)
        was = Meter() if pk is None else Meter.objects.filter(pk=pk).first()
        if was is None:
            raise NotFoundError("There is no such meter.")
        before = {n: getattr(was, n) for n in _TOLD} if pk is not None else {}
        for name, value in told.items():
            setattr(was, name, value)
        was.save()
        trace(f"meter {was.pk}", before, told, by_id=command.user.pk, at=write.at)


def _check(told: Mapping[str, object], pk: int | None) -> None:
    if not told["name"]:
        raise InvalidError("name", "The meter needs a name: what stands on it.")
    if Meter.objects.filter(name=told["name"]).exclude(pk=pk or 0).exists():
        raise InvalidError("name", f"There is a meter {told['name']} already.")
    if not ADDRESS.match(str(told["address"])):
        raise InvalidError("address", "Write its address as TCPIP0::192.168.0.9::5025::SOCKET or ASRL/dev/ttyUSB0::INSTR.")
    for q, function in dict(told["functions"]).items():  # type: ignore[call-overload]  # a mapping of words
        tops = [r["up_to"] for r in function.get("ranges", ())]
        if len(set(tops)) < len(tops):
            raise InvalidError(f"functions/{q}/ranges", f"Two ranges of {q} end at the same value.")
    if not told["functions"] or not set(told["functions"]) <= QUERIES.keys():  # type: ignore[call-overload]  # a mapping of words
        raise InvalidError("functions", f"Say what it reads: {', '.join(QUERIES)}.")


def try_meter(user: User, address: str) -> str:
    """Return who answers at an address; for managers, who set it up.

    Raises
    ------
    NotAllowedError, MeterError
    """
    require(user, Duty.SHOP)
    return within_time(address.strip(), lambda device: device.identify())


@dataclass(frozen=True, slots=True)
class Live:
    """One reading as it comes: it holds when it and the two before it lie together."""

    taken: Taken
    holds: bool
    accuracy: Mapping[str, float | None] = field(default_factory=dict)
    """``pct``, ``digits``, ``resolution`` and ``leads_ohm`` of the meter, as far as they are known."""


def read_meter(user: User, pk: int, quantity: str, *, before: Sequence[str] = ()) -> Live:
    """Return what a meter reads now, and whether it holds with what it read before.

    Raises
    ------
    NotAllowedError, NotFoundError, MeterError
    NotNowError
        If another bench is reading it.
    InvalidError
        If it does not read that.
    """
    require(user, Duty.BENCH)
    meter = meter_of(pk)
    if quantity not in meter.functions:
        raise InvalidError("quantity", f"{meter.name} does not read {quantity}.")
    taken = _alone(meter, lambda device: device.read(quantity))
    leads = meter.leads_ohm if quantity == "resistance" else None
    sure = asdict(_accuracy(meter.functions[quantity], taken.value))
    return replace(understand(quantity, taken.text, before=before), taken=taken, accuracy={**sure, "leads_ohm": leads})


def _accuracy(told: Mapping[str, Any], value: float) -> Accuracy:
    """Return how surely a meter reads a value, in whichever of its ranges it lies."""

    def of(sure: Mapping[str, Any]) -> Accuracy:
        return Accuracy(**{n: sure[n] for n in ("pct", "digits", "resolution") if n in sure})

    return accuracy_at(value, of(told), [(r["up_to"], of(r)) for r in told.get("ranges", ())])


def understand(quantity: str, text: str, *, before: Sequence[str] = ()) -> Live:
    """Return what a line says that came from a meter on the bench's own computer, and whether it holds.

    Raises
    ------
    MeterError
        If it is no reading of that quantity.
    """
    said = [understood(t, quantity) for t in (*before, text)]
    return Live(said[-1], is_steady(said))


def _alone(meter: Meter, work: Callable[[Device], _T]) -> _T:
    """Do some work with a meter while nobody else does."""
    with transaction.atomic():
        try:
            Meter.objects.select_for_update(nowait=True).get(pk=meter.pk)
        except OperationalError as error:
            raise NotNowError(f"Another bench is reading {meter.name}. Press again in a moment.", reason="meter_busy") from error
        return within_time(meter.address, work)
