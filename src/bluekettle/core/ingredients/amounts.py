"""Amounts as people write them: "1 3/4 cups", "2-3 tbsp", "½ tsp", "a knob", "to taste".

Units of mass and volume are pint's; household measures are rows of the measures table, each with
low, likely, high.
"""

from __future__ import annotations

import re
import unicodedata
from dataclasses import dataclass
from functools import cache
from typing import Any

from bluekettle.core.errors import Fault, OutOfRange, Ranges, within
from bluekettle.core.tables import row, rows

LONGEST = 200  # characters of one line
MOST_KG = 50.0  # more is a slip of the pen (design)
MOST_L = 50.0  # the same
MOST_PIECES = 500.0  # the same

# What cooks write, as pint knows it. US customary measures; a metric cup of 250 ml has to be
# written in ml.
UNIT_WORDS = {
    "g": "gram",
    "gr": "gram",
    "gram": "gram",
    "gramme": "gram",
    "kg": "kilogram",
    "kilo": "kilogram",
    "kilogram": "kilogram",
    "mg": "milligram",
    "oz": "ounce",
    "ounce": "ounce",
    "lb": "pound",
    "lbs": "pound",
    "pound": "pound",
    "ml": "milliliter",
    "millilitre": "milliliter",
    "milliliter": "milliliter",
    "cl": "centiliter",
    "dl": "deciliter",
    "l": "liter",
    "litre": "liter",
    "liter": "liter",
    "cup": "cup",
    "tbsp": "tablespoon",
    "tbs": "tablespoon",
    "tbl": "tablespoon",
    "tablespoon": "tablespoon",
    "tsp": "teaspoon",
    "teaspoon": "teaspoon",
    "pint": "pint",
    "pt": "pint",
    "quart": "quart",
    "qt": "quart",
    "gallon": "gallon",
    "floz": "fluid_ounce",
    "stick": "stick_of_butter",
}
NUMBER_WORDS = {
    "a": 1.0,
    "an": 1.0,
    "one": 1.0,
    "two": 2.0,
    "three": 3.0,
    "four": 4.0,
    "five": 5.0,  # by its word
    "six": 6.0,
    "eight": 8.0,  # by its word
    "ten": 10.0,
    "dozen": 12.0,  # by its word
    "few": 3.0,
    "couple": 2.0,
    "half": 0.5,
    "quarter": 0.25,  # by its word
}
_NUM = r"\d+\s+\d+/\d+|\d+/\d+|\d+(?:[.,]\d+)?"
# "1,000 g" is a thousand; "1,5 dl", "0,125 l" and "1,250 kg" are decimals.
_THOUSANDS = re.compile(r"\b([1-9]\d{0,2}),(\d{3})(?=\s*(?:g|grams?|mg|ml)\b)", re.I)
_TINS = re.compile(  # "2 x 400 g tins", "1 14-oz can", "2 (400 g) tins"
    rf"^(?P<n>\d+)\s*(?:x\s*|[x×]\s*|\s)\(?(?P<each>(?:{_NUM})[\s-]*(?:g|kg|oz|ounce|lb|ml|l)\b\.?)\)?[\s-]*"
    r"(?:tins?|cans?|jars?|packs?|packets?|bottles?|cartons?|bags?)\b\s*(?:of\b\s*)?",
    re.I,
)
_WORDS = "|".join(sorted(NUMBER_WORDS, key=len, reverse=True))
_RANGE = re.compile(rf"^(?P<a>{_NUM})(?:\s*(?:-|to|or)\s*(?P<b>{_NUM}))?\s*", re.I)
_WORD = re.compile(rf"^(?P<w>{_WORDS})\b\s*(?:(?:a|an|of)\b\s*)?", re.I)
_UNIT = re.compile(r"^(?P<u>[a-z]+)\b\.?\s*(?:of\b\s*)?", re.I)


@dataclass(frozen=True)
class Amount:
    """An amount with its range. kind : mass [kg], volume [L], count [pieces] or taste [share of the
    whole].
    """

    kind: str
    low: float
    likely: float
    high: float
    unit: str = ""

    def times(self, factor: float, kind: str | None = None) -> Amount:
        """The same amount, all three figures multiplied (a density or a mass per piece turns it
        into mass).
        """
        return Amount(
            kind or self.kind,
            self.low * factor,
            self.likely * factor,
            self.high * factor,
            self.unit,
        )


