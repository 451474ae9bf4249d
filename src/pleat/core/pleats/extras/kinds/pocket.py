"""A pocket on a page: with tabs on two or three sides, glued along its edges, of clear film, or an envelope;
slanted, or several in each other."""

from __future__ import annotations

from typing import Final

from pleat.core.base.cautions import GLUE
from pleat.core.base.plan import Changes, Check, Count, Figure, Offer, Rule
from pleat.core.base.units import Ruler
from pleat.core.base.words import a_or_an, joined
from pleat.core.pleats.extras.base import ExtraKind, Face, Layer, LeftOfExtras, Mouth, Thing, WorkWords
from pleat.core.pleats.extras.goesin import Goes, ease_of, goes_in
from pleat.core.pleats.extras.kinds.pocketed import (
    ACROSS,
    FILM,
    FLOOR,
    Pocket,
    behind_glue,
    held_by,
    inside_of,
    mouths_of,
    pieces_of,
    proposed,
    pull_of,
    pull_piece,
    slant_of,
)
from pleat.core.pleats.structures.dressing import PHOTOS
from pleat.core.trade.extras import EASE_MM, GLUED_EDGE_MM, LOW_SIDE_MM, PULL_MM, TAKEN_MM


def compute(record: Pocket, key: str, face: Face, left: LeftOfExtras) -> Thing:
    """The pocket, on the ruler's marks."""
    ruler, held = left.brief.ruler, held_by(record)
    upright = record.mouth in ("head", "tail")
    first, second = ACROSS[record.mouth]
    lost = (held.get(first, 0.0) + held.get(second, 0.0), held.get(FLOOR[record.mouth], 0.0))
    goes = goes_in(record)
    mouth_wide, deep = proposed(record, face, goes, lost)
    by_itself = (mouth_wide, deep) if upright else (deep, mouth_wide)
    width = record.width_mm or ruler.snap_up(by_itself[0])
    height = record.height_mm or ruler.snap_up(by_itself[1])
    wide, high = (width, height) if upright else (height, width)
    mouth = Mouth(record.mouth, max(wide - lost[0], 0.0), max(high - lost[1], 0.0), held)
    walls = 2 if record.way == "envelope" else 1
    caliper = FILM if record.way == "clear" else left.paper.stock(record.stock).caliper.times(walls)
    pieces, layers = pieces_of(record, key, (width, height), held, caliper)
    stands, reach = 0.0, 0.0
    inside: tuple[Layer, ...] = ()
    pull: Layer | None = None
    if goes:
        stands = max((goes.height_mm if upright else goes.width_mm) - mouth.depth_mm, 0.0)
        lies = inside_of(record, goes, (width, height), held)
        pull = pull_of(record, lies, (width, height), left.paper.stock(record.stock).caliper)
        inside, reach = ((lies, pull), stands + record.pull_mm) if pull else ((lies,), stands)
    strip = (pull_piece(key, record, pull),) if pull else ()
    bought = record.way in ("clear", "envelope")
    what = {"clear": "clear film", "envelope": "envelope"}.get(record.way, "")
    counts = _bought(key, what, width, height, ruler) if bought else ()
    named = "page pocket" if record.way == "page" else "pocket"
    for_it = f" for {a_or_an(goes.title)}" if goes and record.goes != "own" else ""
    title = f"{named}{for_it}"
    return Thing(
        title=title,
        width_mm=width,
        height_mm=height,
        outline=((0.0, 0.0), (width, slant), (width, height), (0.0, height))
        if (slant := slant_of(record, height))
        else (),
        lines=mouths_of(record, (width, height)),
        pieces=(*(() if bought else pieces), *strip),
        layers=(*layers, *inside),
        inside=inside,
        counts=counts,
        mouth=mouth,
        stands_mm=reach,
        figures=(
            *_figures(record, (width, height), mouth, goes, stands, left),
            *_pulled(record, pull, ruler),
        ),
        checks=(*_slants(record, key, height, left), *_checks(record, key, face, mouth, goes, left)),
        work=_work(record, what, (width, height), goes, pull, ruler),
        sheet_stock=record.stock,
    )


