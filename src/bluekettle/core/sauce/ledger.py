"""The contact ledger: which portion of a sauce is clean, raw-contact or boiled, from the bowl to
the plate.

A portion that touched raw food, or stood under hands or a brush that did, never reaches ready food
without a boil after its last contact. The ledger refuses that step and says what would make it
right.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import ceil

from bluekettle.core.errors import Ranges
from bluekettle.core.sauce.simmering import heat_up_s
from bluekettle.core.tables import value

CLEAN, RAW, BOILED = CONTACTS = ("clean", "raw-contact", "boiled")
TAKEN = ("plate", "pot", "raw food")  # ends of the drawing: no portion may be called so
KINDS = ("split", "touch", "boil", "pour", "cook", "serve")
BATCH = "bowl"


@dataclass(frozen=True)
class Move:
    """One step.

    split : `mass_kg` of `portion` becomes the new portion `to`. touch : raw food, its hands or its
    brush. boil : all of
    it. pour : all of `portion` into `to`. cook : in with raw food that then boils or braises
    through. serve : onto ready food or the table, `mass_kg` of it (all where None).
    """

    kind: str
    portion: str
    to: str = ""
    mass_kg: float | None = None


@dataclass(frozen=True)
class Portion:
    """A portion now: what is left of it [kg] and its contact."""

    name: str
    mass_kg: float
    contact: str


@dataclass(frozen=True)
class Stop:
    """A step that was not taken, and why; boil_min is how long a boil of it would take (0 where
    that is not the way).
    """

    place: int
    portion: str
    why: str
    boil_min: float


@dataclass(frozen=True)
class Flow:
    """One arrow of the drawing: mass [kg] from a portion to another (or to "raw food", "plate"),
    and its contact.
    """

    place: int
    source: str
    target: str
    mass_kg: float
    contact: str


@dataclass(frozen=True)
class Ledger:
    """All portions at the end, the arrows, what reached the plate [kg], and the steps that were
    stopped.
    """

    portions: tuple[Portion, ...]
    flows: tuple[Flow, ...]
    served_kg: float
    stops: tuple[Stop, ...]


# a stove burner, and a sauce from the fridge (typical)
def boil_minutes(mass_kg: float, power_w: float = 1500.0, start_c: float = 8.0) -> float:
    """Minutes to bring a portion to a full rolling boil and keep it there, by its mass.

    Raises OutOfRange outside 0 to 50 kg, 100 to 6000 W, 0 to 100 °C.
    """
    ranges = Ranges()
    ranges.within("mass_kg", mass_kg, 0.0, 50.0, "kg")
    ranges.within("power_w", power_w, 100.0, 6000.0, "W")
    ranges.within("start_c", start_c, 0.0, 100.0, "°C")
    ranges.close()
    return heat_up_s(mass_kg, power_w, start_c) / 60.0 + value("boil_hold_min")


def keep_ledger(batch_kg: float, moves: Sequence[Move]) -> Ledger:
    """Follow a batch through its steps.

    Parameters
    ----------
    batch_kg : float
        What is in the bowl, 1 g to 50 kg.
    moves : sequence of Move
        Up to 100 steps in order. The bowl is the portion "bowl".

    Raises
    ------
    OutOfRange
        A step that names a portion that is not there, takes more than there is, or makes one that
        exists.
    """
    ranges = Ranges()
    ranges.within("batch_kg", batch_kg, 1e-3, 50.0, "kg")
    ranges.within("moves", len(moves), 0, 100, "steps")
    ranges.close()
    left: dict[str, tuple[float, str]] = {BATCH: (batch_kg, CLEAN)}
    flows: list[Flow] = []
    stops: list[Stop] = []
    served = 0.0
    for place, move in enumerate(moves):
        _check(place, move, left)
        mass, contact = left[move.portion]
        if move.kind == "split":
            part = float(move.mass_kg or 0.0)
            left[move.portion] = (mass - part, contact)
            left[move.to] = (part, contact)
            flows.append(Flow(place, move.portion, move.to, part, contact))
        elif move.kind == "touch":
            left[move.portion] = (mass, RAW)
            flows.append(Flow(place, move.portion, "raw food", mass, RAW))
        elif move.kind == "boil":
            left[move.portion] = (mass, BOILED)
            flows.append(Flow(place, move.portion, move.portion, mass, BOILED))
        elif move.kind == "pour":
            into, other = left[move.to]
            left[move.to] = (into + mass, _together(contact, other))
            left[move.portion] = (0.0, contact)
            flows.append(Flow(place, move.portion, move.to, mass, contact))
        elif move.kind == "cook":
            left[move.portion] = (mass, BOILED)
            flows.append(Flow(place, move.portion, "pot", mass, BOILED))
        else:
            part = mass if move.mass_kg is None else move.mass_kg
            if contact == RAW:
                minutes = boil_minutes(mass)
                why = (
                    f"“{move.portion}” touched raw food: boil it for {ceil(minutes)} min first, or"
                    " use a fresh portion"
                )
                stops.append(Stop(place, move.portion, why, minutes))
                continue
            left[move.portion] = (mass - part, contact)
            served += part
            flows.append(Flow(place, move.portion, "plate", part, contact))
    portions = tuple(Portion(name, mass, contact) for name, (mass, contact) in left.items())
    return Ledger(portions, tuple(flows), served, tuple(stops))


def plate_contact(ledger: Ledger) -> str:
    """Contact of what reaches ready food: the worst of the portions that are served, those stopped
    on their way included. Where none is, of all that is left: nobody said that it is another one.
    """
    served = {flow.source: flow.contact for flow in ledger.flows if flow.target == "plate"}
    served |= {stop.portion: RAW for stop in ledger.stops}
    cooked = {flow.source for flow in ledger.flows if flow.target == "pot"}
    contacts = served or {p.name: p.contact for p in ledger.portions if p.mass_kg > 0.0}
    # What cooked in the pot was boiled there; nobody boils it again.
    found = [CLEAN if name in cooked else contact for name, contact in contacts.items()]
    worst = CLEAN
    for contact in found:
        worst = _together(worst, contact)
    return worst


def _check(place: int, move: Move, left: dict[str, tuple[float, str]]) -> None:
    """Whether a step can be taken at all."""
    ranges = Ranges()
    ranges.one_of(f"moves.{place}.kind", move.kind, KINDS)
    ranges.one_of(f"moves.{place}.portion", move.portion, tuple(left))
    ranges.close()
    mass = left[move.portion][0]
    if move.kind == "split":
        if move.to in left or not move.to or move.to in TAKEN:
            ranges.add(f"moves.{place}.to", move.to, "a new name, and none of " + ", ".join(TAKEN))
        ranges.within(
            f"moves.{place}.mass_kg",
            -1.0 if move.mass_kg is None else move.mass_kg,
            0.0,
            mass,
            "kg",
        )
    if move.kind == "pour" and (move.to not in left or move.to == move.portion):
        ranges.add(f"moves.{place}.to", move.to, "the name of another portion")
    if move.kind == "serve" and move.mass_kg is not None:
        ranges.within(f"moves.{place}.mass_kg", move.mass_kg, 0.0, mass, "kg")
    ranges.close()


def _together(one: str, other: str) -> str:
    """Contact of two portions in one bowl: the worse."""
    order = (CLEAN, BOILED, RAW)
    return max((one, other), key=order.index)
