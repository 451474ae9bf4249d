"""What can go wrong with a structure: borders, papers, places, gussets, sides of the sheet, pockets, and
folds that paper cannot make."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

from pleat.core.base.fields import NumberRule, rule_on
from pleat.core.base.plan import Changes, Check, Offer
from pleat.core.base.units import Ruler
from pleat.core.base.words import by_count, joined, many
from pleat.core.engines.folding.pile import faces
from pleat.core.pleats.paper.stocks import Stock
from pleat.core.pleats.structures.cut import said, sheets
from pleat.core.pleats.structures.dressing import Dressed, Dressing, Filling
from pleat.core.pleats.structures.made import Made, Room
from pleat.core.trade.folding import SAME_SIZE_MM, USUAL_BORDER_MM


@dataclass(frozen=True)
class CheckContext:
    """What the checks are asked about: the structure, what was decided, the path of each gusset's field, and
    the stocks of its pieces."""

    made: Made
    record: Dressed
    filling: Filling
    ruler: Ruler
    stocks: Mapping[str, Stock]
    paths: Mapping[str, str] = field(default_factory=dict)
    pleat: str = "pages"
    fits: tuple[Offer, ...] = ()
    mend: Callable[[Room, float], Changes] | None = None
    leaves: int = 0


def find(asked: CheckContext) -> tuple[Check, ...]:
    """Every check that has something to say."""
    found = [
        *_rooms(asked),
        _sum(asked),
        _through(asked),
        _border(asked),
        _one_size(asked),
        _total(asked),
        _none_fits(asked),
        _too_few(asked),
        _blank(asked),
        _way_up(asked),
    ]
    return tuple(check for check in found if check)


def _rooms(asked: CheckContext) -> list[Check]:
    """F5 and F8: a gusset smaller than what lies in it; F8 where what was closed before is part of that."""
    checks = []
    first = asked.made.programme.closing[:1]
    for room in asked.made.rooms:
        short = room.stiff.likely - room.has_mm
        if not room.typed or short <= max(asked.ruler.step_mm / 2, 0.05):
            continue
        later = not any(
            room.name in names for group in first for fold in group.folds for names in fold.angles
        )
        need = asked.ruler.show(room.proposed(asked.ruler))
        checks.append(
            Check(
                code="F8" if later else "F5",
                level="stop",
                title=f"The {room.name} of {asked.ruler.show(room.has_mm)} is too small: "
                f"{asked.ruler.thin(room.stiff.likely)} lie in it.",
                why=("What was shut before lies in it as well. " if later else "")
                + "The panel over it cannot come down flat; the fold tears, or the book gapes. Beside the "
                "fold, where soft paper drapes, it is " + f"{asked.ruler.thin(room.draped.likely)}.",
                offers=(Offer(label=f"{room.name} {need}", changes=_mended(asked, room)),),
            )
        )
    return checks


def _mended(asked: CheckContext, room: Room) -> Changes:
    """What gives a gusset the size it needs: that which it has by itself, or the drawing changed."""
    if asked.mend is not None:
        return asked.mend(room, room.proposed(asked.ruler))
    return ((asked.paths[room.name], None),)


def _sum(asked: CheckContext) -> Check | None:
    """A1: the panels of a sheet do not add up to the sheet that was cut."""
    record, ruler = asked.record, asked.ruler
    if record.cut_width_mm is None and record.cut_height_mm is None:
        return None
    sheet = max(sheets(asked.made), key=lambda piece: piece.area_mm2)
    cut = (record.cut_width_mm or sheet.size_mm[0], record.cut_height_mm or sheet.size_mm[1])
    off = [own - side for own, side in zip(cut, sheet.size_mm, strict=True)]
    if all(abs(one) <= max(ruler.step_mm, SAME_SIZE_MM) for one in off):
        return None
    amounts = [
        f"{ruler.show(side)} too much" if side > 0 else f"{ruler.show(-side)} too little" for side in off
    ]
    said_ = joined(
        f"{amount} in its {name}"
        for amount, side, name in zip(amounts, off, ("width", "height"), strict=True)
        if abs(side) > SAME_SIZE_MM
    )
    forget = ((f"{asked.pleat}.cut_width_mm", None), (f"{asked.pleat}.cut_height_mm", None))
    return Check(
        code="A1",
        level="stop" if min(off) < -SAME_SIZE_MM else "watch",
        title=f"The panels of the {sheet.name} do not add up to the sheet you cut: {said_}.",
        why=f"Panels added up: {ruler.size(*sheet.size_mm)}; the sheet: {ruler.size(*cut)}. Scored from one "
        "edge, the last panel gets all of the difference.",
        offers=(Offer(label="I will cut it anew", changes=forget),),
    )


def _through(asked: CheckContext) -> Check | None:
    """Folds that paper cannot make."""
    if not asked.made.faults:
        return None
    fault = asked.made.faults[0]
    between = joined(said(key) for key in fault.crease)
    layer = joined(dict.fromkeys(said(key) for key in fault.layer)) or "another layer"
    words = {
        "caught": f"{layer} lies in the fold between {between} and reaches past it",
        "crossed": f"two folds on one line cross at {between}",
        "through": f"{layer} would have to pass through the fold between {between}",
        "apart": f"{between} are to be joined and do not meet",
    }[fault.kind]
    return Check(
        code="F7" if fault.kind != "apart" else "A6",
        level="stop",
        title=f"It does not shut like this: {words}.",
        why=f"{many(len(asked.made.faults), 'place')} where paper would have to go through paper.",
        no_fix="Change the order in which it is shut, or the size of the panel that is in the way.",
    )


def _border(asked: CheckContext) -> Check | None:
    """A4: papers as large as their panels."""
    if not asked.filling.mats or asked.filling.border_mm >= 0.75 or not asked.made.dressings:
        return None
    return Check(
        code="A4",
        level="watch",
        title=f"A paper with a border of {asked.ruler.thin(asked.filling.border_mm)} is as large as its "
        "panel.",
        why=f"It reaches into the folds and blocks them; {asked.ruler.thin(USUAL_BORDER_MM)} on each side "
        "keeps it off.",
        offers=(
            Offer(
                label=f"a border of {asked.ruler.show(USUAL_BORDER_MM)} on each side",
                changes=(
                    (f"{asked.pleat}.border_mm", USUAL_BORDER_MM),
                    (f"{asked.pleat}.border_said", "side"),
                ),
            ),
        ),
    )


def _cut(asked: CheckContext, dressing: Dressing) -> tuple[float, float]:
    """The papers as they were cut; a side that was not typed is right."""
    return asked.record.mat_width_mm or dressing.width_mm, asked.record.mat_height_mm or dressing.height_mm


def _typed(asked: CheckContext) -> bool:
    return asked.filling.mats and (
        asked.record.mat_width_mm is not None or asked.record.mat_height_mm is not None
    )


def _forget(asked: CheckContext, label: str) -> Offer:
    return Offer(
        label=label, changes=((f"{asked.pleat}.mat_width_mm", None), (f"{asked.pleat}.mat_height_mm", None))
    )


def _is_total(asked: CheckContext) -> bool:
    """Whether the papers were cut one border smaller than some panel, and not two."""
    border = asked.filling.border_mm
    if not _typed(asked) or border < 1 or asked.record.border_said == "whole":
        return False
    return any(
        all(
            abs(cut - (size + border)) < SAME_SIZE_MM
            for cut, size in zip(_cut(asked, dressing), (dressing.width_mm, dressing.height_mm), strict=True)
        )
        for dressing in asked.made.dressings
    )


def _total(asked: CheckContext) -> Check | None:
    """A7: the border taken off once, where it stands on both sides."""
    if not _is_total(asked):
        return None
    border, ruler = asked.record.border_mm, asked.ruler
    return Check(
        code="A7",
        level="watch",
        title=f"The papers were cut {ruler.show(border)} smaller than the panel: that is a border of "
        f"{ruler.thin(border / 2)} on each side, not {ruler.show(border)}.",
        why=f"A border stands on both sides: for {ruler.show(border)} on each, {ruler.show(2 * border)} come "
        "off.",
        offers=(
            Offer(
                label=f"{ruler.show(border)} is both sides together",
                changes=((f"{asked.pleat}.border_said", "whole"),),
            ),
            _forget(asked, "I will cut them anew"),
        ),
    )


def _one_size(asked: CheckContext) -> Check | None:
    """A5: one size of paper for panels of different sizes."""
    if not _typed(asked) or _is_total(asked):
        return None
    wrong = [
        dressing
        for dressing in asked.made.dressings
        if any(
            abs(cut - size) > SAME_SIZE_MM
            for cut, size in zip(_cut(asked, dressing), (dressing.width_mm, dressing.height_mm), strict=True)
        )
    ]
    if not wrong:
        return None
    large = [
        dressing
        for dressing in wrong
        if _cut(asked, dressing)[0] > dressing.width_mm + 2 * asked.filling.border_mm
        or _cut(asked, dressing)[1] > dressing.height_mm + 2 * asked.filling.border_mm
    ]
    names = joined(list(dict.fromkeys(said(dressing.key) for dressing in (large or wrong)))[:4])
    first = wrong[0]
    larger = "It is larger than the panel. " if large else ""
    return Check(
        code="A5",
        level="stop" if large else "watch",
        title=f"One size of paper, {asked.ruler.size(*_cut(asked, first))}, does not do for "
        f"{many(len(wrong), 'face')}: {names}.",
        why=f"{larger}The {said(first.key)} takes "
        f"{asked.ruler.size(first.width_mm, first.height_mm)}; the part list names every size.",
        offers=(_forget(asked, "each face its own size"),),
    )


def _none_fits(asked: CheckContext) -> Check | None:
    """F10: what goes in is larger than every paper."""
    filling = asked.filling
    if not filling.any or asked.made.places:
        return None
    largest = max(
        asked.made.dressings, key=lambda dressing: dressing.width_mm * dressing.height_mm, default=None
    )
    room = asked.ruler.size(largest.width_mm, largest.height_mm) if largest else "nothing"
    return Check(
        code="F10",
        level="stop",
        title=f"No face takes a {filling.title}: {asked.ruler.size(filling.width_mm, filling.height_mm)} "
        "with a border around it.",
        why=f"The largest paper is {room}.",
        offers=(*asked.fits[:2], Offer(label="nothing goes in", changes=((f"{asked.pleat}.photo", "none"),))),
    )


def _too_few(asked: CheckContext) -> Check | None:
    """A6: more things than places."""
    wanted, there = asked.record.wanted, asked.made.places
    if wanted is None or not asked.filling.any or not there or wanted <= there:
        return None
    return Check(
        code="A6",
        level="stop",
        title=f"{many(wanted - there, 'thing')} of {wanted} {by_count(wanted - there, 'has', 'have')} no "
        f"place: there {by_count(there, 'is', 'are')} {there}.",
        why=f"Every face that shows takes a {asked.filling.title} where it fits with a border of "
        f"{asked.ruler.thin(asked.filling.border_mm)} around it.",
        offers=(
            *_more_leaves(asked, wanted),
            Offer(label=f"{many(there, 'place')} will do", changes=((f"{asked.pleat}.wanted", there),)),
        ),
    )


def _more_leaves(asked: CheckContext, wanted: int) -> tuple[Offer, ...]:
    """As many leaves as it takes, for what is made of leaves that are alike."""
    rule = (
        rule_on(type(asked.record).model_fields["amount"])
        if "amount" in type(asked.record).model_fields
        else None
    )
    if not isinstance(rule, NumberRule) or asked.leaves < 1:
        return ()
    leaves = -(-wanted * asked.leaves // asked.made.places)
    if leaves > rule.high:
        return ()
    return (
        Offer(
            label=f"{many(leaves, 'leaf', 'leaves')} for {many(wanted, 'place')}",
            changes=((f"{asked.pleat}.amount", leaves), (f"{asked.pleat}.counted_in", "leaves")),
        ),
    )


def _blank(asked: CheckContext) -> Check | None:
    """B9: the blank side of a one-sided sheet shows."""
    if asked.filling.mats:
        return None
    blank = [dressing for dressing in asked.made.dressings if dressing.blank]
    if not blank:
        return None
    stock = next(asked.stocks[piece.stock] for piece in sheets(asked.made) if piece.name == blank[0].key[0])
    names = joined(list(dict.fromkeys(said(dressing.key) for dressing in blank))[:4])
    both = (Offer(label="both sides will do", changes=((f"paper.{stock.key}.sides", 2),)),)
    return Check(
        code="B9",
        level="watch",
        title=f"{stock.name} is good on one side: {many(len(blank), 'face')} "
        f"show{by_count(len(blank), 's', '')} the blank one, {names}.",
        why="Folded over, a sheet shows its other side. Papers on the faces hide it, or take a sheet that is "
        "good on both.",
        offers=(Offer(label="papers on every face", changes=((f"{asked.pleat}.mats", "yes"),)), *both),
    )


def _way_up(asked: CheckContext) -> Check | None:
    """B10: a pattern with a top stands on its head or lies sideways where the shut thing shows it."""
    directed = {piece.name for piece in sheets(asked.made) if piece.directed}
    if not directed or asked.filling.mats:
        return None
    worked = asked.made.worked
    wrong = [
        face
        for above in (True, False)
        for face in faces(worked.assembly, worked.shut, above=above)
        if face.key[0] in directed and face.turn and face.share > 0.1
    ]
    if not wrong:
        return None
    how = "on its head" if abs(wrong[0].turn - 180) < 1 else "sideways"
    return Check(
        code="B10",
        level="watch",
        title=f"The pattern stands {how} on the {said(wrong[0].key)} when it is shut.",
        why=f"Folded over, that panel is turned by {wrong[0].turn:.0f} degrees. A paper on it can be put the "
        "right way up.",
        offers=(Offer(label="papers on every face", changes=((f"{asked.pleat}.mats", "yes"),)),),
    )
