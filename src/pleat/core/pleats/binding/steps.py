"""The bench steps of a sewing through the fold: from the station strip to the pressed book."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from pleat.core.base.cautions import AWL, KNIFE, WEIGHT
from pleat.core.base.plan import Missing, Step, signature
from pleat.core.base.scenes import Lying, Scene
from pleat.core.base.staged import clipped, marked, pierced, pressed, threaded, wrapped_round
from pleat.core.base.units import Ruler
from pleat.core.base.words import by_count, many
from pleat.core.engines.sewing.moves import SIDES
from pleat.core.engines.sewing.words import told_of
from pleat.core.pleats.binding.figures import Sewn
from pleat.core.pleats.binding.result import LeftOfBinding
from pleat.core.pleats.binding.thread import name_of

NEEDLE: Final = "Pull the needle away from your face and put it in a pad, not on the table."
STRIP_SHOWN_MM: Final = 30.0
"""How wide a station strip is drawn."""
LONGEST_PATH: Final = 24
"""Moves that are told in one sentence; a longer path stands on its step card."""


@dataclass(frozen=True)
class SewingWords:
    """What differs at the bench from one sewing to another. ``one_by_one``: sections are sewn on to the cover
    or to each other one after the other, so that nothing is clipped together. ``before`` are steps of its
    own, such as hanging up tapes; ``thread`` is what the thread is called."""

    one_by_one: bool = False
    before: tuple[Step, ...] = ()
    thread: str = "thread"


def of(sewn: Sewn, left: LeftOfBinding, words: SewingWords) -> tuple[Step, ...]:
    """Every step of it; a cover that is sewn with the leaves goes round them before anything is pierced."""
    ruler, sections = left.brief.ruler, len(left.pages.units)
    covered = left.brief.made_of.cover.sewn_through
    together = covered and not words.one_by_one
    serves = "every section" if sections > 1 else "every book"
    strip = _strip(sewn, left, "section and cover" if covered else serves)
    return (
        *((strip,) if sewn.positions_mm else ()),
        *((_cover_on(left, sections),) if together else ()),
        *((_cover_pierced(sewn, left, sections),) if covered and words.one_by_one else ()),
        _clip(left, words.one_by_one and sections > 1),
        *((_pierce(sewn, left, together),) if sewn.positions_mm else ()),
        *_notched(sewn),
        *words.before,
        _thread(sewn, left, words),
        _sew(sewn, left),
        *_knot(sewn, ruler),
        *_pressed(left, words.one_by_one),
    )


def _strip(sewn: Sewn, left: LeftOfBinding, serves: str) -> Step:
    ruler = left.brief.ruler
    marks = ", ".join(ruler.number(position) for position in sewn.positions_mm)
    return Step(
        key="strip",
        title="Make one station strip",
        detail=f"Print it true size, or fold a strip of card in the middle and mark {marks} {ruler.name} "
        f"from the head. Write HEAD on it. The same strip serves {serves}.",
        tools=("card strip", "pencil"),
        needs=("block.nested",),
        gives=("stations.marked",),
        signature=signature(*sewn.positions_mm),
        for_all=True,
        kind="measure",
        shows=lambda: marked(
            Lying("", 0.0, 0.0, STRIP_SHOWN_MM, left.pages.leaf_height_mm),
            level=sewn.positions_mm,
            kind="mark",
        ),
    )


_FORGOTTEN: Final = (
    "This stitch goes through leaves and cover together. Sewn without it, the thread has to "
    "come out again: it is the classic mistake."
)


def _cover_on(left: LeftOfBinding, sections: int) -> Step:
    return Step(
        key="cover_on",
        title="Put the cover round the section"
        if sections == 1
        else f"Put the cover round the {sections} sections",
        detail="Fold to fold, the cover standing out evenly at head and tail. It is sewn together with the "
        "leaves, so it has to be there before the first hole.",
        needs=("block.nested", "cover.scored"),
        gives=("cover.on",),
        missing=Missing(
            slip="D1",
            words="the cover is not round the section",
            why=_FORGOTTEN,
            done="the cover is on, tick it",
            undo="untick, and put the cover on",
        ),
        kind="nest",
        shows=lambda: wrapped_round(sections, left.pages.leaf_width_mm),
    )


def _cover_pierced(sewn: Sewn, left: LeftOfBinding, sections: int) -> Step:
    return Step(
        key="cover_pierced",
        title=f"Pierce the cover's spine: {many(sections, 'row')} of {len(sewn.positions_mm)}",
        detail="Lay the printed spine template on the cover, outside up, HEAD to head, and pierce every "
        "cross. Each section is sewn through its own row, the first one next to the front.",
        tools=("awl", "spine template", "thick pad"),
        needs=("stations.marked", "cover.scored"),
        gives=("cover.on",),
        minutes=1 + 0.3 * len(sewn.positions_mm) * sections,
        cautions=(AWL,),
        signature=signature(sections, *sewn.positions_mm),
        missing=Missing(
            slip="D1",
            words="the cover is not pierced",
            why=_FORGOTTEN,
            done="the cover is pierced, tick it",
            undo="untick, and pierce the cover",
        ),
        kind="pierce",
        shows=lambda: pierced(
            left.pages.leaf_width_mm,
            left.pages.leaf_height_mm,
            sewn.positions_mm,
            "cover",
            [(row - (sections - 1) / 2) * left.pages.thickness.likely / sections for row in range(sections)],
        ),
    )


def _clip(left: LeftOfBinding, each: bool) -> Step:
    what = "each section" if each else "everything"
    return Step(
        key="clip",
        title="Align and clip",
        detail=f"Knock {what} up to the fold and the head, then clip both sides so that nothing moves.",
        tools=("clips",),
        needs=("block.nested", "block.pressed", "cover.on"),
        gives=("block.clipped",),
        shows=lambda: clipped(left.pages.leaf_width_mm, left.pages.leaf_height_mm, "leaf"),
        kind="nest",
    )


def _pierce(sewn: Sewn, left: LeftOfBinding, covered: bool) -> Step:
    """Through the sections, and through the cover where its holes are not there already."""
    covered = covered and sewn.binding.cover_holes_mm is None
    sections = len(left.pages.units)
    rows = "Every section has a row of holes of its own across the spine, as drawn on the cover. "
    inside = sewn.binding.pierce == "inside"
    how = (
        "Lay the strip in the fold, HEAD to head, and pierce each mark straight through the fold from the "
        "inside."
        if inside
        else "Lay the strip along the back of the fold, HEAD to head, and pierce each mark from the outside, "
        "straight towards the middle of the fold; the burr hides inside. Look that every hole comes out on "
        "the fold line."
    )
    where = " and cover" if covered else ""
    which = "" if sections == 1 or not covered else rows
    return Step(
        key="pierce",
        title=f"Pierce {many(len(sewn.positions_mm), 'hole')} through "
        f"{by_count(sections, 'section', 'each section')}{where}",
        detail=f"{which}{how}",
        tools=("awl", "station strip", "trough or thick pad"),
        needs=("stations.marked", "block.clipped", "cover.on"),
        gives=("block.pierced",),
        shows=lambda: pierced(left.pages.leaf_width_mm, left.pages.leaf_height_mm, sewn.positions_mm, "leaf"),
        minutes=2 + 0.5 * len(sewn.positions_mm) * sections,
        pieces=sections,
        cautions=(AWL,),
        signature=signature(*sewn.positions_mm) if inside else signature("outside", *sewn.positions_mm),
        kind="pierce",
        set_up=2,
    )


def _notched(sewn: Sewn) -> tuple[Step, ...]:
    """A notch wherever the path goes round head or tail, so that it does not slip off the fold."""
    edges = {0.0: "head", len(sewn.positions_mm) + 1.0: "tail"}
    round_ = sorted(
        {
            edges[move.at]
            for thread in sewn.sewing.threads
            for move in thread
            if move.do == "pass" and move.at in edges
        }
    )
    if not round_:
        return ()
    return (
        Step(
            key="notch",
            title=f"Notch the fold at {' and '.join(round_)}",
            detail="A small V across the fold, 2 to 3 mm deep, through cover and leaves together: the loop "
            "lies in it and does not slip off.",
            tools=("small scissors or knife",),
            needs=("block.clipped", "cover.on"),
            gives=("fold.notched",),
            cautions=(KNIFE,),
            signature=signature(*round_),
            kind="cut",
        ),
    )


def _thread(sewn: Sewn, left: LeftOfBinding, words: SewingWords) -> Step:
    ruler, times = left.brief.ruler, sewn.need.cuts * left.brief.quantity
    each = ruler.snap_up(sewn.need.each_mm)
    wax = (
        " Wax it if it is not waxed."
        if words.thread == "thread" and sewn.binding.thread.waxed == "no"
        else ""
    )
    needle = (
        "Thread the needle."
        if words.thread == "thread"
        else "Draw it through with a bodkin, or stiffen its end with a turn of tape."
    )
    on = " Cut the next length when the one before runs out." if len(sewn.need.pieces_mm) > 1 else ""
    repeated = "" if times == 1 else f", {times} times"
    thread = "double" if sewn.binding.strands == 2 else "single"
    return Step(
        key="thread",
        title=f"Cut {ruler.show(each)} of {words.thread}{repeated}",
        detail=f"{name_of(sewn.binding.thread)}, taken {thread}.{wax}{on} {needle}",
        tools=("scissors", "needle"),
        gives=("thread.cut",),
        signature=signature(sewn.need.total_mm, sewn.binding.strands),
        for_all=True,
        kind="cut",
        shows=lambda: threaded(each),
    )


def _sew(sewn: Sewn, left: LeftOfBinding) -> Step:
    ruler, sections = left.brief.ruler, len(left.pages.units)
    suits = left.brief.made_of.binding.suits
    each = (suits.minutes if suits else 10) * (0.4 + 0.12 * len(sewn.positions_mm))
    by_itself = sewn.need.threads == sections > 1
    if by_itself:
        title = f"Sew {many(sections, 'time')}, section by section"
    elif sections == 1:
        title = "Sew"
    else:
        title = f"Sew {sections} sections with one thread"
    if len(sewn.sewing.threads) > sections:
        title = f"Sew {len(sewn.sewing.threads)} ties"
    own = "Each section through its own row of holes with its own thread. " if by_itself else ""
    return Step(
        key="sew",
        title=title,
        detail=f"{own}{_path(sewn, ruler)} Pull along the fold, not across it.{_knots(sewn)}",
        tools=("needle",),
        needs=("block.pierced", "cover.on", "thread.cut", "supports.ready", "board.pierced", "fold.notched"),
        gives=("block.sewn",),
        fixes=(
            "pages.*",
            "binding.*",
            *(("cover.*",) if left.brief.made_of.cover.sewn_through or _bare_boards(left) else ()),
        ),
        minutes=1 + each * sections,
        pieces=sections,
        cautions=(NEEDLE,),
        signature=_way(sewn),
        kind="sew",
        shows=lambda: _SEWN,
    )


def _bare_boards(left: LeftOfBinding) -> bool:
    """Whether the thread catches boards that nothing covers: those have no other step in which they are
    fixed."""
    cover = left.brief.made_of.cover
    return cover.boards and "covering" not in cover.roles


def _way(sewn: Sewn) -> str:
    """What the path is known by; that of one section by its holes and side, as books of older formats have it
    ticked."""
    threads = sewn.sewing.threads
    if len(threads) == sewn.sections and threads[0][-1].what == "over":
        return signature(tuple(int(move.at) for move in threads[0] if move.do == "pass"), threads[0][0].side)
    moves = ",".join(
        [f"{do[0]}{row}.{at:g}{side[0]}{what}" for thread in threads for do, row, at, side, what, _ in thread]
    )
    return signature(moves)


def _path(sewn: Sewn, ruler: Ruler) -> str:
    """The way of the first thread in one sentence, or as much of it as can be kept in mind."""
    thread = sewn.sewing.threads[0]
    tail = f"a tail of {ruler.show(sewn.binding.tail_mm)}" if sewn.binding.tail_mm else ""
    begin, *shown = told_of(sewn.sewing.bed, thread[: LONGEST_PATH + 1], tail)
    if len(thread) <= LONGEST_PATH + 1 and _tied_after(sewn):
        shown = shown[:-1]
    more = (
        ""
        if len(thread) <= LONGEST_PATH + 1
        else " … and on like this, section by section: the step card has every hole, and the sewing page "
        "shows it move by move."
    )
    return f"{begin[0].upper()}{begin[1:]}: {'; '.join(shown)}.{more}"


def _knots(sewn: Sewn) -> str:
    knots = len(sewn.need.pieces_mm) - 1
    return (
        f" Knot on a new length {many(knots, 'time')}, always inside a fold just after the needle came in."
        if knots
        else ""
    )


def _tied_after(sewn: Sewn) -> bool:
    """Whether the tails are tied in a step of their own."""
    return sewn.sewing.threads[0][-1].what in ("over", "tail")


_SEWN: Final = Scene(kind="sew")


def _knot(sewn: Sewn, ruler: Ruler) -> tuple[Step, ...]:
    start, tie = sewn.sewing.threads[0][0], sewn.sewing.threads[0][-1]
    side = (
        start.side
        if sewn.sewing.bed.rows[0].sides == SIDES
        else f"in {sewn.sewing.bed.rows[0].side(start.side)}"
    )
    square = "a square knot: left over right, then right over left"
    at_hole = f" at hole {tie.at:g}" if tie.at >= 1 else ""
    how = {
        "over": f"Bring the two tails to opposite sides of the long stitch at hole {tie.at:g} and tie them "
        f"over it, {side}, with {square}.",
        "tail": f"Tie the two tails with {square}, {side}{at_hole}.",
        "knot": "Tie a stopper knot hard against the last hole, and look that every stitch lies close.",
    }.get(tie.what, "Pull the last half hitch tight, and look that every stitch lies close.")
    title = "Tie the tails" if tie.what in ("over", "tail") else "Tie off"
    trim = (
        f"Leave about {ruler.show(15)}."
        if start.side == "inside"
        else f"Leave them long if something is to hang from them, else about {ruler.show(15)}."
    )
    return (
        Step(
            key="knot",
            title=title,
            detail=how,
            needs=("block.sewn",),
            gives=("thread.tied",),
            kind="sew",
            shows=lambda: _SEWN,
        ),
        Step(
            key="tails",
            title="Trim the tails",
            detail=trim,
            tools=("scissors",),
            needs=("thread.tied",),
            gives=("thread.trimmed",),
            kind="tidy",
            shows=lambda: _SEWN,
        ),
    )


def _pressed(left: LeftOfBinding, open_spine: bool) -> tuple[Step, ...]:
    """A fold is creased again; sections sewn one by one are squared up, for a bone folder would chafe their
    thread. A block that is ``hung`` into its cover is pressed before that, so that it can be measured."""
    hung, pages = left.brief.made_of.cover.hung, left.pages
    square = (
        "Square it up",
        "Close it, knock spine and head level on the table, and look that no section stands out.",
        (),
    )
    crease = (
        "Crease again",
        "Close the book and run the bone folder along the spine: sewing has opened the fold a little.",
        ("bone folder",),
    )
    title, detail, tools = square if open_spine else crease
    return (
        Step(
            key="crease",
            title=title,
            detail=detail,
            tools=tools,
            needs=("thread.trimmed",),
            gives=("book.creased",),
            kind="fold",
            shows=lambda: clipped(pages.leaf_width_mm, pages.leaf_height_mm, "leaf"),
        ),
        Step(
            key="press_block" if hung else "press_book",
            title="Press the sewn block" if hung else "Press the book",
            detail="Under a weight, overnight if you can.",
            tools=("boards and a weight",),
            needs=("book.creased",),
            gives=("block.flat",) if hung else ("book.bound",),
            wait_minutes=480,
            cautions=(WEIGHT,),
            kind="press",
            weights=True,
            shows=lambda: pressed(pages.leaf_width_mm, pages.thickness.likely),
        ),
    )
