"""A kind of book is a block, what holds it and what covers it: each one of a registry of members, kept in the
book as its record.

A member is one module: its record, its computation and its steps. The registry is an explicit tuple in the
order members are shown; nothing else names them. A book file that names a member this Pleat does not know
keeps that record whole.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property
from typing import Any, ClassVar, Final, Generic, Literal, TypeVar

from pydantic import ConfigDict, GetCoreSchemaHandler, GetJsonSchemaHandler
from pydantic_core import CoreSchema, core_schema

from pleat.core.base.fields import Record

UnitKind = Literal["section", "leaf", "pad", "folio", "hinged", "pair", "concertina"]
"""What a block is made of: folded sheets nested in one another, single leaves, a pad that was bought; a
folded structure that is complete in itself, album leaves for hinges, two leaves and the tab between them, or
one long strip of panels."""
Edge = Literal["fold", "spine", "block", "edge", "bought", "own", "hinge", "row", "ends"]
"""Where a binding holds its units: through their folds together with a soft cover; through their folds by
themselves, with an open spine for boards or none; as a block for a case; along an edge; as it was bought; in
its own folds; on hinges for a case; side by side on a spine; or by the end panels of a strip."""
End = Literal["first", "last"]
"""An end panel of a concertina."""
Hard = Literal["first book", "some practice", "takes care"]
TAG: Final = "kind"
UNKNOWN: Final = "unknown"


class Member(Record):
    """The record of a member: its decisions, under the name of the member."""

    kind: str


class Unknown(Member):
    """The record of a member that this Pleat does not know, kept as it is."""

    model_config: ClassVar[ConfigDict] = ConfigDict(frozen=True, extra="allow")


@dataclass(frozen=True)
class Traits:
    """What a maker asks of a kind of book before anything else."""

    needle: bool = False
    glue: bool = False
    punch: bool = False
    opens_flat: bool = False
    refills: bool = False


@dataclass(frozen=True, kw_only=True)
class Suits:
    """What a binding is for, by which one is proposed and a wrong one refused: sections, the paper in mm that
    it goes through at once, and what a maker weighs. All common practice, no source.

    ``fewest`` to ``most`` sections can be held, in steps of ``every``; up to ``good_to`` it is a good choice.
    ``tough`` ones pull at their holes and want paper that is not weak. ``minutes`` are those of the hands for
    one section of five holes. ``refuses`` says why other numbers cannot be held.
    """

    fewest: int = 1
    most: int = 60
    good_to: int = 60
    every: int = 1
    thickest_mm: float = 4.0
    strength: Literal["light", "firm", "strong"] = "firm"
    hard: Hard = "first book"
    tough: bool = False
    minutes: float = 10
    look: str = ""
    refuses: str = ""

    def fits(self, sections: int) -> bool:
        return self.fewest <= sections <= self.most and sections % self.every == 0


@dataclass(frozen=True, kw_only=True)
class Kind:
    """One member: its name in book files, what makers call it, and its record.

    What it computes is added where its result is known: by ``BlockKind``, ``BindingKind``, ``CoverKind`` and
    ``ExtraKind``. ``roles`` are the stocks it uses, ``placed`` the fields that were measured on the leaf,
    which another leaf size forgets, ``described`` those that describe what was taken from the materials;
    ``unused`` says which of the roles a record does without; ``read`` takes what is typed of it that is no
    field by itself, as (record, name, text, brief).
    """

    name: str
    title: str
    summary: str
    record: type[Member]
    roles: tuple[str, ...] = ()
    placed: tuple[str, ...] = ()
    described: tuple[str, ...] = ()
    traits: Traits = Traits()
    read: Callable[..., list[tuple[str, object]] | None] | None = None
    unused: Callable[[Any], tuple[str, ...]] | None = None


@dataclass(frozen=True, kw_only=True)
class BlockMember(Kind):
    """A member of Pages: what units it makes."""

    unit: UnitKind


@dataclass(frozen=True, kw_only=True)
class BindingMember(Kind):
    """A member of Binding: the units it holds, and where. One that ``splits`` goes between the two papers of
    a leaf, which it glues together."""

    takes: frozenset[UnitKind]
    at: Edge
    splits: bool = False
    suits: Suits | None = None


@dataclass(frozen=True, kw_only=True)
class CoverMember(Kind):
    """A member of Cover: the bindings it goes with; ``sewn_through`` ones have to be there before the block
    is bound, ``boards`` are caught by the thread, and into ``hung`` ones the sewn block is hung. ``tucked``
    leaves go into the cover itself, and are no pages."""

    takes: frozenset[Edge]
    sewn_through: bool = False
    boards: bool = False
    hung: bool = False
    tucked: int = 0


K_co = TypeVar("K_co", bound=Kind, covariant=True)


@dataclass
class Registry(Generic[K_co]):
    """The members of one pleat in the order they are shown; the first is what a book has when nothing is
    said."""

    pleat: str
    members: tuple[K_co, ...]

    def find(self, name: str) -> K_co | None:
        return next((member for member in self.members if member.name == name), None)

    def of(self, record: Member) -> tuple[K_co, Member]:
        """The member of a record and the record; for one that nobody knows the first, with nothing
        decided."""
        found = self.find(record.kind)
        return (found, record) if found else (self.members[0], self.members[0].record.model_validate({}))


@dataclass(frozen=True)
class OneOf:
    """The annotation of a book's field that holds the record of one member of a registry."""

    registry: Registry[Kind]

    def _tag(self, value: object) -> str:
        name = (
            value.get(TAG, self.registry.members[0].name)
            if isinstance(value, dict)
            else getattr(value, TAG, "")
        )
        return name if isinstance(name, str) and self.registry.find(name) else UNKNOWN

    def __get_pydantic_core_schema__(self, source: object, handler: GetCoreSchemaHandler) -> CoreSchema:
        choices = {member.name: handler.generate_schema(member.record) for member in self.registry.members}
        choices[UNKNOWN] = handler.generate_schema(Unknown)
        return core_schema.tagged_union_schema(choices, discriminator=self._tag)

    def __get_pydantic_json_schema__(
        self, schema: CoreSchema, handler: GetJsonSchemaHandler
    ) -> dict[str, object]:
        """Any known member; one that nobody knows is kept, but not to be written by hand."""
        found = dict(handler(schema))
        known = [one for one in found.pop("oneOf") if not one["$ref"].endswith(f"/{Unknown.__name__}")]
        return {
            **found,
            "anyOf": known,
            "description": f"one of: {', '.join(member.name for member in self.registry.members)}",
        }