def _bought(key: str, what: str, width: float, height: float, ruler: Ruler) -> tuple[Count, ...]:
    """What was bought instead of a sheet to fold it from."""
    return (
        Count(
            key=f"extra_{key}",
            name=f"{what} {ruler.size(width, height)}",
            count=1,
            stock="",
            use="extras",
        ),
    )


def _figures(
    record: Pocket,
    size: tuple[float, float],
    mouth: Mouth,
    goes: Goes | None,
    stands: float,
    left: LeftOfExtras,
) -> tuple[Figure, ...]:
    ruler = left.brief.ruler
    takes = {"tabs": "its folds", "clear": "the tape", "envelope": "its seams"}.get(record.way, "the glue")
    figures = [
        Figure(
            key="throat",
            label="throat",
            value=mouth.throat_mm,
            show="length",
            how=f"The pocket across its mouth, less what {takes} take of it on the sides that are held. What "
            f"slides in is {ruler.show(EASE_MM)} narrower: up to "
            f"{ruler.show(max(ruler.snap_down(mouth.throat_mm - EASE_MM), 0.0))}.",
            rules=(
                Rule("arithmetic", "its width less what holds it"),
                Rule("EASE_MM", "1/8 in of ease, no source"),
            ),
        ),
        Figure(
            key="depth",
            label="depth",
            value=mouth.depth_mm,
            show="length",
            how="From its mouth to what holds its floor.",
            rules=(Rule("arithmetic", "its height less what holds its floor"),),
        ),
    ]
    figures.append(
        Figure(
            key="fits",
            label="what fits",
            value=_fits(mouth),
            show="text",
            how=f"Of the sizes by name those that are {ruler.show(EASE_MM)} narrower than the throat and "
            "stand out by a third at most, upright or level.",
            rules=(
                Rule("bank_card", "ISO 216, ISO/IEC 7810, nominal inches"),
                Rule("stands_out", "a third stands out at most"),
            ),
        )
    )
    return (*figures, *_of_what_is_in(record, size, goes, stands, ruler))


def _of_what_is_in(
    record: Pocket, size: tuple[float, float], goes: Goes | None, stands: float, ruler: Ruler
) -> tuple[Figure, ...]:
    """The pocket that is made of what a slant cuts off, and how far what goes in stands out."""
    figures = []
    slant = slant_of(record, size[1])
    if slant and record.offcut == "second":
        figures.append(
            Figure(
                key="second",
                label="throat of the second",
                value=behind_glue(size[0], slant),
                show="length",
                how=f"What the slant cuts off has sides of {ruler.size(size[0], slant)}; its long side is "
                "open, less the lines of glue along the two others, which meet it aslant.",
                rules=(Rule("arithmetic", "the long side of a right-angled triangle less the glue"),),
            )
        )
    if goes:
        figures.append(
            Figure(
                key="stands",
                label="stands out",
                value=stands,
                show="length",
                how=f"What goes in is {ruler.size(goes.width_mm, goes.height_mm)}.",
                rules=(Rule("arithmetic", "its length less the depth"),),
            )
        )
    return tuple(figures)


def _fits(mouth: Mouth) -> str:
    """The names of what goes in."""
    sizes = {
        title: sorted((wide, high)) for key, (title, wide, high) in PHOTOS.items() if wide and key != "own"
    }
    found = [
        title
        for title, (short, long) in sizes.items()
        if any(
            wide <= mouth.throat_mm - EASE_MM + 0.05 and high <= mouth.depth_mm * 1.5
            for wide, high in ((short, long), (long, short))
        )
    ]
    return joined(found) if found else "none of the usual sizes"


