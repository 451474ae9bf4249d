"""Posts through a stack: which length closes on it, how much packing, and battens before and behind where
there are some."""

from __future__ import annotations

from typing import Annotated, Final

from pleat.core.base.cautions import KNIFE
from pleat.core.base.fields import LengthRule, NumberRule
from pleat.core.base.plan import Changes, Check, Count, Figure, Offer, Piece, Rule, Step, signature
from pleat.core.base.words import many
from pleat.core.engines.holes.places import folded
from pleat.core.pleats.binding.punched import gear
from pleat.core.pleats.binding.punched.capacity import GROUP
from pleat.core.pleats.binding.punched.record import Bored, Clamp, Gear, PunchedResult, Usual, bore
from pleat.core.pleats.binding.punched.work import PunchedSpec, result
from pleat.core.pleats.binding.result import LeftOfBinding
from pleat.core.trade.holes import POST_TAKES, POSTS_SOLD_MM

SAW: Final = (
    "Saw and drill: clamp the batten, a scrap under it, hands behind the tool and eyes covered; "
    "follow the tool's own instructions."
)


class Posted(Gear):
    """Posts: how many, how thick, how long; the shortest that closes where that is not said."""

    count: Annotated[int, NumberRule("posts", 2, 4, whole=True)] = 2
    post_mm: Annotated[float, LengthRule("a post's thickness", 2, 15, fine=True)] = 5.0
    length_mm: Annotated[float, LengthRule("a post's length inside", 2, 150)] | None = None


def usual(binding: Posted, edge: float) -> Usual:
    rule = Rule("quarter_points", "two posts at the quarter points, found by folding a strip; no source")
    return Usual(
        folded(edge, binding.count),
        binding.post_mm + 0.5,
        12.0,
        rule,
        "Each post in the middle of its share of the edge, as a folded strip shows it.",
    )


def battens(binding: Posted) -> float:
    """Both battens' thickness in mm; 0 where there are none."""
    return 2 * float(getattr(binding, "batten_mm", 0.0))


def lengths(bored: Bored) -> list[tuple[float, Changes, str]]:
    """(length, changes, name) of the posts one may take, the shortest first: those among the materials and
    those that are sold."""
    ruler = bored.left.brief.ruler
    own = [
        (
            hardware.inner_mm,
            gear.taken(key, hardware, ("binding.length_mm", hardware.inner_mm)),
            hardware.name,
        )
        for key, hardware in gear.owned(bored, "post")
    ]
    there = {mm for mm, _, _ in own}
    sold = [
        (mm, gear.usual(("binding.length_mm", mm)), f"posts of {ruler.show(mm)}")
        for mm in POSTS_SOLD_MM
        if mm not in there
    ]
    return sorted([*own, *sold], key=lambda row: row[0])


def compute(binding: Posted, left: LeftOfBinding) -> PunchedResult:
    """Where the posts are, how long, and what packs them."""
    bored, ruler = bore(binding, left, lambda edge: usual(binding, edge)), left.brief.ruler
    thick = bored.stack + battens(binding)
    can = lengths(bored)
    own = next((mm for mm, _, _ in can if mm >= POST_TAKES * thick - 1e-6), can[-1][0])
    length = own if binding.length_mm is None else binding.length_mm
    packing = max(0.0, length - thick)
    name = binding.gear or f"screw post, {ruler.show(length)}"
    figures = _figures(binding, bored, name, length, own)
    batten, other_batten = ("a batten, ", "and the other batten, ") if battens(binding) else ("", "")
    back = "the back cover, " if bored.covers else ""
    front = "the front cover, " if bored.covers else ""
    return result(
        bored,
        PunchedSpec(
            title=f"{binding.count} posts",
            figures=figures,
            checks=_checks(bored, length, thick, can),
            offers=_offers(bored, thick, length, can),
            parts=_parts(binding, bored, name),
            steps=_battens(binding, bored),
            hang=(
                "Screw the posts together",
                f"On the lower halves of the posts go {batten}{back}the leaves in order, {front}"
                f"{other_batten}with {ruler.thin(packing)} of packing under the back. Screw all of them "
                "hand tight, then once more.",
                (name, "screwdriver or coin"),
                8,
            ),
            what="batten" if battens(binding) else "post",
            clamp=Clamp(
                bored.stack - bored.covers,
                bored.covers / 2,
                battens(binding) / 2,
                packing,
                length,
                binding.post_mm,
            ),
            thick_mm=binding.post_mm,
            sticks_mm=battens(binding) / 2,
            look="no leaf slips when the posts are tight",
            more=(name, f"{packing:.1f}"),
        ),
    )