@cache
def registry() -> Any:
    """pint's units; loaded when the first amount is read, as it takes a third of a second."""
    import pint  # noqa: PLC0415

    return pint.UnitRegistry(cache_folder=None)


@cache
def si_of(unit: str) -> tuple[str, float]:
    """Kind and size of a unit in kg or L."""
    if unit == "stick_of_butter":
        return "mass", 0.1134  # a US stick, 4 oz
    quantity = registry()(f"1 {unit}")
    if quantity.check("[mass]"):
        return "mass", float(quantity.to("kilogram").magnitude)
    return "volume", float(quantity.to("liter").magnitude)


def singular(word: str) -> str:
    """ "cups" to "cup", "leaves" to "leaf"; words that end otherwise are left."""
    if word.endswith("ves"):
        return word[:-3] + ("f" if word != "cloves" else "ve")
    if word.endswith(("ches", "shes", "oes")):
        return word[:-2]
    return word[:-1] if word.endswith("s") and not word.endswith("ss") else word


def plain(text: str) -> str:
    """Fractions written out ("1½" to "1 1/2"), dashes and spaces made alike."""
    out = []
    for char in text:
        if unicodedata.category(char) == "No" and "⁄" in unicodedata.normalize("NFKC", char):
            out.append(" " + unicodedata.normalize("NFKC", char).replace("⁄", "/"))
        else:
            out.append("-" if char in "–—−" else char)
    return re.sub(r"\s+", " ", "".join(out)).strip()


def number(text: str) -> float:
    """Number [-] in "1 3/4", "3/4", "1.5" or "1,5"; OutOfRange for a division by nothing."""
    total = 0.0
    for part in text.split():
        top, _, bottom = part.partition("/")
        if bottom and float(bottom) == 0.0:
            raise OutOfRange([Fault("amount", text, "a fraction with something below its line")])
        total += float(top.replace(",", ".")) / (float(bottom) if bottom else 1.0)
    return total


def take_amount(text: str) -> tuple[Amount | None, str]:
    """The amount that a line begins with, and the rest of it; None where it begins with none.

    Raises
    ------
    OutOfRange
        A line of over 200 characters, or an amount outside 0 to 50 kg, 50 L or 500 pieces.

    Examples
    --------
    >>> take_amount("1 3/4 cups ketchup")[1]
    'ketchup'
    """
    ranges = Ranges()
    ranges.within("line", len(text), 0, LONGEST, "characters")
    ranges.close()
    rest = _THOUSANDS.sub(r"\1\2", plain(text))
    taste = re.search(r"\b(to taste|as needed|as you like)\b", rest, re.I)
    if taste:
        left = re.sub(r"[,;]\s*$", "", (rest[: taste.start()] + rest[taste.end() :]).strip(" ,;"))
        return household("taste", 1.0, 1.0), left
    if re.match(r"^-\s*\d", rest):
        raise OutOfRange([Fault("amount", text, "an amount of 0 or more")])
    tins = _TINS.match(rest)
    if tins:
        each, _ = take_amount(tins["each"].replace("-", " "))
        if each is not None:
            after = rest[tins.end() :]
            tin = re.search(r"(?:tin|can)s?\b", tins[0], re.I) and not after.lower().startswith(
                ("tinned", "canned")
            )
            return checked(each.times(float(tins["n"])), text), ("tinned " if tin else "") + after
    rest = re.sub(r"^half\s+a\s+dozen\b", "6", rest, flags=re.I)
    rest = re.sub(r"^a\s+(few|dozen|couple)\b(?:\s+of\b)?", r"\1", rest, flags=re.I)
    rest = re.sub(
        rf"^({_WORDS})\s+and\s+a\s+half\b",
        lambda m: f"{NUMBER_WORDS[m[1].lower()]:g} 1/2",
        rest,
        flags=re.I,
    )
    low = high = None
    found = _RANGE.match(rest)
    if found:
        low = number(found["a"])
        high = number(found["b"]) if found["b"] else low
        rest = rest[found.end() :]
    else:
        word = _WORD.match(rest)
        if word:
            low = high = NUMBER_WORDS[word["w"].lower()]
            rest = rest[word.end() :]
    if low is None or high is None:
        return None, rest
    if high < low:
        raise OutOfRange([Fault("amount", text, "a range that goes up, like 2-3")])
    unit = re.match(r"^(fl\.?\s*oz)\b\.?\s*(?:of\b\s*)?", rest, re.I) or _UNIT.match(rest)
    if unit:
        name = singular(re.sub(r"[^a-z]", "", unit[1].lower()))
        after = rest[unit.end() :]
        if name in UNIT_WORDS:
            kind, size = si_of(UNIT_WORDS[name])
            if not (name == "stick" and "butter" not in after.lower()):
                own = checked(
                    Amount(kind, low * size, 0.5 * (low + high) * size, high * size, name), text
                )
                more, left = take_amount(after) if after[:1].isdigit() else (None, after)
                if more is not None and more.kind == kind:  # "1 lb 4 oz"
                    own = checked(
                        Amount(
                            kind,
                            own.low + more.low,
                            own.likely + more.likely,
                            own.high + more.high,
                            name,
                        ),
                        text,
                    )
                    after = left
                return own, after
        if name in rows("measures") and name != "taste":
            return checked(household(name, low, high), text), after
    return checked(Amount("count", low, 0.5 * (low + high), high), text), rest