def _checks(
    record: Pocket, key: str, face: Face, mouth: Mouth, goes: Goes | None, left: LeftOfExtras
) -> tuple[Check, ...]:
    """What goes in against the pocket."""
    if goes is None:
        return ()
    own, ruler = f"extras.items.{key}", left.brief.ruler
    upright = record.mouth in ("head", "tail")
    lies = (goes.width_mm, goes.height_mm) if upright else (goes.height_mm, goes.width_mm)
    room = (face.width_mm, face.height_mm) if upright else (face.height_mm, face.width_mm)
    sized = record.width_mm is not None or record.height_mm is not None
    by_itself = (
        (
            Offer(
                label="made for what goes in", changes=((f"{own}.width_mm", None), (f"{own}.height_mm", None))
            ),
        )
        if sized
        else ()
    )

    def larger(path: str, need: float, most: float) -> tuple[Offer, ...]:
        """A pocket that takes it, where one is not larger than its page; else as it is by itself."""
        need = ruler.snap_up(need)
        measure = "wide" if path == "width_mm" else "high"
        wide = Offer(
            label=f"the pocket {ruler.show(need)} {measure}",
            changes=((f"{own}.{path}", need),),
        )
        return (*((wide,) if need <= most else ()), *by_itself)

    held = sum(mouth.held.get(side, 0.0) for side in ACROSS[record.mouth])
    floor = mouth.held.get(FLOOR[record.mouth], 0.0)
    wider = larger(
        "width_mm" if upright else "height_mm", lies[0] + ease_of(goes.thick.likely) + held, room[0]
    )
    deeper = larger("height_mm" if upright else "width_mm", lies[1] - record.stand_mm + floor, room[1])
    return (
        *_throat(lies[0], goes.thick.likely, mouth, wider, ruler),
        *_grip(record, own, lies[1] - mouth.depth_mm, ruler),
        *_depth(record, lies[1], mouth, deeper, ruler),
    )


def _throat(
    across: float, thick: float, mouth: Mouth, wider: tuple[Offer, ...], ruler: Ruler
) -> tuple[Check, ...]:
    """F1: what goes in is too wide for the throat, or too thick for a pocket that is glued flat on its
    page."""
    ease = ease_of(thick)
    if across + ease <= mouth.throat_mm + 0.05:
        return ()
    thicker = ease > EASE_MM
    why = (
        f"Glued on a flat page, the pocket has to go up and down by its thickness of {ruler.thin(thick)} at "
        "either side."
        if thicker
        else f"Glue and folds take room; {ruler.show(EASE_MM)} less lets it slide."
    )
    return (
        Check(
            code="F1",
            level="stop" if across > mouth.throat_mm else "watch",
            title=f"What goes in is {ruler.show(across)} across, the throat {ruler.show(mouth.throat_mm)}.",
            why=why,
            offers=wider,
            no_fix=""
            if wider
            else "A pocket for it is larger than its page: put in something smaller, or let it lie the other "
            "way.",
        ),
    )


def _grip(record: Pocket, own: str, stands: float, ruler: Ruler) -> tuple[Check, ...]:
    """Nothing to take it by."""
    if stands >= TAKEN_MM or record.pull_mm or record.slant_mm:
        return ()
    pull = Offer(label=f"a pull that stands out {ruler.show(15.0)}", changes=((f"{own}.pull_mm", 15.0),))
    by_itself: Changes = ((f"{own}.stand_mm", 20.0), (f"{own}.width_mm", None), (f"{own}.height_mm", None))
    out = (
        () if record.way == "page" else (Offer(label=f"it stands out {ruler.show(20.0)}", changes=by_itself),)
    )
    return (
        Check(
            code="grip",
            level="note",
            title="Nothing stands out of the pocket to take it by.",
            why="A pull on what goes in, a notch in the mouth, or a shallower pocket lets a hand take it.",
            offers=(pull, *out),
        ),
    )


def _depth(
    record: Pocket, deep: float, mouth: Mouth, deeper: tuple[Offer, ...], ruler: Ruler
) -> tuple[Check, ...]:
    """F1: it stands out farther than was wanted."""
    stands = max(deep - mouth.depth_mm, 0.0)
    if stands <= record.stand_mm + max(ruler.step_mm, 1.0) or deep <= stands:
        return ()
    return (
        Check(
            code="F1",
            level="watch",
            title=f"It stands out {ruler.show(stands)} past the mouth; {ruler.show(record.stand_mm)} was "
            "wanted.",
            why=f"It is {ruler.show(deep)} long, the pocket {ruler.show(mouth.depth_mm)} deep.",
            offers=deeper,
            no_fix=""
            if deeper
            else "A pocket so deep is larger than its page: let it stand out farther, or lie the other way.",
        ),
    )