@dataclass(frozen=True)
class Chosen:
    """The members a book is made of, which every pleat may know: what is computed of them is not. ``put_in``
    are the stocks of what is put in, ``glued_ends`` are the end panels that are glued into the cover,
    ``held_along`` says whether the edge that is held runs along the height of a leaf or along its width,
    ``unused`` which of its roles a member does without as it was decided, for block, binding and cover."""

    block: BlockMember
    binding: BindingMember
    cover: CoverMember
    put_in: tuple[str, ...] = ()
    held_along: Literal["w", "h"] = "h"
    unused: tuple[tuple[str, ...], ...] = ((), (), ())
    glued_ends: tuple[End, ...] = ()

    @cached_property
    def placed(self) -> tuple[str, ...]:
        """The paths of everything that was measured on the leaf."""
        return tuple(
            f"{pleat}.{name}"
            for pleat, one in (("pages", self.block), ("binding", self.binding), ("cover", self.cover))
            for name in one.placed
        )

    @cached_property
    def roles(self) -> tuple[str, ...]:
        members = zip((self.block, self.binding, self.cover), self.unused, strict=True)
        return tuple(
            dict.fromkeys(
                (
                    *(role for kind, unused in members for role in kind.roles if role not in unused),
                    *self.put_in,
                )
            )
        )
