"""The cuts: one row each of their table, typed."""

from __future__ import annotations

from dataclasses import dataclass

from bluekettle.core.tables import Row, row, rows
from bluekettle.core.tenderness import BITES
from bluekettle.core.thermo import FoodProperties, food_properties

LEAN = 0.05  # mass fraction of fat (typical, estimated)
BONY = 0.1  # share of bone from which bones are a work of their own (typical, estimated)


@dataclass(frozen=True)
class Cut:
    """One row of the cuts table, typed. Targets are cook values [min] by bite; a bite that makes no
    sense is absent.
    """

    key: str
    name: str
    piece: str
    species: str
    shape: str
    thickness_mm: float
    thin_mm: float
    thick_mm: float
    mass_kg: float
    pieces: int
    packing: float
    juice_fraction: float
    bone_fraction: float  # bone, core and trimmings that are not eaten
    aspect: float  # length over breadth of a piece
    bones: int  # in a piece, where it is bought and counted by them; else 0
    bends: bool  # a rack or an arm can be coiled in a pot
    salted: bool  # as it is bought
    membrane: bool  # on the bone side, as it is bought
    cooked: bool  # as it is bought: what touches it has touched nothing raw
    site: str
    targets: dict[str, float]
    overdone: float
    safe_c: float
    safe_if: str  # what that temperature holds for, where not for all; amounts in braces [°C]
    pleasant_c: float | None
    release: str
    usual_heat: str  # that kitchens make it tender with, and brown it with: keys of `heats`
    usual_finish: str
    allergens: tuple[str, ...]
    fat: float  # mass fraction, raw
    food: FoodProperties

    @property
    def gate(self) -> bool:
        """Whether a thermometer gate stands before the plate (anything but vegetables)."""
        return self.species != "vegetable"

    @property
    def is_meat(self) -> bool:
        """Whether it is meat or poultry."""
        return self.species not in ("vegetable", "seafood")

    @property
    def on_the_bone(self) -> bool:
        """Whether meat is on a bone: of anything else the share is core and trimmings."""
        return self.is_meat and self.bone_fraction >= BONY

    @property
    def lean(self) -> bool:
        """Whether it has next to no fat of its own."""
        return self.fat <= LEAN

    @property
    def usual_bite(self) -> str:
        """What most want of it."""
        return "falls" if "falls" in self.targets else list(self.targets)[-1]

    def bite_words(self, bite: str) -> tuple[str, str]:
        """What a bite is called ("falls off the bone"), and what it means; of what has no bone it
        is not said to stay on one. MissingData for an unknown bite.
        """
        line = row("bites", bite)
        if self.on_the_bone:
            return line["text"], line["hint"]
        return line["bare_text"], line["bare_hint"]


_CUTS: dict[str, Cut] = {}


def cut(key: str) -> Cut:
    """The cut of this key; MissingData names the known ones."""
    if key not in _CUTS:
        _CUTS[key] = _read_cut(row("cuts", key))
    return _CUTS[key]


def _read_cut(line: Row) -> Cut:
    targets = {bite: float(line[f"c_{bite}"]) for bite in BITES if line[f"c_{bite}"]}
    parts = {name: float(line[name]) for name in ("water", "protein", "fat", "carbohydrate", "ash")}
    return Cut(
        line["key"],
        line["name"],
        line["piece"],
        line["species"],
        line["shape"],
        float(line["thickness_mm"]),
        float(line["thin_mm"]),
        float(line["thick_mm"]),
        float(line["mass_kg"]),
        int(line["pieces"]),
        float(line["packing"]),
        float(line["juice_fraction"]),
        float(line["bone_fraction"]),
        float(line["aspect"]),
        int(line["bones"] or 0),
        line["bends"] == "yes",
        line["salted"] == "yes",
        line["membrane"] == "yes",
        line["cooked"] == "yes",
        line["site"],
        targets,
        float(line["c_overdone"]),
        float(line["safe_c"]),
        line["safe_if"],
        float(line["pleasant_c"]) if line["pleasant_c"] else None,
        line["release"],
        line["usual_heat"],
        line["usual_finish"],
        tuple(line["allergens"].split()),
        parts["fat"],
        food_properties(parts),
    )


def cut_keys() -> tuple[str, ...]:
    """Keys of all cuts, in table order."""
    return tuple(rows("cuts"))