def _slants(record: Pocket, key: str, high: float, left: LeftOfExtras) -> tuple[Check, ...]:
    """A slant that this pocket cannot have."""
    if not record.slant_mm or slant_of(record, high):
        return ()
    own, ruler = f"extras.items.{key}", left.brief.ruler
    most = ruler.snap_down(max(high - LOW_SIDE_MM, 0.0))
    straight = Offer(label="a straight mouth", changes=((f"{own}.slant_mm", 0.0),))
    if record.mouth != "head":
        return (
            Check(
                code="slant",
                level="watch",
                title=f"Its mouth at the {record.mouth} stays straight.",
                why="Only a mouth at the head slants.",
                offers=(
                    Offer(
                        label="its mouth at the head",
                        changes=((f"{own}.mouth", "head"), (f"{own}.slant_mm", min(record.slant_mm, most))),
                    ),
                    straight,
                ),
            ),
        )
    return (
        Check(
            code="slant",
            level="watch",
            title=f"A slant of {ruler.show(record.slant_mm)} is too steep for a height of "
            f"{ruler.show(high)}: its mouth stays straight.",
            why=f"On its low side {ruler.show(LOW_SIDE_MM)} have to be left to glue.",
            offers=(
                Offer(label=f"a slant of {ruler.show(most)}", changes=((f"{own}.slant_mm", most),)),
                straight,
            ),
        ),
    )


def _pulled(record: Pocket, pull: Layer | None, ruler: Ruler) -> tuple[Figure, ...]:
    """How long the pull is cut."""
    if pull is None:
        return ()
    upright = record.mouth in ("head", "tail")
    long, wide = (pull.height_mm, pull.width_mm) if upright else (pull.width_mm, pull.height_mm)
    glued, out = min(PULL_MM[1], long), record.pull_mm
    how = (
        f"{ruler.show(glued)} glued behind what goes in, {ruler.show(out)} past its edge and the mouth, "
        f"and what lies between. It is {ruler.show(wide)} wide."
    )
    return (
        Figure(
            key="pull",
            label="the pull",
            value=long,
            show="length",
            how=how,
            rules=(Rule("arithmetic", "what is glued, lies between and stands out"),),
        ),
    )


def _work(
    record: Pocket, what: str, size: tuple[float, float], goes: Goes | None, pull: Layer | None, ruler: Ruler
) -> WorkWords:
    held = "three sides" if record.open_at == "one" else "two sides"
    make = {
        "tabs": (
            "Cut along the slant; what comes off is the second pocket. "
            if record.slant_mm and record.offcut == "second"
            else ""
        )
        + "Score and fold its tabs back, mitre their ends, burnish. Cut a notch or a slant now, before any "
        "glue.",
        "glued": "Cut it; a notch or a slant now, before any glue.",
        "clear": f"Cut the film, {ruler.size(*size)}.",
        "page": "Cut it as large as the page. Score what is turned over at its mouth and fold it in, before "
        "any glue.",
        "envelope": "Leave its flap on or cut it off; do it before it is glued.",
    }[record.way]
    fix = (
        f"Tape it on {held} with clear tape, half of it on the film and half on the page: its mouth stays "
        "free."
        if record.way == "clear"
        else f"Glue on {held}: nothing within {ruler.show(GLUED_EDGE_MM)} of its mouth. Wipe what comes out, "
        "lay waste paper in it and press."
    )
    slid = "it" if goes else "what belongs there"
    slip = f"Slide {slid} in, and out again: it must not catch." if goes or what else ""
    if pull:
        make += " Glue the pull behind what goes in, at the edge that comes out last, and let it dry."
    return WorkWords(make, fix, slip, cautions=(GLUE,), tags=frozenset({"glue"}))


KIND: Final = ExtraKind(
    name="pocket",
    title="pocket",
    summary="Open on one side or two; with tabs, glued, of clear film or an envelope.",
    record=Pocket,
    compute=compute,
    group="pockets",
    begins={"goes": "card"},
)
