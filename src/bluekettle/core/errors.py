"""Every error the core raises. They carry facts, not sentences for one screen."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass


class CoreError(Exception):
    """Root of all errors of the core. They cross from process to process as they are."""

    def __reduce__(self) -> tuple[object, ...]:
        """Rebuild from the facts, not from the sentence."""
        return rebuilt, (type(self), self.args, self.__dict__)


def rebuilt(kind: type[CoreError], args: tuple[object, ...], facts: dict[str, object]) -> CoreError:
    """An error as it was, without its constructor."""
    error = kind.__new__(kind, *args)
    error.__dict__.update(facts)
    return error


@dataclass(frozen=True)
class Fault:
    """One input that cannot be used: where it is, what was given, what is accepted."""

    field: str
    given: object
    accepted: str

    def __str__(self) -> str:
        return f"{self.field}: {self.given!r} is not usable, accepted: {self.accepted}"


class OutOfRange(CoreError):
    """One or more inputs lie outside their range; all of them are gathered in `faults`."""

    def __init__(self, faults: Sequence[Fault]) -> None:
        self.faults = tuple(faults)
        super().__init__("; ".join(str(fault) for fault in self.faults))


class MissingData(CoreError):
    """A table has no row of this name."""

    def __init__(self, table: str, key: str, known: Sequence[str]) -> None:
        self.table, self.key, self.known = table, key, tuple(known)
        super().__init__(f"{table} has no {key!r}, known: {', '.join(self.known)}")


class NotConverged(CoreError):
    """A search ended without an answer; `reached` tells how far it came."""

    def __init__(self, what: str, wanted: float, reached: float) -> None:
        self.what, self.wanted, self.reached = what, wanted, reached
        super().__init__(f"{what}: wanted {wanted:g}, reached {reached:g}")


class NotSafe(NotConverged):
    """Tender it becomes, and yet neither its temperature [°C] nor a proven time makes it safe by
    this method.
    """


class Infeasible(CoreError):
    """What was asked cannot be done; `conflicts` names the constraints that clash."""

    def __init__(self, conflicts: Sequence[str]) -> None:
        self.conflicts = tuple(conflicts)
        super().__init__("; ".join(self.conflicts))


def within(field: str, value: float, low: float, high: float, unit: str = "") -> float:
    """The value [in its own unit], where `low` <= value <= `high`; else OutOfRange."""
    ranges = Ranges()
    ranges.within(field, value, low, high, unit)
    ranges.close()
    return value


class Ranges:
    """Gathers faults, so that a caller learns of all of them at once."""

    def __init__(self) -> None:
        self.faults: list[Fault] = []

    def within(self, field: str, value: float, low: float, high: float, unit: str = "") -> None:
        """Note a fault unless `low` <= value <= `high` (NaN is a fault)."""
        if not low <= value <= high:
            self.faults.append(Fault(field, value, f"{low:g} to {high:g} {unit}".strip()))

    def one_of(self, field: str, value: str, known: Sequence[str]) -> None:
        """Note a fault unless `value` is one of `known`."""
        if value not in known:
            self.faults.append(Fault(field, value, "one of " + ", ".join(known)))

    def add(self, field: str, given: object, accepted: str) -> None:
        """Note a fault of any other sort."""
        self.faults.append(Fault(field, given, accepted))

    def close(self) -> None:
        """Raise OutOfRange where anything was noted."""
        if self.faults:
            raise OutOfRange(self.faults)
