"""What the Stove page says at each step: one sentence, what the button says, and a line more.

The words stand in the table `step_words`; here their blanks are filled from the dish and its plan.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from bluekettle.core.chain import heat_keys, heat_row
from bluekettle.core.errors import MissingData
from bluekettle.core.safety import HOLD_C as HOLD_ABOVE_C
from bluekettle.core.stages import (
    Evidence,
    FinishKind,
    FirstHeat,
    StepPlan,
    cut,
    figure,
    finish_kind,
    first_heat,
)
from bluekettle.core.tables import row, rows
from bluekettle.core.units import amount
from bluekettle.schemas.cook import HeatFactsPublic
from bluekettle.schemas.dish import MachineDocument, SauceDocument
from bluekettle.schemas.heating import HeatingDocument

THICKEST = "thickest place, not touching bone"


@dataclass(frozen=True)
class Words:
    """What is said at a step: the sentence, the wide button, and one line more."""

    says: str
    button: str
    detail: str


def minutes_text(time_s: float) -> str:
    """ "57 min", "1 h 31 min"."""
    total = round(time_s / 60.0)
    if total < 60:
        return f"{total} min"
    hours, rest = divmod(total, 60)
    return f"{hours} h {rest} min" if rest else f"{hours} h"


def stopwatch_text(time_s: float) -> str:
    """ "1:08" """
    total = round(time_s)
    return f"{total // 60}:{total % 60:02d}"


def pieces_text(document: HeatingDocument) -> str:
    """ "the 6 ribs", "the head"."""
    piece = cut(document.cut).piece
    if document.pieces == 1:
        return f"the {piece}"
    return f"the {document.pieces} {piece}s"


def evidence_text(wants: Evidence | None, asked_c: float | None) -> str:
    """What a check is to show, in words."""
    if wants is None:
        return ""
    warm = f"at least {amount(asked_c, '°C')} at the {THICKEST}" if asked_c is not None else ""
    if not wants.tender:
        return f"{warm}."
    feel = "A skewer slides in without resistance"
    return f"{feel}, and {warm}." if warm else f"{feel}."


@dataclass(frozen=True)
class Step:
    """A step to be told: its plan, the first heat it belongs to, and the seconds of that heat.

    switched_on : that heat's appliance is switched on with the first act, and has no step for it.
    """

    plan: StepPlan
    heat: str
    hold_s: float
    asked_c: float | None = None
    next_act: str = ""
    switched_on: bool = True


def say(step: Step, document: HeatingDocument, facts: HeatFactsPublic, natural_s: float) -> Words:
    """Sentence, button and detail of a step.

    Raises MissingData for a step without a row in the table.
    """
    line = words_row(step)
    blanks = Blanks(step, document, facts, natural_s)
    return Words(*(line[name].format_map(blanks) for name in ("says", "button", "detail")))


def words_row(step: Step) -> Mapping[str, str]:
    """The row of the table for a step: of its own heat, of its act, or common to all."""
    plan = step.plan
    root = plan.key.rpartition(".")[2]
    if plan.who == "fire":
        root = "finish-more" if step.next_act else "finish"
    elif plan.act and plan.fire:
        root = plan.act
    table = rows("step_words")
    stem = root.rpartition("-")[0] if root.rpartition("-")[2].isdigit() else root
    for key in (f"{step.heat}/{root}", f"any/{root}", f"{step.heat}/{stem}", f"any/{stem}"):
        if key in table:
            return row("step_words", key)
    raise MissingData("step_words", f"{step.heat}/{root}", tuple(table))


class Blanks(dict[str, str]):
    """What fills the blanks of a sentence; each is made when it is asked for."""

    def __init__(
        self, step: Step, document: HeatingDocument, facts: HeatFactsPublic, natural_s: float
    ) -> None:
        super().__init__()
        self.step, self.document, self.facts, self.natural_s = step, document, facts, natural_s
        self.slow = first_heat(step.heat) if step.heat else None
        machines = document.kitchen.machines
        self.machine = machines.get(self.slow.job if self.slow else "", MachineDocument())

    @property
    def kind(self) -> FinishKind:
        """The fire; MissingData where the chain has none."""
        return finish_kind(self.document.fire)

    @property
    def first(self) -> FirstHeat:
        """The slow heat; MissingData where the step has none."""
        return first_heat(self.step.heat)

    def __missing__(self, blank: str) -> str:
        return str(getattr(self, f"blank_{blank}")())

    def blank_them(self) -> str:
        """The pieces."""
        return pieces_text(self.document)

    def blank_Them(self) -> str:  # noqa: N802
        """The pieces, at the beginning of a sentence."""
        return pieces_text(self.document).capitalize()

    def blank_label(self) -> str:
        """What the step is called on the line."""
        return self.step.plan.label

    def blank_hot(self) -> str:
        """What hot food is kept above."""
        return amount(HOLD_ABOVE_C, "°C")

    def blank_thickest(self) -> str:
        """Where it is tried."""
        if self.document.pieces == 1:
            return f"the {cut(self.document.cut).piece} in the middle"
        return f"the thickest {cut(self.document.cut).piece}"

    def blank_liquid(self) -> str:
        """How much liquid."""
        return amount(self.facts.liquid_l or self.first.liquid_l, "L")

    def blank_timer(self) -> str:
        """The timer as the machine shows it."""
        hold_s = self.step.hold_s
        if self.machine.display == "hours":
            return f"{int(hold_s // 3600)}:{int(hold_s // 60) % 60:02d} on its clock"
        return minutes_text(hold_s)

    def blank_half(self) -> str:
        """Half of the time."""
        return minutes_text(0.5 * self.step.hold_s)

    def blank_dial(self) -> str:
        """What the first heat is set to."""
        return amount(self.facts.target_c, "°C")

    def blank_setting(self) -> str:
        """The word on its dial, where it has words and one of them is meant."""
        if not self.first.settings:
            return ""
        stated = getattr(self.document.kitchen, self.first.dial)
        name = self.first.setting_at(figure(self.first.dial).typical if stated is None else stated)
        return f", {name}" if name else ""

    def blank_press(self) -> str:
        """The machine's own button."""
        return f" Press “{self.machine.button}”." if self.machine.button else ""

    def blank_high(self) -> str:
        """The pressure pot's own button, or what it is usually called."""
        return f"Press “{self.machine.button}”" if self.machine.button else "Pressure high"

    def blank_counts_up(self) -> str:
        """A clock that misleads."""
        up = "It counts up after the end: that is not pressure time."
        return up if self.machine.counts_up else "Leave it."

    def blank_natural(self) -> str:
        """The longest that the pressure takes to fall."""
        return minutes_text(self.natural_s)

    def blank_evidence(self) -> str:
        """What the check wants."""
        return evidence_text(self.step.plan.evidence, self.step.asked_c)

    def blank_lift(self) -> str:
        """Where to lift it: towards the fire, or as the line says it."""
        return self.kind.lift if self.document.fierce else self.step.plan.label

    def blank_coat(self) -> str:
        """The mass of one coat."""
        return amount(self.facts.sauce_g / max(1, self.document.coats), "g")

    def blank_of_coat(self) -> str:
        """The mass of a coat that goes on right before its heat; nothing where it is not known."""
        known = self.step.plan.approach and self.document.coats and self.facts.sauce_g
        return f": {self.blank_coat()}" if known else ""

    def blank_number(self) -> str:
        """Which coat it is."""
        root = self.step.plan.key.rpartition(".")[2]
        found = [part for part in root.split("-") if part.isdigit()]
        return found[0] if found else ""

    def blank_heat(self) -> str:
        """The finish."""
        return self.kind.name

    def blank_where(self) -> str:
        """Where it browns."""
        return self.kind.where

    def blank_put(self) -> str:
        """How it goes in."""
        return self.kind.put

    def blank_put_button(self) -> str:
        """What is tapped when it is in."""
        return self.kind.button

    def blank_off(self) -> str:
        """How the heat ends."""
        return self.kind.off

    def blank_hot_thing(self) -> str:
        """What is hot now."""
        return self.kind.hot_thing

    def blank_next_act(self) -> str:
        """Out of the heat for a coat or a turn."""
        return self.step.next_act

    def blank_on(self) -> str:
        """What has to be switched on before anything else, to be hot in time."""
        if self.slow is None or not self.slow.preheat or not self.step.switched_on:
            return ""
        stated = getattr(self.document.kitchen, self.slow.dial)
        dial = amount(figure(self.slow.dial).typical if stated is None else stated, "°C")
        body = self.slow.body
        # Where food is browned too, the button is that of the finish.
        browns = any(heat_row(key).fierce for key in heat_keys() if heat_row(key).body == body)
        press = "" if browns else self.blank_press()
        return f"{row('bodies', body)['name'].capitalize()} on, {dial}.{press} "

    def blank_salting(self) -> str:
        """Frozen food, and food that goes into liquid, is not patted dry."""
        them = pieces_text(self.document)
        if cut(self.document.cut).salted:
            return f"Pat {them} dry; no salt, there is enough in it."
        if self.document.state == "frozen" or self.goes_into_liquid:
            return f"Salt {them} on all sides."
        return f"Pat {them} dry and salt all sides."

    def blank_salting_why(self) -> str:
        """A word on it."""
        if self.document.state == "frozen":
            return "Frozen food is salted as it is."
        return "" if self.goes_into_liquid else "Dry browns. Wet steams."

    @property
    def goes_into_liquid(self) -> bool:
        """Whether the food goes into liquid from here."""
        return self.slow is not None and self.slow.takes_liquid

    def blank_switch(self) -> str:
        """The finish is switched on, or turned up where it is hot already."""
        where = f"the {self.kind.name}"
        finisher = self.document.kitchen.machines.get(self.document.fire, MachineDocument())
        press = f": press “{finisher.button}”" if finisher.button else ""
        if self.slow is not None and self.slow.body == self.document.fire:
            return f"Turn {where} up now{press}."
        named = f" on {finisher.name or where}" if press else ""
        return f"Switch {where} on now{press}{named}."

    def blank_sauce_says(self) -> str:
        """The cook's own sauce, and whether it has to boil."""
        sauce = self.document.sauce
        name = sauce.name if isinstance(sauce, SauceDocument) else "sauce"
        boiled = isinstance(sauce, SauceDocument) and sauce.contact == "boiled"
        return f"Boil the {name}: a full rolling boil." if boiled else f"Mix the {name}."

    def blank_sauce_detail(self) -> str:
        """A word on it."""
        return "Clean brush, clean bowl from now on." if "Boil" in self.blank_sauce_says() else ""
