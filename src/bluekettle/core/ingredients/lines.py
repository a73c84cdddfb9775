"""Ingredient lines as people write them, read one by one: what cannot be read stays, marked, with
suggestions.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

from bluekettle.core.errors import OutOfRange, Ranges
from bluekettle.core.ingredients.amounts import LONGEST, Amount, singular, take_amount
from bluekettle.core.ingredients.table import Ingredient, Known, find, ingredient, refusal

MOST_LINES = 300


@dataclass(frozen=True)
class ReadLine:
    """One line: its text, the ingredient and its mass [kg] where they are known, else what is wrong
    with it.

    `share` lines ("to taste") have their mass only once the rest is known. suggestions : names that
    are near. unknown : the words that name no ingredient.
    """

    text: str
    ingredient: Ingredient | None
    amount: Amount | None
    mass_kg: Amount | None
    problem: str = ""
    suggestions: tuple[str, ...] = ()
    unknown: str = ""

    @property
    def usable(self) -> bool:
        """Whether its mass enters the sums."""
        return self.ingredient is not None and self.mass_kg is not None


def read_line(text: str, own: Known | None = None) -> ReadLine:
    """Read one line, like "1 3/4 cups ketchup", "3 cloves of garlic", "200 g" before or behind the
    name.

    It never raises for what is written: the problem stands in the result.
    """
    pool = own or {}
    line = " ".join(text.split())
    if "\n" in text.strip():
        return ReadLine(
            line[:LONGEST], None, None, None, "more than one line: write each ingredient on its own"
        )
    if len(line) > LONGEST:
        return ReadLine(
            line[:LONGEST], None, None, None, f"{len(line)} characters; up to {LONGEST} can be read"
        )
    try:
        amount, rest = _amount_and_name(line)
    except OutOfRange as error:
        return ReadLine(line, None, None, None, f"accepted is {error.faults[0].accepted}")
    if not rest:
        return ReadLine(line, None, amount, None, "no ingredient is named")
    if refusal(rest):
        return ReadLine(line, None, amount, None, refusal(rest))
    key, near = find(rest, pool)
    if key is None:  # "honey (from the jar) or sugar": what comes first is meant
        first = re.split(r"\s+or\s+", re.sub(r"\s*\([^)]*\)", "", rest))[0].strip(" ,;:")
        if first and first != rest:
            key, near_first = find(first, pool)
            near = near or near_first
            rest = first if key is not None else rest
    if key is None and amount is not None and amount.kind == "count":
        # "3 cloves garlic": the word after the number names the piece.
        head, _, tail = rest.partition(" ")
        tail = re.sub(r"^of\s+", "", tail)
        key, near_tail = find(tail, pool) if tail else (None, ())
        near = near_tail or near
        found = pool.get(key) or ingredient(key) if key else None
        if found and singular(head.lower()) not in found.each.split() and found.each:
            key, near = None, (f"{amount.likely:g} {found.each} {found.name}",)
    if key is None:
        problem = f"no ingredient “{rest[:60]}” is known"
        return ReadLine(line, None, amount, None, problem, near, rest)
    item = pool[key] if key in pool else ingredient(key)
    if amount is None:
        return ReadLine(line, item, None, None, "no amount is given", (f"100 g {item.name}",))
    mass = mass_of(amount, item)
    if mass is None:
        return ReadLine(
            line, item, amount, None, f"{item.name} does not come in pieces here: give g or ml"
        )
    return ReadLine(line, item, amount, mass)


@lru_cache(
    maxsize=4096
)  # at every stroke all lines are read again, and all but one are as they were
def _amount_and_name(line: str) -> tuple[Amount | None, str]:
    """Amount and ingredient name, whichever comes first."""
    juice = re.match(r"^(?:the\s+)?(juice|zest)\s+of\s+(.+)$", line, re.I)
    if juice:
        amount, rest = take_amount(juice[2])
        return amount, f"{rest} {juice[1]}"
    amount, rest = take_amount(line)
    if amount is None:
        behind = re.match(r"^(?P<name>.*?[a-zà-ÿ)])[\s:,-]+(?P<amount>[\d½¼¾⅓⅔⅛].*)$", line, re.I)
        if behind:
            amount, left = take_amount(behind["amount"])
            if not left.strip():
                return amount, behind["name"].strip(" :,-")
            amount = None
    return amount, rest.strip(" ,;:")


def mass_of(amount: Amount, item: Ingredient) -> Amount | None:
    """Mass [kg] of an amount of an ingredient; None where a count says nothing. "To taste" stays a
    share.
    """
    if amount.kind == "mass":
        return amount
    if amount.kind == "volume":
        return amount.times(item.density_kg_l, "mass")
    if amount.kind == "taste":
        return amount
    return amount.times(item.each_kg, "mass") if item.each_kg else None


def read_lines(texts: Sequence[str], own: Known | None = None) -> tuple[ReadLine, ...]:
    """Read a whole list; "to taste" becomes a share of the rest.

    Raises OutOfRange for more than 300 lines.
    """
    ranges = Ranges()
    ranges.within("lines", len(texts), 0, MOST_LINES, "lines")
    ranges.close()
    read = [read_line(text, own) for text in texts]
    rest = sum(r.mass_kg.likely for r in read if r.mass_kg and r.mass_kg.kind == "mass")
    return tuple(
        (
            replace(r, mass_kg=r.mass_kg.times(rest, "mass"))
            if r.mass_kg and r.mass_kg.kind == "taste"
            else r
        )
        for r in read
    )
