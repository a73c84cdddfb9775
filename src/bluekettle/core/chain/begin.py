"""From a newcomer's answers to a chain: the rows of `beginnings.csv` whose conditions hold.

Rows stand in the order of the cook; facts are what the answers come to.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from bluekettle.core.chain.conditions import fields_of, rows_that_hold
from bluekettle.core.chain.heats import HeatRow, heat_keys, heat_row
from bluekettle.core.errors import Fault, OutOfRange
from bluekettle.core.stages import cut, cut_keys

WHENS = ("before", "twice", "after")
OF_PLAN = ("whole", "strands", "alone", "fire", "once")
OF_FOOD = ("raw", "unsalted", "chilled", "bony", "wet", "meat", "slices")
FACTS = frozenset((*WHENS, *OF_PLAN, *OF_FOOD))
PORTION_KG = 0.15  # of sliced food, on a plate (typical, estimated)
MOST_PORTIONS = 60  # of one stage (design)


@dataclass(frozen=True)
class Answers:
    """What a newcomer answers. finish : a fierce heat, or None for the one heat alone. sauced :
    whether a sauce goes on, and `when`: before the last heat, before it and again in it, or after.
    """

    cut: str
    mass_kg: float
    pieces: int
    state: str
    heat: str
    bite: str
    finish: str | None
    sauced: bool
    when: str

    def check(self) -> None:
        """Raises OutOfRange with every answer that does not go with the others."""
        faults = []
        if self.cut not in cut_keys():
            raise OutOfRange([Fault("cut", self.cut, f"one of {', '.join(cut_keys())}")])
        told = (("heat", self.heat, slow_keys()), ("finish", self.finish, (None, *fierce_keys())))
        for name, given, known in told:
            if given not in known:
                faults.append(Fault(name, given, "one of " + ", ".join(k for k in known if k)))
        bites = tuple(cut(self.cut).targets)
        if self.bite not in bites:
            faults.append(Fault("bite", self.bite, f"one of {', '.join(bites)} for this cut"))
        if not faults and self.sauced and self.when not in whens(self):
            faults.append(Fault("when", self.when, f"{' or '.join(whens(self))} here"))
        if faults:
            raise OutOfRange(faults)

    def having_usual_when(self) -> Answers:
        """The same with the sauce at its usual moment; MissingData for an unknown heat."""
        return replace(self, when=whens(self)[0])


def slow_keys() -> tuple[str, ...]:
    """Heats that cook through."""
    return tuple(key for key in heat_keys() if heat_row(key).slow is not None)


def fierce_keys() -> tuple[str, ...]:
    """Heats that brown."""
    return tuple(key for key in heat_keys() if heat_row(key).fierce is not None)


def is_open(row: HeatRow) -> bool:
    """Whether food stands in dry air in its slow model."""
    return row.slow is not None and row.slow.around not in ("", "foil")


def whens(answers: Answers) -> tuple[str, ...]:
    """When a sauce may go on, the usual moment first: with one heat alone, before it only where
    it is dry; strands are tossed once.
    """
    strands = answers.bite == "shreds"
    if answers.finish is not None:
        return ("before", "after") if strands else WHENS
    if is_open(heat_row(answers.heat)) and not strands:
        return ("after", "before")
    return ("after",)


def facts_of(answers: Answers) -> frozenset[str]:
    """What holds of the answers, in words of the table; `answers` are checked."""
    found, row = cut(answers.cut), heat_row(answers.heat)
    wet = row.slow is not None and row.slow.takes_liquid
    told = {
        "raw": not found.cooked,
        "unsalted": not found.salted,
        "chilled": answers.state == "fridge",
        "whole": answers.bite != "shreds",
        "strands": answers.bite == "shreds",
        "bony": found.on_the_bone,
        "alone": answers.finish is None,
        "fire": answers.finish is not None,
        "wet": wet,
        "meat": found.is_meat,
        "slices": answers.bite == "sliceable" and found.gate and not found.on_the_bone,
        "once": not (answers.sauced and answers.when == "twice"),
        **{when: answers.sauced and answers.when == when for when in WHENS},
    }
    return frozenset(fact for fact, holds in told.items() if holds)


def beginning(answers: Answers) -> tuple[dict[str, str], ...]:
    """Stages in order: each its id, kind (`stage`) and fields as text.

    Raises OutOfRange for answers that do not go together, MissingData for a condition of the
    table that no answer decides.
    """
    answers.check()
    holds = facts_of(answers)
    told = {
        "$heat": answers.heat,
        "$bite": answers.bite,
        "$finish": answers.finish or "",
        "$portions": str(portions(answers.mass_kg, answers.pieces)),
    }
    found = rows_that_hold("beginnings", FACTS, holds)
    return tuple({"id": row["id"], **fields_of(row, told)} for row in found)


def portions(mass_kg: float, pieces: int) -> int:
    """Portions of sliced pieces [kg], at least as many as there are pieces."""
    return min(MOST_PORTIONS, max(pieces, round(mass_kg / PORTION_KG)))
