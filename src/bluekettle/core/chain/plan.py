"""What is asked for: food, the layers that go on it, and the stages it goes through; checked whole
before anything is computed.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace

from bluekettle.core.chain.heats import HeatRow, heat_keys, heat_row
from bluekettle.core.errors import MissingData, OutOfRange, Ranges
from bluekettle.core.glaze import Act
from bluekettle.core.sauce import CONTACTS, Composition
from bluekettle.core.stages import (
    RELEASES,
    SIGNS,
    WANTS,
    Cut,
    FirstHeat,
    Kitchen,
    Piece,
    Sighting,
    cut,
    cut_keys,
)
from bluekettle.core.tables import rows

THAWS = ("fridge", "cold water")
HOLDS = ("covered", "warm place", "chilled")
APART = ("shred", "bones", "portions")
DRESSINGS = ("brush", "toss", "dip", "pour")
ACTS = ("coat", "turn", "stir")
ENDS = ("minutes", "core", "bite", "colour")
LONGEST_H = 72.0  # of a wait (design)
MOST_STAGES = 40
MOST_ROUNDS = 8
MOST_SHARES = 4  # of a split (design)
MOST_HEATS = 12
SHORTEST_MIN = 0.5  # of a timer (design)
LONGEST_COATED_MIN = 60.0  # a film is looked at for so long (design)
NEVER_BOTH = "one sauce in one fire: finish with the one, dress with the other afterwards"


@dataclass(frozen=True)
class Layer:
    """Something that goes on the food: a sauce, or a dry layer (rub, sugar, leavening).

    lines : ingredients that the cook mixes, 0 for a bottle. boiled : a boil of what touched raw
    food is planned. sugar_kg_m2, spice_kg_m2 : of a dry layer, as patted on. sample : key of the
    shipped sauce that it is. syrup_line : which of its lines is broth simmered down.
    """

    id: str
    name: str
    sauce: Composition | None = None
    lines: int = 0
    contact: str = "clean"
    boiled: bool = False
    sugar_kg_m2: float = 0.0
    spice_kg_m2: float = 0.0
    leavening: bool = False
    sample: str = ""
    syrup_line: int | None = None

    @property
    def dry(self) -> bool:
        """Whether it is no sauce."""
        return self.sauce is None


@dataclass(frozen=True)
class Until:
    """What ends a heat: `by` minutes, a core temperature [°C], a bite, or the colour of the face.

    A bite is one of the cut's; with minutes besides, the timer is the cook's own and the bite is
    what is wished for.
    """

    by: str
    minutes: float | None = None
    core_c: float | None = None
    bite: str | None = None
    want: str = "amber"


@dataclass(frozen=True)
class HeatAct:
    """Something done inside a heat, at a minute of it: None for a coat once the last has set."""

    do: str
    at_min: float | None = None
    layer: str = ""


@dataclass(frozen=True)
class Stage:
    """Any stage, by its id."""

    id: str


@dataclass(frozen=True)
class Thaw(Stage):
    """Until the middle is over −1 °C, or for so many hours."""

    where: str = "fridge"
    hours: float | None = None


@dataclass(frozen=True)
class Season(Stage):
    """A dry layer, or salt alone; then it sits, in the fridge from half an hour on.

    massaged : the layer is worked in, not patted on. membrane : it is pulled off first, where the
    cut has one.
    """

    layer: str = ""
    sit_min: float = 0.0
    massaged: bool = False
    membrane: bool = False


@dataclass(frozen=True)
class Marinate(Stage):
    """In a layer, in the fridge."""

    layer: str
    hours: float


@dataclass(frozen=True)
class Heat(Stage):
    """One heat. dial in the unit of its row; None for the kitchen's own or the typical one. lies :
    how the pieces lie in it; None for as usual. cut_short : it was left for another after its
    minutes, whatever it was to end by; no check belongs after it. unforeseen : it comes for one
    that was left, so nobody switched it on before.
    """

    heat: str
    until: Until
    dial: float | None = None
    release: str | None = None
    liquid_l: float | None = None
    acts: tuple[HeatAct, ...] = ()
    coat_mm: float = 0.5
    lies: str | None = None
    cut_short: bool = False
    unforeseen: bool = False

    @property
    def ends_by(self) -> str:
        """What ends it in the end."""
        return "minutes" if self.cut_short else self.until.by


@dataclass(frozen=True)
class Drain(Stage):
    """Out of its liquid; what is kept of it goes on later."""


@dataclass(frozen=True)
class Blot(Stage):
    """Dry with paper."""


@dataclass(frozen=True)
class Rest(Stage):
    """Stand in the room."""

    minutes: float
    covered: bool = False


@dataclass(frozen=True)
class Cool(Stage):
    """Until it can be held in the hand."""


@dataclass(frozen=True)
class TakeApart(Stage):
    """Into strands, off the bone, or into portions."""

    how: str
    pieces: int | None = None


@dataclass(frozen=True)
class Dress(Stage):
    """A layer put on outside any heat."""

    layer: str
    how: str = "brush"
    mm: float = 0.5


@dataclass(frozen=True)
class Hold(Stage):
    """Kept until it is wanted."""

    how: str
    minutes: float


@dataclass(frozen=True)
class Beside(Stage):
    """Work beside the food that has to be ready for another stage."""

    name: str
    minutes: float
    ready_for: str
    hands: bool = True


@dataclass(frozen=True)
class Rounds(Stage):
    """Stages that repeat."""

    times: int
    stages: tuple[Stage, ...]


@dataclass(frozen=True)
class Share:
    """One tail of a split: how much of the food goes down it [-]."""

    share: float
    stages: tuple[Stage, ...]


@dataclass(frozen=True)
class Split(Stage):
    """The food down two to four tails of its own; nothing comes after it but the table."""

    shares: tuple[Share, ...]


@dataclass(frozen=True)
class Instead:
    """A heat that is left for another: its stage; the minutes and acts that the food had of it, 0
    where it had not begun.
    """

    stage: str
    heat: str
    had_min: float = 0.0
    acts_done: int = 0


@dataclass(frozen=True)
class Plan:
    """Food, layers, stages and the kitchen. sightings, told : by the id of the fire, signs that
    were seen under it, and coats and turns that were done. instead : heats that were left for
    others, in order (`left_for_others`).
    """

    cut: str
    mass_kg: float
    pieces: int
    thickness_mm: float
    stages: tuple[Stage, ...]
    state: str = "fridge"
    layers: tuple[Layer, ...] = ()
    kitchen: Kitchen = field(default_factory=Kitchen)
    seed: int = 1
    sightings: Mapping[str, tuple[Sighting, ...]] = field(default_factory=dict)
    told: Mapping[str, tuple[Act, ...]] = field(default_factory=dict)
    instead: tuple[Instead, ...] = ()

    def layer(self, key: str) -> Layer:
        """The layer of this id; there is one once the plan is checked."""
        return next(layer for layer in self.layers if layer.id == key)

    def piece(self) -> Piece:
        """Its food as it is bought, and its kitchen."""
        return Piece(
            self.cut,
            self.mass_kg,
            self.pieces,
            self.thickness_mm,
            state=self.state,
            kitchen=self.kitchen,
            seed=self.seed,
        )

    def check(self) -> Cut:
        """The plan's cut, once everything is in range.

        Raises
        ------
        OutOfRange
            Every fault at once, fields named as in the document.
        """
        ranges = Ranges()
        self._check_food(ranges)
        self._check_layers(ranges)
        self._check_stages(ranges)
        ranges.close()
        return cut(self.cut)

    def _check_food(self, ranges: Ranges) -> None:
        try:
            self.piece().check()
        except OutOfRange as error:
            inside = ("cut", "mass_kg", "pieces", "thickness_mm", "state")
            for fault in error.faults:
                field_ = f"food.{fault.field}" if fault.field in inside else fault.field
                ranges.add(field_, fault.given, fault.accepted)

    def _check_layers(self, ranges: Ranges) -> None:
        for key, many in Counter(layer.id for layer in self.layers).items():
            if many > 1:
                ranges.add("layers", key, "an id of its own for every layer")
        for place, layer in enumerate(self.layers):
            at = f"layers.{place}"
            ranges.one_of(f"{at}.contact", layer.contact, CONTACTS)
            ranges.within(f"{at}.sugar_kg_m2", layer.sugar_kg_m2, 0.0, 0.5, "kg/m²")
            ranges.within(f"{at}.spice_kg_m2", layer.spice_kg_m2, 0.0, 0.5, "kg/m²")
            if layer.sauce is not None and layer.sauce.water > 0.95:  # tea, not a film (design)
                ranges.add(f"{at}.sauce", layer.name, "a sauce of at least 5 % that is not water")

    def _check_stages(self, ranges: Ranges) -> None:
        every = list(every_stage(self.stages))
        if not any(isinstance(stage, Heat) for _, stage in every):
            ranges.add("stages", len(self.stages), "at least one heat")
        ranges.within("stages", len(every), 1, MOST_STAGES, "stages")
        ways = list(run_through(self.stages))
        ranges.within("stages", len(ways), 1, MOST_STAGES, "stages, each round counted")
        heats = sum(isinstance(stage, Heat) for stage in ways)
        ranges.within("stages", heats, 0, MOST_HEATS, "heats, each round counted")
        for key, many in Counter(stage.id for _, stage in every).items():
            if many > 1:
                ranges.add("stages", key, "an id of its own for every stage")
        ids = {stage.id for stage in run_through(self.stages)}
        for at, stage in every:
            check_stage(ranges, at, stage, self, ids)
        oils = {one.id for one in self.layers if one.sauce is not None and one.sauce.oils}
        one_sauce_a_fire(ranges, self.stages, "stages", [], oils)
        for at, stage in every:
            if isinstance(stage, Split) and stage is not self.stages[-1]:
                ranges.add(at, stage.id, "a split as the last stage: its tails go to the table")
        for key in self.sightings:
            if key not in ids:
                ranges.add("sightings", key, "the id of a fire")
        for key, seen in self.sightings.items():
            for place, one in enumerate(seen):
                ranges.one_of(f"sightings.{key}.{place}.sign", one.sign, SIGNS)


def every_stage(stages: Sequence[Stage], at: str = "stages") -> Iterator[tuple[str, Stage]]:
    """Every stage with its field in the document, those within rounds and tails too."""
    for place, stage in enumerate(stages):
        here = f"{at}.{place}"
        yield here, stage
        if isinstance(stage, Rounds):
            yield from every_stage(stage.stages, f"{here}.stages")
        elif isinstance(stage, Split):
            for tail, share in enumerate(stage.shares):
                yield from every_stage(share.stages, f"{here}.shares.{tail}.stages")


def paths(stages: tuple[Stage, ...], at: str = "/stages") -> dict[str, str]:
    """JSON Pointer of every stage by its id; those of rounds by the id of each round."""
    found: dict[str, str] = {}
    for place, stage in enumerate(stages):
        here = f"{at}/{place}"
        found[stage.id] = here
        if isinstance(stage, Rounds):
            for inner, path in paths(stage.stages, f"{here}/stages").items():
                found |= {f"{inner}.{turn}": path for turn in range(1, stage.times + 1)}
        elif isinstance(stage, Split):
            for tail, share in enumerate(stage.shares):
                found |= paths(share.stages, f"{here}/shares/{tail}/stages")
    return found


def ids_of(plan: Plan) -> set[str]:
    """Ids of all stages, those in rounds and tails too."""
    return {stage.id for _, stage in every_stage(plan.stages)}


def fresh_id(name: str, ids: set[str]) -> str:
    """This name, or with a number, so that no other has it."""
    numbers = ("", *(f"-{n}" for n in range(2, len(ids) + 3)))
    return next(f"{name}{number}" for number in numbers if f"{name}{number}" not in ids)


def stage_named(stages: Sequence[Stage], key: str) -> Stage | None:
    """The stage of this id, in rounds by the id of each round; None where there is none."""
    return next((stage for stage in run_through(stages) if stage.id == key), None)


def unrolled(stages: Sequence[Stage]) -> tuple[Stage, ...]:
    """The stages one after the other: each round has ids of its own, "baste.2" the second time."""
    found: list[Stage] = []
    for stage in stages:
        if isinstance(stage, Rounds):
            for turn in range(1, stage.times + 1):
                found += [replace(one, id=f"{one.id}.{turn}") for one in stage.stages]
        else:
            found.append(stage)
    return tuple(found)


def one_sauce_a_fire(
    ranges: Ranges, stages: Sequence[Stage], at: str, pending: Sequence[str], oils: set[str]
) -> list[str]:
    """Note every fire that two sauces would lie in; the layers put on since the last heat. Oil that
    is put on before it (`oils`, their layers) is no sauce.
    """
    on = list(pending)
    for place, stage in enumerate(stages):
        here = f"{at}.{place}"
        if isinstance(stage, Dress):
            on += [] if stage.layer in oils else [stage.layer]
        elif isinstance(stage, Rounds):
            on = one_sauce_a_fire(ranges, stage.stages, f"{here}.stages", on, oils)
        elif isinstance(stage, Split):
            for tail, share in enumerate(stage.shares):
                one_sauce_a_fire(ranges, share.stages, f"{here}.shares.{tail}.stages", on, oils)
        elif isinstance(stage, Heat) and stage.heat in heat_keys():
            on += [act.layer for act in stage.acts if act.do == "coat"]
            if heat_row(stage.heat).fierce is not None and len(set(on)) > 1:
                ranges.add(f"{here}.acts", ", ".join(dict.fromkeys(on)), NEVER_BOTH)
            on = []
    return on


def run_through(stages: Sequence[Stage]) -> Iterator[Stage]:
    """Every stage that the food goes through: each round apart, and every tail."""
    for stage in unrolled(stages):
        if isinstance(stage, Split):
            for share in stage.shares:
                yield from run_through(share.stages)
        else:
            yield stage


def check_stage(ranges: Ranges, at: str, stage: Stage, plan: Plan, ids: set[str]) -> None:
    """Note what is wrong with one stage."""
    layers = [layer.id for layer in plan.layers]

    def layer(field_: str, key: str, dry: bool | None = None) -> None:
        ranges.one_of(field_, key, layers)
        if key in layers and dry is not None and plan.layer(key).dry != dry:
            ranges.add(field_, key, "a dry layer" if dry else "a sauce")

    if isinstance(stage, Thaw):
        ranges.one_of(f"{at}.where", stage.where, THAWS)
        if stage.hours is not None:
            ranges.within(f"{at}.hours", stage.hours, 0.1, LONGEST_H, "h")
    elif isinstance(stage, Season):
        ranges.within(f"{at}.sit_min", stage.sit_min, 0.0, 60.0 * LONGEST_H, "min")
        if stage.layer:
            layer(f"{at}.layer", stage.layer, dry=True)
        elif stage.massaged:
            ranges.add(f"{at}.massaged", stage.massaged, "false without a layer to work in")
    elif isinstance(stage, Marinate):
        layer(f"{at}.layer", stage.layer, dry=False)
        ranges.within(f"{at}.hours", stage.hours, 0.1, LONGEST_H, "h")
    elif isinstance(stage, Heat):
        check_heat(ranges, at, stage, plan)
    elif isinstance(stage, Rest):
        ranges.within(f"{at}.minutes", stage.minutes, 0.0, 180.0, "min")
    elif isinstance(stage, TakeApart):
        ranges.one_of(f"{at}.how", stage.how, APART)
        if stage.how == "portions":
            ranges.within(f"{at}.pieces", stage.pieces or 0, plan.pieces, 60, "pieces in all")
    elif isinstance(stage, Dress):
        layer(f"{at}.layer", stage.layer, dry=False)
        ranges.one_of(f"{at}.how", stage.how, DRESSINGS)
        ranges.within(f"{at}.mm", stage.mm, 0.1, 2.0, "mm")
    elif isinstance(stage, Hold):
        ranges.one_of(f"{at}.how", stage.how, HOLDS)
        ranges.within(f"{at}.minutes", stage.minutes, 1.0, 60.0 * LONGEST_H, "min")
    elif isinstance(stage, Beside):
        ranges.within(f"{at}.minutes", stage.minutes, 0.5, 60.0 * LONGEST_H, "min")
        ranges.one_of(f"{at}.ready_for", stage.ready_for, tuple(ids - {stage.id}))
    elif isinstance(stage, Rounds):
        ranges.within(f"{at}.times", stage.times, 1, MOST_ROUNDS, "rounds")
        if any(isinstance(one, Rounds | Split) for one in stage.stages):
            ranges.add(f"{at}.stages", stage.id, "plain stages: rounds and splits do not nest")
    elif isinstance(stage, Split):
        whole = sum(share.share for share in stage.shares)
        ranges.within(f"{at}.shares", len(stage.shares), 2, MOST_SHARES, "tails")
        ranges.within(f"{at}.shares", whole, 0.99, 1.01, "together")
        for tail, share in enumerate(stage.shares):
            ranges.within(f"{at}.shares.{tail}.share", share.share, 0.05, 0.95)
    elif not isinstance(stage, Drain | Blot | Cool):
        ranges.add(at, type(stage).__name__, "a known kind of stage")


def check_heat(ranges: Ranges, at: str, stage: Heat, plan: Plan) -> None:
    """Note what is wrong with one heat."""
    ranges.one_of(f"{at}.heat", stage.heat, heat_keys())
    if stage.heat not in heat_keys():
        return
    row = heat_row(stage.heat)
    if stage.dial is not None:
        ranges.within(f"{at}.dial", stage.dial, row.dial_low, row.dial_high, row.dial_unit)
    if stage.release is not None:
        ranges.one_of(f"{at}.release", stage.release, RELEASES)
        if row.body != "pot" or row.slow is None:
            ranges.add(f"{at}.release", stage.release, "null: only a pressure pot is released")
    if stage.liquid_l is not None:
        ranges.within(f"{at}.liquid_l", stage.liquid_l, 0.0, 6.0, "L")
        if row.slow is None or not row.slow.takes_liquid:
            ranges.add(f"{at}.liquid_l", stage.liquid_l, f"null: no liquid in the {row.name}")
    if stage.lies is not None:
        check_lying(ranges, f"{at}.lies", stage.lies, row, plan)
    if row.slow is not None and row.slow.takes_liquid:
        check_vessel(ranges, row.slow, plan.kitchen)
    check_until(ranges, f"{at}.until", stage, plan)
    ranges.within(f"{at}.coat_mm", stage.coat_mm, 0.1, 2.0, "mm")
    check_inside(ranges, at, stage)
    before = 0.0
    for place, act in enumerate(stage.acts):
        field_ = f"{at}.acts.{place}"
        ranges.one_of(f"{field_}.do", act.do, ACTS)
        if act.do == "coat":
            ranges.one_of(f"{field_}.layer", act.layer, [one.id for one in plan.layers])
            if row.fierce is None:
                ranges.add(field_, "coat", f"no coat: nobody brushes inside the {row.name}")
        elif act.at_min is None:
            ranges.add(f"{field_}.at_min", None, "a minute of this heat")
        if act.at_min is not None:
            ranges.within(f"{field_}.at_min", act.at_min, before, 60.0 * LONGEST_H, "min")
            before = act.at_min


def check_lying(ranges: Ranges, at: str, lies: str, heat: HeatRow, plan: Plan) -> None:
    """Note a way to lie that this heat does not ask for, or that this food does not have."""
    if heat.slow is None:
        ranges.add(at, lies, f"null: under a {heat.name} it lies in one layer")
        return
    ways = [key for key, line in rows("lying").items() if can_lie(line["needs"], plan)]
    ranges.one_of(at, lies, ways)


def can_lie(needs: str, plan: Plan) -> bool:
    """Whether food has what a way to lie needs: what bends can be coiled, what is frozen can lie in
    one block. MissingData for a need that no rule is known for.
    """
    if needs == "":
        return True
    if needs == "bends":
        return plan.cut in cut_keys() and cut(plan.cut).bends
    if needs == "frozen":
        return plan.state == "frozen"
    raise MissingData("needs", needs, ("", "bends", "frozen"))


def check_vessel(ranges: Ranges, heat: FirstHeat, kitchen: Kitchen) -> None:
    """Note an inside that no vessel of this heat has."""
    inside = kitchen.insides.get(heat.job)
    if inside is not None:
        field_ = f"kitchen.machines.{heat.job}.inside"
        ranges.within(field_, inside.litres, 0.5, 50.0, "L of volume")


def check_inside(ranges: Ranges, at: str, stage: Heat) -> None:
    """Note acts that this heat has no place for."""
    row = heat_row(stage.heat)
    if stage.acts and row.fierce is None and row.slow is not None and not row.slow.dry:
        ranges.add(f"{at}.acts", len(stage.acts), f"none: the {row.name} stays shut")
    if any(act.do == "coat" for act in stage.acts):
        if stage.until.by in ("core", "bite"):
            ranges.add(f"{at}.until.by", stage.until.by, "colour or minutes: a coat is looked at")
        if (stage.until.minutes or 0.0) > LONGEST_COATED_MIN:
            most = f"up to {LONGEST_COATED_MIN:g} min with a coat in it"
            ranges.add(f"{at}.until.minutes", stage.until.minutes, most)


def check_until(ranges: Ranges, at: str, stage: Heat, plan: Plan) -> None:
    """Note what is wrong with the end of one heat."""
    until, row = stage.until, heat_row(stage.heat)
    ranges.one_of(f"{at}.by", until.by, ENDS)
    if until.by == "minutes" or until.minutes is not None:
        longest = row.slow.longest_s / 60.0 if row.slow else 60.0  # as long as a fire is looked at
        least = 0.0 if stage.cut_short else SHORTEST_MIN
        ranges.within(f"{at}.minutes", until.minutes or 0.0, least, longest, "min")
    if until.by == "core":
        ranges.within(f"{at}.core_c", until.core_c or 0.0, 30.0, 99.0, "°C")
        if row.slow is None:
            wanted = f"colour or minutes: no time to a core is known for the {row.name}"
            ranges.add(f"{at}.by", until.by, wanted)
    if until.by == "bite":
        targets = tuple(cut(plan.cut).targets) if plan.cut in cut_keys() else ()
        ranges.one_of(f"{at}.bite", until.bite or "none", targets)
        if row.slow is None:
            ranges.add(
                f"{at}.by", until.by, f"colour or minutes: a {row.name} makes nothing tender"
            )
    if until.by == "colour":
        ranges.one_of(f"{at}.want", until.want, WANTS)
        if row.fierce is None:
            ranges.add(
                f"{at}.by", until.by, f"minutes, core or bite: no one looks into a {row.name}"
            )
