"""One heat of a live cook: the food as it is then, and the heat."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import Field, field_validator

from bluekettle.core.errors import MissingData
from bluekettle.core.stages import finish_keys, first_heat_keys
from bluekettle.schemas.base import PublicModel
from bluekettle.schemas.dish import KitchenDocument, SauceDocument

Json = dict[str, Any]


class HeatingDocument(PublicModel):
    """The food as it is at one heat of a chain, and that heat. One of the two is its own; null is a
    chain that has none of the kind.
    """

    cut: str
    mass_kg: float
    pieces: int
    thickness_mm: float
    state: Literal["fridge", "frozen"]
    slow: str | None = Field(description="the slow heat that it is, or that came before it")
    fierce: str | None = Field(description="the fire that it is, or that comes after it")
    bite: str = Field(description="what was wished for")
    release: str | None = None
    liquid_l: float | None = None
    sauce: SauceDocument | str | None = Field(description="of its coats")
    coats: int
    kitchen: KitchenDocument

    @field_validator("slow")
    @classmethod
    def known_slow(cls, key: str | None) -> str | None:
        """A slow heat that there is."""
        return one_of(key, first_heat_keys())

    @field_validator("fierce")
    @classmethod
    def known_fierce(cls, key: str | None) -> str | None:
        """A fire that there is."""
        return one_of(key, finish_keys())

    @property
    def fire(self) -> str:
        """Its fire; MissingData where it has none."""
        if self.fierce is None:
            raise MissingData("fire of a heat", self.slow or "", finish_keys())
        return self.fierce


def one_of(key: str | None, keys: tuple[str, ...]) -> str | None:
    """A key that is a row of its table; ValueError for others."""
    if key is not None and key not in keys:
        raise ValueError(f"one of {', '.join(keys)}")
    return key


def heating_of_dish(raw: Json) -> Json:
    """From the `kettle.dish/1` that a heat was kept as before. That named a slow heat and a fire
    whether the chain had one or not.
    """
    kept = ("cut", "mass_kg", "pieces", "thickness_mm", "state", "bite", "release", "liquid_l")
    same = {name: raw[name] for name in (*kept, "sauce", "coats", "kitchen") if name in raw}
    return {**same, "slow": raw["tenderise"], "fierce": raw["finish"]}
