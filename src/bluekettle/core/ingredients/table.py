"""The table of ingredients, typed, and the names people call them by."""

from __future__ import annotations

import difflib
import re
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache

from bluekettle.core.tables import row, rows

PARTS = ("water", "sucrose", "glucose", "fructose", "other", "protein", "fat", "salt", "acid")
ALLERGENS = (
    "milk",
    "egg",
    "wheat",
    "soy",
    "mustard",
    "fish",
    "shellfish",
    "sesame",
    "nuts",
    "peanuts",
    "celery",
    "sulphites",
)
GROUPS = (
    "sweet",
    "fruit",
    "sour",
    "liquid",
    "dairy",
    "fat",
    "spread",
    "sauce",
    "vegetable",
    "herb",
    "spice",
    "salt",
    "thickener",
    "leaven",
    "sweetener",
)


@dataclass(frozen=True)
class Ingredient:
    """One ingredient: mass fractions [-] of PARTS, density [kg/L], and how well the row is founded.

    each, each_kg : what one piece is called, and its mass (0 where it does not come in pieces).
    pungency : 0 to 1. alcohol : mass fraction [-], counted among "other".
    """

    key: str
    name: str
    fractions: tuple[float, ...]
    density_kg_l: float
    kind: str
    group: str = "sauce"
    each: str = ""
    each_kg: float = 0.0
    pungency: float = 0.0
    allergens: tuple[str, ...] = ()
    aliases: tuple[str, ...] = ()
    alcohol: float = 0.0

    def share(self, part: str) -> float:
        """Mass fraction of one part [-]."""
        return self.fractions[PARTS.index(part)]

    @property
    def sugars(self) -> float:
        """Mass fraction of all sugars [-]."""
        return self.share("sucrose") + self.share("glucose") + self.share("fructose")


Known = Mapping[str, Ingredient]  # the cook's own ingredients by key; they stand before the table's


@cache
def ingredient(key: str) -> Ingredient:
    """The ingredient of this key; MissingData names the known ones.

    Examples
    --------
    >>> round(sum(ingredient("honey").fractions), 2)
    1.0
    """
    line = row("ingredients", key)
    return Ingredient(
        key,
        line["name"],
        tuple(float(line[part]) for part in PARTS),
        float(line["density_kg_l"]),
        line["kind"],
        line["group"],
        line["each"],
        float(line["each_g"] or 0.0) / 1e3,
        float(line["pungency"]),
        tuple(line["allergens"].split()),
        tuple(a for a in line["aliases"].split("; ") if a),
        float(line["alcohol"] or 0.0),
    )


def ingredient_keys() -> tuple[str, ...]:
    """All keys, in table order."""
    return tuple(rows("ingredients"))


def normal(name: str) -> str:
    """A name for comparison: small letters, one blank, no remarks in brackets or after a comma,
    singular words.
    """
    text = re.sub(r"\([^)]*\)", " ", name.lower())
    text = text.split(",")[0]
    words = re.findall(r"[a-zà-ÿ0-9%'-]+", text)
    return " ".join(_singular(word) for word in words)


def _singular(word: str) -> str:
    if word.endswith("ies") and len(word) > 4:  # "anchovies", but "chillies"
        return word[:-2] if word.endswith("illies") else word[:-3] + "y"
    if word.endswith(("oes", "ches", "shes")) and len(word) > 4:
        return word[:-2]
    return (
        word[:-1]
        if len(word) > 3 and word.endswith("s") and not word.endswith(("ss", "us"))
        else word
    )


@cache
def _names() -> dict[str, str]:
    found: dict[str, str] = {}
    for key in ingredient_keys():
        item = ingredient(key)
        for name in (item.name, key.replace("-", " "), *item.aliases):
            found.setdefault(normal(name.replace(",", " ")), key)
    for (
        key
    ) in ingredient_keys():  # "apple, chopped" is an apple, unless something else is called that
        found.setdefault(normal(ingredient(key).name), key)
    return found


