"""A batten before and behind the stack, and posts through both: thin wood that keeps the held edge
straight."""

from __future__ import annotations

from typing import Annotated, Final, Literal

from pleat.core.base.fields import LengthRule
from pleat.core.pleats.binding.punched import gear
from pleat.core.pleats.binding.punched.places import read
from pleat.core.pleats.binding.punched.posted import Posted, compute, usual


class Batten(Posted):
    """Two battens with posts through them."""

    kind: Literal["batten"] = "batten"
    batten_mm: Annotated[float, LengthRule("a batten's thickness", 1, 20, fine=True)] = 4.0
    batten_wide_mm: Annotated[float, LengthRule("a batten's width", 8, 60)] = 20.0


KIND: Final = gear.kind(
    name="batten",
    title="battens and posts",
    summary="A thin batten before and behind the held edge, with posts through both.",
    record=Batten,
    compute=compute,
    read=read(usual),
    flat=False,
    suits=gear.suits("two battens along the edge", strength="strong", hard="some practice"),
)
