"""Screw posts through a stack, with packing where the post is too long."""

from __future__ import annotations

from typing import Final, Literal

from pleat.core.pleats.binding.punched import gear
from pleat.core.pleats.binding.punched.places import read
from pleat.core.pleats.binding.punched.posted import Posted, compute, usual


class Posts(Posted):
    """Posts through leaves and covers."""

    kind: Literal["posts"] = "posts"


KIND: Final = gear.kind(
    name="posts",
    title="screw posts",
    summary="Two to four posts screwed through the stack; leaves can be added.",
    record=Posts,
    compute=compute,
    read=read(usual),
    flat=False,
    suits=gear.suits("screw heads on the cover, leaves can be added", strength="strong"),
)