def names_of(own: Known) -> dict[str, str]:
    """Every normal name and its key, the cook's own first."""
    if not own:
        return _names()
    return {**_names(), **{normal(item.name): key for key, item in own.items()}}


# Words that say how it is cut or kept, not what it is.
_MANNER = frozenset(
    [
        "fresh",
        "freshly",
        "ground",
        "grated",
        "chopped",
        "finely",
        "minced",
        "crushed",
        "sliced",
        "diced",
        "peeled",
        "large",
        "medium",
        "small",
        "big",
        "heaped",
        "level",
        "packed",
        "ripe",
        "good",
        "quality",
        "unsalted",
        "salted",
        "melted",
        "softened",
        "cold",
        "warm",
        "hot",
        "of",
        "the",
        "a",
        "an",
        "plus",
        "more",
        "some",
        "whole",
        "dried",
        "toasted",
        "sifted",
        "heaping",
        "scant",
        "about",
        "roughly",
        "loosely",
    ]
)


_JOINS = frozenset(("and", "or", "with", "plus", "in", "for", "x"))
# Words that make another thing of it: "gluten free soy sauce" is not read as soy sauce.
_LACKS = frozenset(("free", "without", "no", "only", "vegan", "zero", "low", "less", "light"))
_CURES = frozenset(("curing", "cure", "nitrite", "nitrate", "saltpetre", "saltpeter", "prague"))
CURE_REASON = (
    "curing salt is no table salt: too much of it is poisonous. It is weighed for a cure by its own"
    " recipe and never goes into a sauce or a rub by taste"
)
PINK_REASON = "pink salt can be curing salt, which is poisonous by the spoon: write what it is"


def refusal(name: str) -> str:
    """Why an ingredient is refused whatever it is taken for; empty where it is not."""
    words = set(normal(name.replace(",", " ")).split())
    if words & _CURES:
        return CURE_REASON
    if {"pink", "salt"} <= words and "himalayan" not in words:
        return PINK_REASON
    return ""


def find(name: str, own: Known | None = None) -> tuple[str | None, tuple[str, ...]]:
    """The key of an ingredient by any of its names, and, where there is none, up to three names
    that are near.
    """
    names = names_of(own or {})
    if name.startswith("tinned "):
        tinned = names.get(normal(name))
        return (tinned, ()) if tinned else find(name.removeprefix("tinned "), own)
    for written in dict.fromkeys((name.replace(",", " "), name)):
        wanted = normal(written)
        if wanted in names:
            return names[wanted], ()
    words = wanted.split()
    bare = " ".join(word for word in words if word not in _MANNER)
    if bare in names:
        return names[bare], ()
    for cut in range(
        1, len(words)
    ):  # "smooth dark plum jam" is a plum jam; "honey and soy sauce" is not soy sauce
        if any(_holds(word, names) for word in words[:cut]):
            break
        for tail in (
            " ".join(words[cut:]),
            " ".join(word for word in words[cut:] if word not in _MANNER),
        ):
            if len(tail.split()) >= 2 and tail in names:
                return names[tail], ()
    return None, _near(bare or wanted, names, own or {})


def _holds(word: str, names: dict[str, str]) -> bool:
    """Whether a word before the name may not be left out: it is something, or makes it another
    thing.
    """
    return word in names or word in _JOINS or word in _LACKS or word[:1].isdigit()


def _near(wanted: str, names: dict[str, str], own: Known) -> tuple[str, ...]:
    """Up to three names that are near. What lacks something comes last where that was not asked
    for: a slip of the pen must not take an allergen out of sight.
    """
    # how alike a suggestion is (design)
    near = difflib.get_close_matches(wanted, list(names), n=6, cutoff=0.72)
    keys = dict.fromkeys(names[n] for n in near)
    found = [own[key] if key in own else ingredient(key) for key in keys]
    usable = [item for item in found if not refusal(item.name)]
    if not _LACKS & set(wanted.split()):
        usable.sort(
            key=lambda item: bool(_LACKS & set(normal(item.name.replace(",", " ")).split()))
        )
    return tuple(item.name for item in usable[:3])
