"""A device at the door."""

from __future__ import annotations

from pydantic import Field

from bluekettle.schemas.base import CreateModel, PublicModel


class SessionCreate(CreateModel):
    """The passcode, as it was told to `kettle serve`."""

    passcode: str = Field(min_length=1, max_length=200, examples=["plum and black tea"])


class SessionPublic(PublicModel):
    """Whether a passcode is asked for and was told; address and code are for another device."""

    needed: bool
    inside: bool
    address: str = Field("", description="where another device finds this kettle")
    code_svg: str = Field("", description="a QR code (SVG) with which it joins")
