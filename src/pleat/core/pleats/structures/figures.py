"""The figures of a structure: what its pieces are cut to and where they are scored, the room of its gussets,
its faces, its thickness shut."""

from __future__ import annotations

import itertools
from collections.abc import Mapping

from pleat.core.base.plan import Figure, Rule
from pleat.core.base.units import Ruler
from pleat.core.base.words import a_or_an, joined, many
from pleat.core.engines.folding.sheet import Piece, scores
from pleat.core.pleats.structures.cut import NOT_CUT, by_size, counted, kind_of, said, unnumbered
from pleat.core.pleats.structures.dressing import Filling
from pleat.core.pleats.structures.made import Made
from pleat.core.pleats.structures.work import marks
from pleat.core.trade.folding import GUSSET_SPARE_SHARE


def pieces(made: Made, ruler: Ruler, times: Mapping[str, int]) -> tuple[Figure, ...]:
    """For each sort of piece its size, with the panels added up, and its running scores."""
    figures = []
    for kind, (piece, count) in counted(made).items():
        if piece.rigid:
            continue
        number = times.get(kind, count * made.copies)
        key = piece.name.replace(" ", "_")
        if piece.stock not in NOT_CUT:
            several = f", {number} of them" if number > 1 else ""
            figures.append(
                Figure(
                    key=f"cut_{key}",
                    label=f"cut the {kind}" if number == 1 else f"cut {number} × {kind}",
                    value=piece.size_mm,
                    show="size",
                    how=_sums(piece, ruler),
                    rules=(Rule("arithmetic", "panels added up"),),
                    scrap=f"{ruler.size(*piece.size_mm)}{several}",
                )
            )
        places = marks(piece, ruler)
        if places:
            figures.append(
                Figure(
                    key=f"scores_{key}",
                    label=f"score the {kind}",
                    value=places,
                    show="text",
                    how="Inside up, running from one edge, so that rounding does not pile up.",
                    rules=(Rule("arithmetic", "panel edges"),),
                    scrap=places,
                )
            )
    return tuple(figures)


def _sums(piece: Piece, ruler: Ruler) -> str:
    """The panels along each side, added up as they are shown."""
    said_ = []
    for axis, name in ((0, "Wide"), (1, "High")):
        edges = [0.0, *scores(piece, upright=axis == 0), piece.size_mm[axis]]
        sizes = [b - a for a, b in itertools.pairwise(edges)]
        if len(sizes) > 1:
            shown, whole = ruler.summed(sizes)
            said_.append(f"{name}: {' + '.join(shown)} = {whole} {ruler.name}.")
    return " ".join(said_) or "It is not folded."


def rooms(made: Made, ruler: Ruler) -> tuple[Figure, ...]:
    """Each gusset: what it is made, and what lies in it."""
    return tuple(
        Figure(
            key=f"room_{room.name.replace(' ', '_')}",
            label=room.name,
            value=room.has_mm,
            show="length",
            how=f"Between its two panels lie {ruler.thin(room.stiff.likely)} at the worst place, "
            f"{ruler.thin(room.draped.likely)} right beside the fold."
            + (
                " You chose its size."
                if room.typed
                else f" With {GUSSET_SPARE_SHARE:.0%} to spare, up to the ruler's next mark: "
                f"{ruler.show(room.has_mm)}."
            ),
            rules=(
                Rule("arithmetic", "what lies between, layer by layer"),
                Rule("GUSSET_SPARE_SHARE", "a tenth more, no source"),
            ),
            scrap=ruler.show(room.has_mm),
        )
        for room in made.rooms
    )


def faces(made: Made, fill: Filling, ruler: Ruler) -> tuple[Figure, ...]:
    """What goes on the faces: papers, places, and pockets found."""
    figures = []
    if fill.mats and made.dressings:
        sizes = by_size(made.dressings, ruler)
        listed = "; ".join(
            f"{letter}, {many(len(on) * made.copies, 'paper')} of {ruler.size(*size)}, for the "
            f"{joined(dict.fromkeys(unnumbered(said(dressing.key)) for dressing in on))}"
            for letter, (size, on) in sizes.items()
        )
        figures.append(
            Figure(
                key="papers",
                label="papers of the faces",
                value=f"{len(made.dressings) * made.copies}, of {many(len(sizes), 'size')}",
                show="text",
                how=f"Each panel less {ruler.show(fill.border_mm)} on each side, "
                f"{ruler.show(2 * fill.border_mm)} in all: {listed}.",
                rules=(Rule("arithmetic", "panel less two borders"),),
                scrap=f"{len(made.dressings) * made.copies} papers, border {ruler.show(fill.border_mm)} a "
                "side",
            )
        )
    if made.places:
        naming = fill.title if fill.title.startswith("another") else a_or_an(fill.title)
        figures.append(
            Figure(
                key="places",
                label=f"places for {naming}",
                value=f"{made.places}",
                show="text",
                how=f"A place on every face that takes {ruler.size(fill.width_mm, fill.height_mm)} either "
                f"way up with {ruler.show(fill.border_mm)} around it; each {ruler.thin(fill.thick.likely)} "
                "thick.",
                rules=(Rule("arithmetic", "whole places in rows and columns"),),
            )
        )
    for pocket in made.pockets:
        figures.append(
            Figure(
                key=f"pocket_{kind_of(said(pocket.wall)).replace(' ', '_')}",
                label=f"pocket: {said(pocket.wall)}",
                value=(pocket.throat_mm, pocket.depth_mm),
                show="size",
                how=f"Held at {joined(pocket.held)}, open at the {pocket.mouth}: "
                f"{ruler.show(pocket.throat_mm)} between what holds it, {ruler.show(pocket.depth_mm)} deep.",
                rules=(Rule("arithmetic", "the panel less its tabs"),),
            )
        )
    return tuple(figures)


def shut(made: Made, ruler: Ruler) -> Figure:
    """How thick it is when it is shut."""
    return Figure(
        key="thickness",
        label="shut, at its thickest",
        value=made.thick,
        show="thin",
        how=f"All layers over the fullest place, added up: {ruler.between(made.thick.low, made.thick.high)}. "
        "What slides into pockets is counted.",
        rules=(Rule("arithmetic", "layers over each place of the table"),),
    )
