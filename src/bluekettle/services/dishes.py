"""From a dish document to the core's Dish."""

from __future__ import annotations

from bluekettle.core.errors import Fault, OutOfRange, Ranges
from bluekettle.core.ingredients import ALLERGENS, GROUPS, PARTS, Ingredient
from bluekettle.core.sauce import Composition, mix, sample_sauce, sample_sauce_keys
from bluekettle.core.stages import JOBS, Dish, Kitchen, Learnt, Sighting, cut, cut_keys
from bluekettle.schemas.dish import DishDocument, IngredientDocument, KitchenDocument
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
        racks_m=tuple(machines["broiler"].racks_m) if "broiler" in machines else (),
        insides={
            job: inside_of(machine.inside)
            for job, machine in document.machines.items()
            if machine.inside is not None and job in JOBS
        },
        gear=None if document.gear is None else frozenset(document.gear),
    )


def sauce_of(document: DishDocument) -> Composition | None:
    """The sauce of a document; OutOfRange names the field inside it."""
    sauce = document.sauce
    if sauce is None:
        return None
    if isinstance(sauce, str):
        if sauce not in sample_sauce_keys():
            accepted = "null, a sauce of your own, or one of " + ", ".join(sample_sauce_keys())
            raise OutOfRange([Fault("sauce", sauce, accepted)])
        return sample_sauce(sauce)
    try:
        own = known_of(sauce.own)
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


def dish_of(document: DishDocument) -> Dish:
    """The core's dish. All faults of sauce and dish are gathered and raised once."""
    faults: list[Fault] = []
    sauce = None
    try:
        sauce = sauce_of(document)
    except OutOfRange as error:
        faults.extend(error.faults)
    dish = Dish(
        document.cut,
        document.mass_kg,
        document.pieces,
        document.thickness_mm,
        document.state,
        document.tenderise,
        document.bite,
        document.release,
        document.liquid_l,
        document.timer_min,
        document.finish,
        document.want,
        sauce,
        document.coats,
        document.coat_mm,
        None if document.coats_min is None else tuple(document.coats_min),
        tuple(document.flips_min),
        kitchen_of(document.kitchen),
        document.seed,
        tuple(Sighting(s.sign, s.at_s) for s in document.sightings),
    )
    try:
        dish.check()
    except OutOfRange as error:
        # A sauce that could not be read says nothing about the coats.
        faults.extend(f for f in error.faults if not (faults and f.field == "coats"))
    if faults:
        raise OutOfRange(faults)
    return dish


def title_of(document: DishDocument) -> str:
    """A short name for lists: cut and sauce."""
    name = cut(document.cut).name if document.cut in cut_keys() else document.cut
    sauce = document.sauce
    if sauce is None:
        return f"{name}, plain".capitalize()
    if isinstance(sauce, str):
        sauce_name = sample_sauce(sauce).name if sauce in sample_sauce_keys() else sauce
    else:
        sauce_name = sauce.name
    return f"{name}, {sauce_name}".capitalize()
