"""What each ingredient is made of, what people call it, how they write amounts of it, and what a
label says.

Knows the table, names, amounts and labels; knows nothing of mixing.
"""

from bluekettle.core.ingredients.amounts import Amount, parse_amount, say_amount, say_spoons
from bluekettle.core.ingredients.label import Label, from_label
from bluekettle.core.ingredients.lines import MOST_LINES, ReadLine, mass_of, read_line, read_lines
from bluekettle.core.ingredients.table import (
    ALLERGENS,
    GROUPS,
    PARTS,
    Ingredient,
    Known,
    find,
    ingredient,
    ingredient_keys,
    refusal,
)

__all__ = [
    "ALLERGENS",
    "GROUPS",
    "MOST_LINES",
    "PARTS",
    "Amount",
    "Ingredient",
    "Known",
    "Label",
    "ReadLine",
    "find",
    "from_label",
    "ingredient",
    "ingredient_keys",
    "mass_of",
    "parse_amount",
    "read_line",
    "read_lines",
    "refusal",
    "say_amount",
    "say_spoons",
]