def household(name: str, low: float, high: float) -> Amount:
    """So many pinches or knobs, by their row."""
    line = row("measures", name)
    size = 1e-3 if line["unit"] in ("ml", "g") else 1.0
    figures = [float(line[part]) * size for part in ("low", "likely", "high")]
    return Amount(
        line["dimension"],
        low * figures[0],
        0.5 * (low + high) * figures[1],
        high * figures[2],
        name,
    )


def checked(amount: Amount, text: str) -> Amount:
    """The amount, where a kitchen can hold it."""
    most, unit = {"mass": (MOST_KG, "kg"), "volume": (MOST_L, "L")}.get(
        amount.kind, (MOST_PIECES, "pieces")
    )
    if not amount.high <= most or amount.low < 0.0:
        raise OutOfRange([Fault("amount", text, f"0 to {most:g} {unit}")])
    return amount


def say_amount(mass_kg: float) -> str:
    """An amount as one would write it: "312 g", below 30 g with a tenth.

    Raises OutOfRange outside 0 to 1000 kg.
    """
    within("mass_kg", mass_kg, 0.0, 1000.0, "kg")
    grams = 1e3 * mass_kg
    return f"{grams:.0f} g" if grams >= 30 else f"{grams:.1f} g" if grams >= 1 else f"{grams:.3g} g"


def say_spoons(mass_kg: float, density_kg_l: float) -> str:
    """The nearest quarter of a teaspoon, tablespoon or cup: "1 3/4 tbsp"; empty below an eighth of
    a teaspoon.

    Raises OutOfRange outside 0 to 1000 kg and 0.05 to 2 kg/L.
    """
    ranges = Ranges()
    ranges.within("mass_kg", mass_kg, 0.0, 1000.0, "kg")
    ranges.within("density_kg_l", density_kg_l, 0.05, 2.0, "kg/L")
    ranges.close()
    volume = mass_kg / density_kg_l
    # least spoons that a drawer holds
    for unit, least in (("cup", 0.25), ("tbsp", 1.0), ("tsp", 0.125)):
        count = volume / si_of(UNIT_WORDS[unit])[1]
        if count >= least - 0.01:
            whole, quarters = divmod(round(4.0 * count), 4)
            part = ("", "1/4", "1/2", "3/4")[quarters]
            words = " ".join(w for w in (str(whole) if whole else "", part) if w) or "1/8"
            # plural from the next quarter on
            return f"{words} {unit}{'s' if unit == 'cup' and count > 1.1 else ''}"
    return ""


def parse_amount(text: str) -> Amount:
    """An amount alone, like "2 1/2 tbsp" or "200 g".

    Raises OutOfRange where there is no amount, or something else behind it.
    """
    amount, rest = take_amount(text)
    if amount is None or rest.strip():
        raise OutOfRange(
            [
                Fault(
                    "amount", text, "an amount like 200 g, 1 3/4 cups, 2-3 tbsp, a knob or to taste"
                )
            ]
        )
    return amount
