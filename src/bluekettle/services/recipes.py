"""Recipes: read, analysed, varied, scaled, followed from bowl to plate. Keeps nothing."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence

from bluekettle.core.advice import calmers
from bluekettle.core.errors import Fault, OutOfRange
from bluekettle.core.ingredients import (
    Ingredient,
    Label,
    ReadLine,
    from_label,
    ingredient,
    ingredient_keys,
    mass_of,
    parse_amount,
    read_lines,
    say_amount,
    say_spoons,
)
from bluekettle.core.safety import USUAL_GUIDANCE
from bluekettle.core.sauce import (
    Composition,
    Ledger,
    Move,
    Source,
    allergens_of,
    factor_for_coats,
    factor_for_meat,
    factor_for_short,
    keep_ledger,
    mix,
    plate_contact,
    salt_of,
    scale,
    simmer,
    sources_of,
    thickness_of,
    vary,
)
from bluekettle.core.stages import finish_kind, ladder
from bluekettle.core.units import percent
from bluekettle.schemas.dish import IngredientDocument, KitchenDocument, SauceDocument, SauceLine
from bluekettle.schemas.forecast import GlazePublic
from bluekettle.schemas.sauce import (
    AllergenPublic,
    AnalyseCreate,
    AnalysisPublic,
    CalmerPublic,
    FlowPublic,
    KnownIngredient,
    KnownIngredients,
    LabelCreate,
    LedgerCreate,
    LedgerPublic,
    LinePublic,
    LinesCreate,
    LinesPublic,
    MoveDocument,
    OnDishCreate,
    OwnPublic,
    PortionPublic,
    RangePublic,
    RecipeCreate,
    SaltByPublic,
    SaltPublic,
    SauceCreate,
    ScaleCreate,
    ScaledLinePublic,
    ScaledPublic,
    SharePublic,
    SimmeredPublic,
    StopPublic,
    VariantCreate,
    VariantPublic,
)
from bluekettle.services.dishes import kitchen_of, known_of
from bluekettle.services.forecasts import plain_glaze

LEAST_KG = 1e-5
Line = tuple[Ingredient, float]


def read_recipe(recipe: RecipeCreate | SauceCreate) -> tuple[tuple[ReadLine, ...], list[Line], str]:
    """The lines as read, those that count, and what is missing in words."""
    texts = [line for line in recipe.lines if line.strip()]
    read = read_lines(texts, known_of(recipe.own))
    usable = [
        (line.ingredient, line.mass_kg.likely)
        for line in read
        if line.ingredient and line.mass_kg and counts(line)
    ]
    lost = len(read) - len(usable)
    gap = f"{lost} of {len(read)} lines {'is' if lost == 1 else 'are'} not counted" if lost else ""
    return read, usable, gap


def counts(line: ReadLine) -> bool:
    """Whether a line enters the sums."""
    return line.usable and line.mass_kg is not None and line.mass_kg.likely >= LEAST_KG


def line_public(line: ReadLine) -> LinePublic:
    """One line."""
    mass = line.mass_kg
    grams = None
    if mass is not None:
        grams = RangePublic(
            low=round(mass.low * 1e3, 3),
            likely=round(mass.likely * 1e3, 3),
            high=round(mass.high * 1e3, 3),
        )
    item = line.ingredient
    return LinePublic(
        text=line.text,
        key=item.key if item else None,
        name=item.name if item else None,
        mass_g=grams,
        problem=line.problem,
        suggestions=list(line.suggestions),
        unknown=line.unknown,
    )


def shares(found: Sequence[Source]) -> list[SharePublic]:
    """The largest eight sources."""
    return [
        SharePublic(
            key=s.key, name=s.name, mass_g=round(s.mass_kg * 1e3, 2), share=round(s.share, 4)
        )
        for s in found[:8]
    ]


def nothing(recipe: RecipeCreate | SauceCreate, read: Sequence[ReadLine]) -> OutOfRange:
    """No line counts: every one is named."""
    faults = [
        Fault(f"lines.{i}", line.text, line.problem or "an amount of at least 0.01 g")
        for i, line in enumerate(read)
    ]
    return OutOfRange(
        faults[:20] or [Fault("lines", recipe.lines, "at least one line like 200 g ketchup")]
    )


def analyse(recipe: AnalyseCreate) -> AnalysisPublic:
    """What a recipe comes to, and how it behaves.

    Raises
    ------
    OutOfRange
        Where not one line can be counted; otherwise the lines that cannot stay in the answer,
        marked.
    """
    read, lines, gap = read_recipe(recipe)
    if not lines:
        raise nothing(recipe, read)
    raw = mix(recipe.name, lines)
    done = simmer(raw, recipe.simmer.minutes, recipe.simmer.power_w) if recipe.simmer else None
    sauce = done.sauce if done else raw
    simmered = None
    if done:
        simmered = SimmeredPublic(
            yield_g=round(sauce.mass_kg * 1e3, 1),
            yield_ml=round(sauce.volume_l * 1e3, 1),
            heat_up_min=round(done.heat_up_min, 1),
            gone_g=round(done.gone_kg * 1e3, 1),
            catches=done.catches,
        )
    salt = (
        None
        if recipe.meat_kg is None
        else salt_public(recipe, raw.salt * raw.mass_kg, recipe.meat_kg)
    )
    rungs, dials = rungs_of(sauce, recipe.kitchen, recipe.coat_mm, recipe.want)
    browning = sources_of("browning", lines)
    low, high = (
        sum(getattr(r.mass_kg, end) for r in read if r.usable and r.mass_kg)
        for end in ("low", "high")
    )
    calm = (
        calmers(lines, kitchen_of(recipe.kitchen), recipe.coat_mm, sauce.water if done else None)
        if rungs and sauce.caramelises
        else ()
    )
    return AnalysisPublic(
        name=recipe.name,
        lines=[line_public(line) for line in read],
        gap=gap,
        yield_g=round(sauce.mass_kg * 1e3, 1),
        yield_low_g=round(low * 1e3, 1),
        yield_high_g=round(high * 1e3, 1),
        yield_ml=round(sauce.volume_l * 1e3, 1),
        parts=parts_of(sauce),
        sugars=round(sauce.sugars, 4),
        thickness=thickness_of(sauce, lines),
        allergens=[
            AllergenPublic(name=name, brought_by=list(by))
            for name, by in allergens_of(lines).items()
        ],
        allergens_unknown=uncounted(read),
        sugars_from=shares(sources_of("sugars", lines)),
        salt_from=shares(sources_of("salt", lines)),
        browning_from=shares(browning),
        simmered=simmered,
        salt=salt,
        ladder=rungs,
        dials=dials,
        burns_first=burns_first(sauce, browning),
        calm=[CalmerPublic(do=c.do, later_s=round(c.later_s)) for c in calm],
    )


def salt_public(recipe: AnalyseCreate, salt_kg: float, meat_kg: float) -> SaltPublic:
    """Salt of the meat from this recipe and those beside it, each for so much meat.

    Raises OutOfRange where a recipe beside it has no line that counts.
    """
    sources = [(recipe.name, recipe.kind, salt_kg)]
    for place, other in enumerate(recipe.beside):
        _, lines, _ = read_recipe(other)
        if not lines:
            raise OutOfRange(
                [Fault(f"beside.{place}.lines", other.lines, "at least one line that can be read")]
            )
        mixed = mix(other.name, lines)
        share = meat_kg / other.for_kg if other.for_kg else 1.0
        sources.append((other.name, other.kind, mixed.salt * mixed.mass_kg * share))
    found = salt_of([(kind, salt) for _, kind, salt in sources], meat_kg)
    by = [
        SaltByPublic(name=name, likely_share=salt_of([(kind, salt)], meat_kg).likely_share)
        for name, kind, salt in sources
    ]
    return SaltPublic(
        all_share=found.all_share,
        likely_share=found.likely_share,
        usual_low=found.usual_low,
        usual_high=found.usual_high,
        verdict=found.verdict,
        by=by,
    )


def as_lines(lines: Sequence[Line], sauce: Composition, raw: Composition) -> list[SauceLine]:
    """The lines of a dish document. What simmered away leaves the most watery lines."""
    gone = raw.mass_kg - sauce.mass_kg
    water = sum(item.share("water") * mass for item, mass in lines)
    found: dict[str, float] = {}
    for item, mass in lines:
        left = mass - (gone * item.share("water") * mass / water if water else 0.0)
        found[item.key] = found.get(item.key, 0.0) + left
    return [
        SauceLine(ingredient=key, mass_g=round(mass * 1e3, 3))
        for key, mass in found.items()
        if mass >= LEAST_KG
    ]


def parts_of(sauce: Composition) -> dict[str, float]:
    """Mass fractions by part."""
    names = ("water", "sucrose", "glucose", "fructose", "other", "protein", "fat", "salt", "acid")
    return {name: round(getattr(sauce, name), 4) for name in names}


def rungs_of(
    sauce: Composition, kitchen: KitchenDocument, coat_mm: float, want: str
) -> tuple[list[GlazePublic], list[str]]:
    """The ladder as strips with the dial of each in words; none for what runs off the food."""
    if sauce.water > 0.95:
        return [], []
    found = ladder(sauce, kitchen_of(kitchen), coat_mm, want)
    dials = []
    for rung in found:
        dial = (
            f"{rung.dial * 100:.0f} cm below"
            if finish_kind(rung.finish).dial == "rack_m"
            else f"{rung.dial:.0f} °C"
        )
        dials.append(f"{rung.name}, {dial}")
    return [plain_glaze(rung, want) for rung in found], dials


def burns_first(sauce: Composition, browning: Sequence[Source]) -> str:
    """One sentence on what makes it burn."""
    if not sauce.caramelises:
        return "Too little sugar to caramelise; it browns by its protein and can still scorch."
    names = [f"{s.name} ({percent(s.share)})" for s in browning[:3] if s.share >= 0.1]
    fruit = sauce.fructose / max(sauce.sugars, 1e-9)
    kind = (
        f"; {percent(fruit)} of its sugar is fructose, the first to brown" if fruit >= 0.25 else ""
    )
    text = f"{' and '.join(names)} set{'s' if len(names) == 1 else ''} the pace of browning{kind}."
    return text[0].upper() + text[1:]


def variant(request: VariantCreate) -> VariantPublic:
    """A variant with its own analysis."""
    read, lines, _ = read_recipe(request)
    if not lines:
        raise nothing(request, read)
    made = vary(request.variant, lines)
    texts = [f"{say_amount(mass)} {item.name}" for item, mass in made.lines]
    base = request.model_dump(exclude={"variant", "lines"})
    analysis = analyse(AnalyseCreate.model_validate({**base, "lines": texts}))
    return VariantPublic(
        variant=request.variant,
        changes=list(made.changes),
        stays=list(made.stays),
        lines=texts,
        analysis=analysis,
    )


def scale_recipe(request: ScaleCreate) -> ScaledPublic:
    """A scaled recipe.

    Raises
    ------
    OutOfRange
        A field that `by` needs and that is missing, or a figure out of range.
    """
    read, lines, gap = read_recipe(request)
    if not lines:
        raise nothing(request, read)
    factor = factor_of(request, read, sum(mass for _, mass in lines), mix(request.name, lines))
    made = scale(request.kind, lines, factor, request.liquid_l)
    return ScaledPublic(
        factor=round(factor, 4),
        total_g=round(made.mass_kg * 1e3, 2),
        gap=gap,
        lines=[
            ScaledLinePublic(
                text=f"{say_amount(line.to_kg)} {line.ingredient.name}",
                spoons=say_spoons(line.to_kg, line.ingredient.density_kg_l),
                name=line.ingredient.name,
                from_g=round(line.from_kg * 1e3, 3),
                to_g=round(line.to_kg * 1e3, 3),
                law=line.law,
            )
            for line in made.lines
        ],
    )


def need(request: ScaleCreate, *fields: str) -> list[float]:
    """The values of fields that may not be missing; OutOfRange names all that are."""
    missing = [f for f in fields if getattr(request, f) is None]
    if missing:
        raise OutOfRange([Fault(f, "", f"a value, when scaling by {request.by}") for f in missing])
    return [float(getattr(request, f)) for f in fields]


def factor_of(
    request: ScaleCreate, read: Sequence[ReadLine], mass_kg: float, sauce: Composition
) -> float:
    """The factor that the request asks for."""
    if request.by == "meat":
        return factor_for_meat(*need(request, "for_kg", "meat_kg"))
    if request.by == "servings":
        old, new = need(request, "for_servings", "servings")
        return new / old
    if request.by == "factor":
        return need(request, "factor")[0]
    if request.by == "coats":
        surface, coats = need(request, "surface_m2", "coats")
        coat = request.coat_mm * sauce.mass_kg / sauce.volume_l
        return factor_for_coats(mass_kg, surface, int(coats), coat, request.table_g / 1e3)
    place = int(need(request, "line")[0])
    if not request.have:
        raise OutOfRange([Fault("have", "", "what there is of it, like 3 tbsp or 120 g")])
    if place >= len(read) or not read[place].usable:
        raise OutOfRange(
            [Fault("line", place, "the place of a line that could be read, counted from 0")]
        )
    item, mass = read[place].ingredient, read[place].mass_kg
    assert item is not None and mass is not None  # noqa: PT018
    have = mass_of(parse_amount(request.have), item)
    if have is None or have.kind != "mass":
        raise OutOfRange([Fault("have", request.have, f"grams or spoons of {item.name}")])
    return factor_for_short(mass.likely, have.likely)


def for_dish(request: OnDishCreate) -> SauceDocument:
    """A recipe as a dish holds it: in grams, simmered where it says so, with what its portion
    touched on the way and the lines that nobody could read.

    Raises OutOfRange where not one line can be counted, or a step of its ledger cannot be taken.
    """
    read, lines, _ = read_recipe(request)
    if not lines:
        raise nothing(request, read)
    raw = mix(request.name, lines)
    done = simmer(raw, request.simmer.minutes, request.simmer.power_w) if request.simmer else None
    sauce = done.sauce if done else raw
    used = as_lines(lines, sauce, raw)
    keys = {line.ingredient for line in used}
    return SauceDocument(
        name=request.name,
        lines=used,
        own=[item for item in request.own if item.key in keys],
        sauce_id=request.sauce_id,
        contact=plate_contact(followed(sauce.mass_kg, request.moves)),
        uncounted=uncounted(read),
    )


def uncounted(read: Sequence[ReadLine]) -> list[str]:
    """Lines that do not count: nobody can say what allergens they bring."""
    return [line.text[:200] for line in read if not counts(line)]


def followed(batch_kg: float, moves: Sequence[MoveDocument]) -> Ledger:
    """A batch followed through its steps."""
    steps = [
        Move(m.kind, m.portion, m.to, None if m.mass_g is None else m.mass_g / 1e3) for m in moves
    ]
    return keep_ledger(batch_kg, steps)


def ledger(request: LedgerCreate) -> LedgerPublic:
    """The contact ledger of a batch."""
    found = followed(request.batch_g / 1e3, request.moves)
    return LedgerPublic(
        portions=[
            PortionPublic(name=p.name, mass_g=round(p.mass_kg * 1e3, 2), contact=p.contact)
            for p in found.portions
        ],
        flows=[
            FlowPublic(
                place=f.place,
                source=f.source,
                target=f.target,
                mass_g=round(f.mass_kg * 1e3, 2),
                contact=f.contact,
            )
            for f in found.flows
        ],
        served_g=round(found.served_kg * 1e3, 2),
        stops=[
            StopPublic(place=s.place, portion=s.portion, why=s.why, boil_min=round(s.boil_min, 1))
            for s in found.stops
        ],
        guidance=USUAL_GUIDANCE,
    )


def own_from_label(request: LabelCreate) -> OwnPublic:
    """An ingredient from a label; it is not kept, but goes into the `own` of a recipe."""
    key = "own-" + "".join(c if c.isascii() and c.isalnum() else "-" for c in request.name.lower())[
        :50
    ].strip("-")
    label = Label(
        request.serving_g,
        request.sugars_g,
        request.sodium_mg,
        request.protein_g,
        request.fat_g,
        request.carbohydrate_g,
    )
    made = from_label(key.rstrip("-"), request.name, label, request.order, request.density_kg_l)
    parts = ("water", "sucrose", "glucose", "fructose", "other", "protein", "fat", "salt", "acid")
    document = IngredientDocument(
        key=made.key,
        name=made.name,
        fractions=dict(zip(parts, made.fractions, strict=True)),
        density_kg_l=made.density_kg_l,
        group=made.group,
        allergens=list(made.allergens),
    )
    kinds = (
        "kinds of sugar guessed in equal parts"
        if not request.order
        else f"kinds of sugar from {', '.join(request.order[:4])}"
    )
    says = (
        f"{percent(made.sugars)} sugars, {percent(made.share('salt'))} salt,"
        f" {percent(made.share('water'))} water; {kinds}."
    )
    return OwnPublic(ingredient=document, says=says)


def read_list(request: LinesCreate) -> LinesPublic:
    """Lines of a plain text or CSV list, and the same as CSV."""
    if request.format == "text":
        lines = [line.strip() for line in request.content.splitlines() if line.strip()]
    else:
        try:
            rows = [
                row
                for row in csv.reader(io.StringIO(request.content), strict=True)
                if any(cell.strip() for cell in row)
            ]
        except csv.Error as error:
            raise OutOfRange(
                [
                    Fault(
                        "content",
                        request.content[:80],
                        f"CSV with columns amount and ingredient ({error})",
                    )
                ]
            ) from error
        if rows and rows[0][0].strip().lower() == "amount":
            rows = rows[1:]
        lines = [" ".join(cell.strip() for cell in row[:2] if cell.strip()) for row in rows]
    if len(lines) > 300:
        raise OutOfRange([Fault("content", f"{len(lines)} lines", "up to 300 lines")])
    return LinesPublic(lines=lines, csv=lines_csv(lines))


def lines_csv(lines: Sequence[str]) -> str:
    """A list as CSV: amount, ingredient, grams as read, problem."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(["amount", "ingredient", "mass_g", "problem"])
    for line in read_lines(list(lines)):
        mass = f"{line.mass_kg.likely * 1e3:.4g}" if line.mass_kg else ""
        name = line.ingredient.name if line.ingredient else ""
        amount = f"{mass} g" if mass else ""
        # What begins like a formula is not to be run by a spreadsheet.
        text = line.text if line.text[:1] not in ("=", "+", "@", "-") else "'" + line.text
        writer.writerow([amount, name or text, mass, line.problem])
    return out.getvalue()


def known_ingredients() -> KnownIngredients:
    """The table."""
    found = []
    for key in ingredient_keys():
        i = ingredient(key)
        found.append(
            KnownIngredient(
                key=key,
                name=i.name,
                group=i.group,
                sugars=round(i.sugars, 3),
                water=i.share("water"),
                salt=i.share("salt"),
                density_kg_l=i.density_kg_l,
                each=i.each,
                allergens=list(i.allergens),
            )
        )
    return KnownIngredients(ingredients=found)