def _figures(binding: Posted, bored: Bored, name: str, length: float, own: float) -> tuple[Figure, ...]:
    """The post, what is packed under it, and what it goes through; ``own`` is the shortest that does."""
    ruler, thick = bored.left.brief.ruler, bored.stack + battens(binding)
    packing = max(0.0, length - thick)
    return (
        Figure(
            key="post",
            label="posts",
            value=length,
            show="length",
            how="The stack is "
            f"{ruler.thin(thick)}{_all_of(binding, bored)}. "
            f"A post closes on at most its length ÷ {POST_TAKES:g}: the shortest that does is "
            f"{ruler.show(own)}.",
            rules=(
                Rule("POST_TAKES", "paper gives about 3 %; no source"),
                Rule("arithmetic", "stack, covers and battens"),
            ),
            aside=f"{many(binding.count, 'post')}",
            scrap=f"{binding.count} posts of {ruler.show(length)}",
        ),
        Figure(
            key="packing",
            label="packing",
            value=packing,
            show="thin",
            how=f"Post {ruler.thin(length)} − stack {ruler.thin(thick)}: so much scrap card goes under the "
            f"back, or as many leaves may still be added ({_more(bored, packing)}). Without it the book "
            "rattles.",
            rules=(Rule("arithmetic", "the rest of the post"),),
        ),
        gear.figure(
            name,
            binding.count,
            f"A post of {ruler.thin(binding.post_mm)} in holes of {ruler.thin(bored.hole)}.",
        ),
    )


def _more(bored: Bored, packing: float) -> str:
    each = bored.left.pages.thickness.likely / max(bored.left.pages.leaves, 1)
    return many(int(packing / each + 1e-9), "leaf", "leaves")


def _checks(
    bored: Bored, length: float, thick: float, can: list[tuple[float, Changes, str]]
) -> tuple[Check, ...]:
    """D8: a post too short for the stack; one much too long; leaves that do not turn where they are
    clamped."""
    ruler = bored.left.brief.ruler
    fits = [
        Offer(label=f"take {name}", changes=changes)
        for mm, changes, name in can
        if mm >= POST_TAKES * thick - 1e-6 and abs(mm - length) > 0.01
    ]
    if length < POST_TAKES * thick - 1e-6:
        what = f"Posts of {ruler.show(length)} do not close on {ruler.thin(thick)}."
        why = f"They take at most {ruler.thin(length / POST_TAKES)}; the screw finds no thread beyond that."
        return (
            Check(
                code="D8",
                level="stop",
                title=what,
                why=why,
                offers=tuple(fits[:2]),
                no_fix="" if fits else "No post is so long: make two books of it.",
            ),
        )
    if length > thick + max(5.0, 0.5 * thick):
        what = f"Posts of {ruler.show(length)} are {ruler.thin(length - thick)} too long."
        return (
            Check(
                code="D8",
                level="watch",
                title=what,
                why="Packed with so much card the book is mostly packing.",
                offers=tuple(fits[:1]),
                no_fix="" if fits else "Add leaves, or take shorter posts.",
            ),
        )
    return ()


def _offers(
    bored: Bored, thick: float, length: float, can: list[tuple[float, Changes, str]]
) -> tuple[Offer, ...]:
    ruler = bored.left.brief.ruler
    return tuple(
        Offer(
            label=name,
            changes=changes,
            facts=(
                f"closes on up to {ruler.thin(mm / POST_TAKES)}",
                f"packing {ruler.thin(max(0.0, mm - thick))}" if mm >= POST_TAKES * thick else "too short",
            ),
            group=GROUP,
            chosen=abs(mm - length) < 0.01,
            good=POST_TAKES * thick <= mm <= thick + max(5.0, 0.5 * thick),
        )
        for mm, changes, name in can
        if mm >= 0.4 * thick
    )[:10]


def _parts(binding: Posted, bored: Bored, name: str) -> tuple[Piece, ...]:
    books = bored.left.brief.quantity
    posts = Count(key="posts", name=name, count=binding.count * books, stock=binding.stock_id or "")
    if not battens(binding):
        return (posts,)
    ruler = bored.left.brief.ruler
    wide, thick = getattr(binding, "batten_wide_mm", 20.0), battens(binding) / 2
    return (
        posts,
        Count(
            key="battens",
            name=f"batten, {ruler.show(bored.edge)} long, {ruler.show(wide)} × {ruler.thin(thick)}",
            count=2 * books,
            stock="",
        ),
    )


def _battens(binding: Posted, bored: Bored) -> tuple[Step, ...]:
    if not battens(binding):
        return ()
    ruler = bored.left.brief.ruler
    wide = getattr(binding, "batten_wide_mm", 20.0)
    holes = ", ".join(ruler.number(position) for position in bored.positions)
    return (
        Step(
            key="battens",
            title="Saw, drill and sand the battens",
            detail=f"Two, {ruler.show(bored.edge)} long and {ruler.show(wide)} wide. Holes {holes} "
            f"{ruler.name} from the head, {ruler.show(bored.inset)} from the edge, both drilled at once "
            "through the jig. Sand the ends round and wax them.",
            tools=("saw", "drill", "sandpaper"),
            needs=("jig.ready",),
            gives=("gear.ready",),
            cautions=(SAW, KNIFE),
            signature=signature(*bored.positions, bored.edge, wide),
            minutes=20,
            kind="cut",
        ),
    )


def _all_of(binding: Posted, bored: Bored) -> str:
    """What the post goes through besides the leaves, in words."""
    if battens(binding):
        return ", battens and all"
    return ", covers and all" if bored.covers else ""
