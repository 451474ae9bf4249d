"""The bench steps of a structure, read off its programme: shape, score, fold, join, dry, paper, fill,
shut."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from pleat.core.base.cautions import GLUE, KNIFE, WEIGHT
from pleat.core.base.plan import Missing, Step, signature
from pleat.core.base.scenes import Lying, Scene
from pleat.core.base.staged import beside, marked
from pleat.core.base.units import Ruler
from pleat.core.base.words import by_count, joined, many
from pleat.core.engines.folding.programme import FoldOperation, LayOperation
from pleat.core.engines.folding.sheet import BODY, Piece, scores
from pleat.core.engines.folding.tasks import in_order, scored, shaped, tasks
from pleat.core.pleats.structures.cut import (
    NOT_CUT,
    by_size,
    counted,
    kind_of,
    said,
    sheets,
    sorts,
    unnumbered,
)
from pleat.core.pleats.structures.dressing import Filling
from pleat.core.pleats.structures.made import Made
from pleat.core.trade.making import FOLDED_DRIES_MINUTES


@dataclass(frozen=True)
class StructureSteps:
    """What the steps of a structure are called and wait for: the name before its states, whether a fastener
    is fixed between its papers, and the pieces that are glued on ``later``, by what holds it."""

    prefix: str
    fastened: bool = False
    later: frozenset[str] = frozenset()


def cut_out(made: Made) -> tuple[str, ...]:
    """The states of the work in which its pieces are cut; boards of leaves come before those that wait for
    the block."""
    stocks = dict.fromkeys(piece.stock for piece in sheets(made) if piece.stock not in NOT_CUT)
    return tuple("board.first" if stock == "board" else f"{stock}.cut" for stock in stocks)


def steps(made: Made, filling: Filling, ruler: Ruler, work: StructureSteps) -> tuple[Step, ...]:
    """Every step of building it, up to what lies on its faces."""
    every = {name: piece for name, (piece, _) in counted(made).items()}
    cut = cut_out(made)
    found = [
        *_shape(
            {name: piece for name, piece in every.items() if shaped(piece) and piece.stock not in NOT_CUT},
            work,
            cut,
        ),
        *_score({name: piece for name, piece in every.items() if scored(piece)}, ruler, work, cut),
        *_joins(made, work, cut),
        *_papers(made, filling, ruler, work, cut),
        *_fill(made, filling, work),
        *_set(made, filling, work),
    ]
    given = {state for step in found for state in step.gives}
    own = f"{work.prefix}."
    return tuple(
        replace(step, needs=tuple(one for one in step.needs if one in given or not one.startswith(own)))
        for step in found
    )


def _shape(pieces: Mapping[str, Piece], work: StructureSteps, cut: tuple[str, ...]) -> tuple[Step, ...]:
    if not pieces:
        return ()
    names = joined(pieces)
    kept = (
        " Keep the offcut: another piece comes out of it."
        if any(piece.offcuts for piece in pieces.values())
        else ""
    )
    return (
        Step(
            key=f"{work.prefix}_shape",
            title=f"Cut the {names} to shape",
            detail=f"Corners and slants as drawn, before anything is scored or glued.{kept} Half a card's "
            "thickness off beside a tab, so that it does not stand out once it is folded in.",
            tools=("knife", "steel rule", "mat"),
            needs=cut,
            gives=(f"{work.prefix}.shaped",),
            tags=frozenset({"cut-out"}),
            cautions=(KNIFE,),
            signature=signature(
                *(round(x, 1) for piece in pieces.values() for edge in piece.outlines for x, _ in edge)
            ),
            missing=Missing(
                slip="F4",
                words=f"the {names} {by_count(len(pieces), 'is', 'are')} not cut to shape",
                why="A corner or a slant that is cut after gluing goes through the layer below.",
                done=f"the {names} {by_count(len(pieces), 'is', 'are')} cut to shape",
                undo="not glued yet",
            ),
            kind="cut",
        ),
    )


def marks(piece: Piece, ruler: Ruler) -> str:
    """The running positions of a piece's scores from its left edge and its head, inside up.

    A piece without folds has none.
    """
    found = []
    for upright, edge in ((True, "the left edge"), (False, "the head")):
        places = scores(piece, upright=upright)
        if places:
            found.append(
                f"{', '.join(ruler.number(ruler.snap(place)) for place in places)} {ruler.name} from {edge}"
            )
    return "; ".join(found)


def _score(
    pieces: Mapping[str, Piece], ruler: Ruler, work: StructureSteps, cut: tuple[str, ...]
) -> tuple[Step, ...]:
    if not pieces:
        return ()
    listed = "; ".join(f"{name}: {marks(piece, ruler)}" for name, piece in pieces.items())
    return (
        Step(
            key=f"{work.prefix}_score",
            title=f"Score the {joined(pieces)}",
            detail=f"Inside up, all from one edge. {listed}. Then fold every score once each way and burnish "
            "it.",
            tools=("rule and scoring tool", "bone folder"),
            needs=(*cut, f"{work.prefix}.shaped"),
            gives=(f"{work.prefix}.scored",),
            signature=signature(
                *(
                    score
                    for piece in pieces.values()
                    for upright in (True, False)
                    for score in scores(piece, upright=upright)
                )
            ),
            minutes=2
            + sum(len(scores(piece)) + len(scores(piece, upright=False)) for piece in pieces.values()),
            kind="fold",
            set_up=2,
            shows=lambda: scored_pieces(tuple(pieces.values())),
        ),
    )


def scored_pieces(pieces: Sequence[Piece]) -> Scene:
    """Pieces inside up with their scores."""
    return beside(
        [
            marked(
                Lying(piece.name, 0.0, 0.0, *piece.size_mm, stock=piece.stock),
                upright=scores(piece),
                level=scores(piece, upright=False),
            )
            for piece in pieces
        ]
    )


def _joins(made: Made, work: StructureSteps, cut: tuple[str, ...]) -> list[Step]:
    """A step for each sort of joining, in an order that works, and one to let the glue dry."""
    found: list[Step] = []
    names: list[str] = []
    fixed: set[str] = set()
    for number, (sentence, (pieces, fixes)) in enumerate(_sorts_of_joining(made, work).items(), 1):
        again = f" {many(len(pieces) * made.copies, 'time')}." if len(pieces) * made.copies > 1 else ""
        first = pieces[0]
        tucked = sentence.startswith("Tuck")
        found.append(
            Step(
                key=f"{work.prefix}_join_{number}",
                title=sentence,
                detail=f"{first}Try it dry, edges level, then glue the tab or flange alone and never the "
                f"fold.{again}"
                if not tucked
                else f"{first}As far as it goes, without glue.{again}",
                tools=() if tucked else ("glue", "waste paper"),
                needs=(*cut, f"{work.prefix}.scored", f"{work.prefix}.shaped", *names[-1:]),
                gives=(f"{work.prefix}.join.{number}",),
                fixes=tuple(key for key in dict.fromkeys(fixes) if key not in fixed),
                tags=frozenset({"insert"} if tucked else {"glue"}),
                closes=() if tucked else ("leaves.flat",),
                cautions=() if tucked else (GLUE,),
                minutes=2 + 2 * len(pieces) * made.copies,
                kind="glue",
                set_up=2,
                pieces=len(pieces) * made.copies,
            )
        )
        fixed.update(fixes)
        if not tucked:
            names.append(f"{work.prefix}.join.{number}")
    return [*found, _dry(work, tuple(names))] if names else found


def _sorts_of_joining(made: Made, work: StructureSteps) -> dict[str, tuple[list[str], list[str]]]:
    """By what is said of them, in an order that works: (what is folded first, for each time; the parts that
    are fixed by it)."""
    done: dict[str, tuple[list[str], list[str]]] = {}
    folded: dict[str, list[str]] = {}
    called = {
        piece.name: name
        for name, alike in sorts(made).items()
        for piece in alike
        if piece.stock not in NOT_CUT
    }
    build = made.programme.build
    todo = tasks(made.programme)
    for number in in_order(todo):
        task = todo[number]
        one = build[task.operations[0]] if task.operations else None
        if isinstance(one, FoldOperation):
            folded.setdefault(one.piece, []).extend(
                said((kind_of(one.piece), other)) for _, other, _ in one.angles
            )
        if not isinstance(one, LayOperation) or one.laid[0].startswith("on ") or one.laid[0] in work.later:
            continue
        first = joined(folded.pop(one.laid[0], []))
        times, fixes = done.setdefault(_sentence(one), ([], []))
        times.append(f"Fold the {first} over. " if first else "")
        if one.laid[0] != one.host[0] and one.laid[0] in called:
            fixes.append(f"pages.{called[one.laid[0]]}")
    return done


def _dry(work: StructureSteps, names: tuple[str, ...]) -> Step:
    return _drying(
        f"{work.prefix}_dry",
        "Let the glue dry",
        "Flat under weight, waste paper between what must not stick.",
        names,
        (f"{work.prefix}.dry",),
    )


def _drying(key: str, title: str, detail: str, needs: tuple[str, ...], gives: tuple[str, ...]) -> Step:
    """Something glued that lies under weights until it is dry."""
    return Step(
        key=key,
        title=title,
        detail=detail,
        tools=("weight", "waste paper"),
        needs=needs,
        gives=gives,
        tags=frozenset({"glue"}),
        wait_minutes=FOLDED_DRIES_MINUTES,
        cautions=(WEIGHT,),
        minutes=1,
        kind="press",
        weights=True,
    )


def _sentence(operation: LayOperation) -> str:
    """What is joined to what: pieces by their names where there are two."""
    same = operation.laid[0] == operation.host[0]
    laid, host = (
        unnumbered(said(key) if same or key[1] == BODY else f"{said(key)} of the {key[0]}")
        for key in (operation.laid, operation.host)
    )
    if not same and laid == host:  # pieces of one sort: the next one goes into the one before
        laid = f"{laid.partition(' of the ')[0]} of each {unnumbered(operation.laid[0])}"
        host = f"{host.partition(' of the ')[0]} of the one around it"
    verb = "Tuck" if operation.by == "tuck" else "Glue"
    preposition = " under" if operation.side == "B" else " to"
    return f"{verb} the {laid}{preposition} the {host}"


def _papers(
    made: Made, filling: Filling, ruler: Ruler, work: StructureSteps, cut: tuple[str, ...]
) -> tuple[Step, ...]:
    """The papers of the faces. Where a fastener is hidden by them, that of its first half's face comes first,
    and the others once the second half is fixed on what it came down on."""
    if not filling.mats or not made.dressings:
        return ()
    count = len(made.dressings) * made.copies
    ready = (*cut, "mat.cut", f"{work.prefix}.dry", f"{work.prefix}.scored")
    first = Step(
        key=f"{work.prefix}_papers_first",
        title="Give the first half's face its paper",
        detail=f"Over the half that is fixed, a border of {ruler.show(filling.border_mm)} on each side; "
        "under weight until it is dry, for the thing is shut next.",
        tools=("glue",),
        needs=(*ready, "fastener.first"),
        gives=(f"{work.prefix}.papered.first",),
        tags=frozenset({"glue", "mat"}),
        wait_minutes=FOLDED_DRIES_MINUTES,
        cautions=(GLUE,),
        minutes=2,
        signature=signature(filling.border_mm),
        kind="decorate",
        weights=True,
    )
    return (
        *((first,) if work.fastened else ()),
        Step(
            key=f"{work.prefix}_papers",
            title="Give every other face its paper" if work.fastened else "Give every face its paper",
            detail=f"{many(count - work.fastened, 'face')}, a border of {ruler.show(filling.border_mm)} on "
            "each side; not over a fold, and not into a mouth. What has to be drawn, stamped or sewn on a "
            "paper is done before it goes on.",
            tools=("glue",),
            needs=(*ready, *(("fastener.first", "fastener.on") if work.fastened else ())),
            gives=(f"{work.prefix}.papered",),
            fixes=tuple(f"pages.paper_{letter}" for letter in by_size(made.dressings, ruler)),
            tags=frozenset({"glue", "mat"}),
            cautions=(GLUE,),
            minutes=2 * count,
            pieces=count,
            signature=signature(count, filling.border_mm),
            missing=Missing(
                slip="F4",
                words="the papers are not on the faces",
                why="What lies on a face sits on its paper: a paper that comes later lies over it.",
                done="the papers are on",
                undo="nothing is on the faces yet",
            ),
            kind="decorate",
        ),
    )


def _fill(made: Made, filling: Filling, work: StructureSteps) -> tuple[Step, ...]:
    if not made.places:
        return ()
    return (
        Step(
            key=f"{work.prefix}_fill",
            title=f"Mount {many(made.places, 'place')}",
            detail=f"{filling.title.capitalize()}, each in the middle of its place. Measure one that is "
            "done: its thickness is what the gussets were made for.",
            tools=("glue or corners",),
            needs=(f"{work.prefix}.papered", f"{work.prefix}.dry"),
            gives=(f"{work.prefix}.filled",),
            tags=frozenset({"on a mat"}),
            minutes=2 * made.places,
            pieces=made.places,
            kind="decorate",
        ),
    )


def _set(made: Made, filling: Filling, work: StructureSteps) -> tuple[Step, ...]:
    """G1: what was glued on the faces dries before anything is shut over it."""
    papers, places = filling.mats and made.dressings, bool(made.places)
    if not papers and not places:
        return ()
    what = joined(name for name, there in (("papers", papers), ("what is mounted", places)) if there)
    detail = (
        "Open, under weight, waste paper on every face: shut while the paste is wet, faces stick to "
        "each other."
    )
    needs = (f"{work.prefix}.papered", f"{work.prefix}.filled")
    return (_drying(f"{work.prefix}_set", f"Let {what} dry", detail, needs, (f"{work.prefix}.set",)),)


def closing_words(made: Made, ruler: Ruler) -> str:
    """The order in which it is shut, with the room of its gussets."""
    order = joined(group.name for group in made.programme.closing)
    rooms = ", ".join(f"{room.name} {ruler.show(room.has_mm)}" for room in made.rooms)
    return f"In this order: {order}." + (f" The gussets: {rooms}." if rooms else "")
