"""From documents to what the core is asked: kitchens, sauces, and one slow heat."""

from __future__ import annotations

from bluekettle.core.errors import Fault, OutOfRange, Ranges
from bluekettle.core.ingredients import (
    ALLERGENS,
    GROUPS,
    PARTS,
    Ingredient,
    ingredient,
    ingredient_keys,
    refusal,
)
from bluekettle.core.sauce import (
    Composition,
    allergens_of,
    mix,
    sample_sauce,
    sample_sauce_keys,
    sample_sauce_lines,
)
from bluekettle.core.stages import JOBS, Kitchen, Learnt, Tendering, cut, cut_keys
from bluekettle.schemas.chain import ChainDocument
from bluekettle.schemas.dish import (
    IngredientDocument,
    KitchenDocument,
    SauceDocument,
)
from bluekettle.schemas.heating import HeatingDocument
from bluekettle.services.fits import inside_of


def known_of(documents: list[IngredientDocument]) -> dict[str, Ingredient]:
    """The cook's own ingredients by key.

    Raises OutOfRange for fractions that are not of the known parts or do not come to 1, a group or
    allergen unknown.
    """
    ranges = Ranges()
    found: dict[str, Ingredient] = {}
    for place, given in enumerate(documents):
        field = f"own.{place}"
        for part in given.fractions:
            ranges.one_of(f"{field}.fractions.{part}", part, PARTS)
        total = sum(given.fractions.values())
        ranges.within(f"{field}.fractions", total, 0.99, 1.01, "together")
        ranges.one_of(f"{field}.group", given.group, GROUPS)
        for allergen in given.allergens:
            ranges.one_of(f"{field}.allergens", allergen, ALLERGENS)
        fractions = tuple(given.fractions.get(part, 0.0) / (total or 1.0) for part in PARTS)
        found[given.key] = Ingredient(
            given.key,
            given.name,
            fractions,
            given.density_kg_l,
            "estimated",
            given.group,
            allergens=tuple(given.allergens),
        )
    ranges.close()
    return found


def kitchen_of(document: KitchenDocument) -> Kitchen:
    """The core's kitchen."""
    learnt = {k: Learnt(tuple(v.mean), tuple(v.cov), v.seen) for k, v in document.learnt.items()}
    machines = {job: machine for job, machine in document.machines.items() if job in JOBS}
    return Kitchen(
        **document.model_dump(exclude={"learnt", "machines", "gear"}),
        learnt=learnt,
        tops_c={
            job: machine.top_c for job, machine in machines.items() if machine.top_c is not None
        },
        racks_m=next((tuple(one.racks_m) for one in machines.values() if one.racks_m), ()),
        insides={
            job: inside_of(machine.inside)
            for job, machine in document.machines.items()
            if machine.inside is not None and job in JOBS
        },
        gear=None if document.gear is None else frozenset(document.gear),
        indoors=frozenset(job for job, machine in machines.items() if machine.outdoors is False),
    )


Sauce = str | SauceDocument | None


def sauce_from(sauce: Sauce) -> Composition | None:
    """A sauce as a document has it; OutOfRange names the field inside it."""
    if sauce is None:
        return None
    if isinstance(sauce, str):
        if sauce not in sample_sauce_keys():
            accepted = "null, a sauce of your own, or one of " + ", ".join(sample_sauce_keys())
            raise OutOfRange([Fault("sauce", sauce, accepted)])
        return sample_sauce(sauce)
    try:
        own = known_of(sauce.own)
        refuse_lines(sauce)
        return mix(
            sauce.name,
            [
                (own.get(line.ingredient, line.ingredient), line.mass_g / 1e3)
                for line in sauce.lines
            ],
        )
    except OutOfRange as error:
        raise OutOfRange(
            [Fault(f"sauce.{f.field}", f.given, f.accepted) for f in error.faults]
        ) from error


def refuse_lines(sauce: SauceDocument) -> None:
    """OutOfRange for what never goes into a sauce, with the reason."""
    faults = [
        Fault(f"lines.{place}.ingredient", line.ingredient, why)
        for place, line in enumerate(sauce.lines)
        if (why := refusal(line.ingredient.replace("-", " ")))
    ]
    if faults:
        raise OutOfRange(faults)


def lines_of(sauce: Sauce) -> int:
    """Ingredients that the cook measures and mixes; a bottle is none."""
    if sauce is None:
        return 0
    if isinstance(sauce, str):
        count = len(sample_sauce_lines(sauce)) if sauce in sample_sauce_keys() else 0
    else:
        count = len(sauce.lines)
    return count if count > 1 else 0


def allergens_of_sauce(sauce: Sauce) -> tuple[set[str], list[str]]:
    """Allergens that a sauce brings, and lines of which nobody knows."""
    items: list[Ingredient] = []
    unknown: list[str] = []
    if isinstance(sauce, str) and sauce in sample_sauce_keys():
        items = [ingredient(key) for key, _ in sample_sauce_lines(sauce)]
    elif isinstance(sauce, SauceDocument):
        own = known_of(sauce.own)
        keys = ingredient_keys()
        for line in sauce.lines:
            if line.ingredient in own:
                items.append(own[line.ingredient])
            elif line.ingredient in keys:
                items.append(ingredient(line.ingredient))
        unknown = list(sauce.uncounted)
    return set(allergens_of([(item, 1.0) for item in items])), unknown


def tendering_of(document: HeatingDocument, heat: str) -> Tendering:
    """The food of a heat in a slow one."""
    return Tendering(
        document.cut,
        document.mass_kg,
        document.pieces,
        document.thickness_mm,
        state=document.state,
        kitchen=kitchen_of(document.kitchen),
        heat=heat,
        release=document.release,
        liquid_l=document.liquid_l,
    )


def title_of(document: ChainDocument) -> str:
    """A short name for lists: what the cook calls it, or its cut and the first sauce on it."""
    if document.name:
        return document.name
    food = document.food.cut
    name = cut(food).name if food in cut_keys() else food
    sauces = [layer.name or name_of(layer.sauce) for layer in document.layers if layer.sauce]
    return ", ".join([name, *sauces[:1]]).capitalize()


def name_of(sauce: Sauce) -> str:
    """What a sauce is called; empty for none."""
    if sauce is None:
        return ""
    if isinstance(sauce, str):
        return sample_sauce(sauce).name if sauce in sample_sauce_keys() else sauce
    return sauce.name
