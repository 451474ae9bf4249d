"""Every pattern on every size a book can have: a name, and the sewing with what it promises."""

from pleat.core.engines.sewing.moves import SIDES, Bed, Promise, Row, Sewing, Support
from pleat.core.engines.sewing.patterns import along, through


def bed(rows, stations, cover=0.0, supports=(), height=None, fold=1.5, thick=3.0, reach=8.0):
    height = height or 20.0 * (stations + 1)
    step = height / (stations + 1)
    places = tuple(step * (hole + 1) for hole in range(stations))
    return Bed(places, tuple(Row(fold, thick, cover) for _ in range(rows)), height, tuple(supports), reach)


def singles():
    """What is sewn through each section by itself."""
    for stations in range(3, 14):
        for side in SIDES:
            yield (
                f"straight past {stations} {side}",
                Sewing(
                    bed(1, stations, 0.3),
                    (through.straight_past(stations, side),),
                    through.straight_past_promise(stations, True),
                ),
            )
            yield (
                f"figure of eight {stations} {side}",
                Sewing(
                    bed(1, stations, 0.3),
                    (through.figure_of_eight(stations, side),),
                    Promise(covered="both", cover=True),
                ),
            )
    for stations in range(2, 14, 2):
        yield (
            f"paired ties {stations}",
            Sewing(
                bed(1, stations, 0.3),
                through.paired_ties(stations, "inside"),
                through.paired_promise(stations, True),
            ),
        )
    for stations in (3, 5, 7, 9):
        figure = through.straight_past(stations, "inside")
        yield (
            f"double {stations}",
            Sewing(bed(2, stations, 0.3), (through.double(figure),), through.double_promise(stations, True)),
        )
    for rows, stations in ((1, 3), (2, 3), (2, 5)):
        sticks = [Support("stick", hole, 5.0) for hole in range(1, stations + 1)]
        threads = tuple(
            through.lashing(hole, row) for row in range(1, rows + 1) for hole in range(1, stations + 1)
        )
        yield (
            f"lashing {rows} x {stations}",
            Sewing(bed(rows, stations, 0, sticks), threads, through.lashing_promise()),
        )
    for holes in (0, 1, 2):
        yield (
            f"loop {holes}",
            Sewing(bed(1, holes, 0.3), (through.loop(holes, "outside"),), through.loop_promise(True)),
        )


def sewn_along(rows, counts=(4, 6, 8, 14), links=(2, 3, 5, 13)):
    """What is sewn section on section, on so many rows."""
    for n in counts:
        tapes = [Support("tape", hole + 0.5, 0.5) for hole in range(2, n - 1, 2)]
        yield (
            f"tapes {rows} x {n}",
            Sewing(bed(rows, n, 0, tapes), (along.kettled(rows, n, along.straight),), Promise(links="ends")),
        )
        yield (
            f"span-linked {rows} x {n}",
            Sewing(bed(rows, n), (along.kettled(rows, n, along.under_spans),), Promise(links="ends")),
        )
        yield (
            f"long stitch {rows} x {n}",
            Sewing(bed(rows, n, 0.3), (along.long_stitch(rows, n),), Promise(links="some", cover=True)),
        )
        if rows % 2 == 0 and rows >= 6 and n in (8, 12):
            yield (
                f"two-on {rows} x {n}",
                Sewing(bed(rows, n, 0, tapes), (along.two_on(rows, n),), along.two_on_promise(rows, n)),
            )
    for n in links:
        boards = [Support("board", hole, 2.0, (row,)) for row in (1, rows) for hole in range(1, n + 1)]
        yield (
            f"link {rows} x {n}",
            Sewing(bed(rows, n), (along.link(rows, n, False),), Promise(covered="inside", links="all")),
        )
        yield (
            f"link with boards {rows} x {n}",
            Sewing(
                bed(rows, n, 0, boards), (along.link(rows, n, True),), Promise(covered="inside", links="all")
            ),
        )
        if n > 2:
            cords = [Support("cord", hole, 3.0) for hole in range(2, n)]
            yield (
                f"cords {rows} x {n}",
                Sewing(
                    bed(rows, n, 0, cords),
                    (along.kettled(rows, n, along.round_cords),),
                    Promise(covered="inside", links="ends"),
                ),
            )


def small():
    """Each pattern once or twice, on few sections: for tests that try everything on each."""
    yield from (one for one in singles() if one[0].split()[-1] != "outside" and one[1].bed.stations <= 6)
    for rows in (2, 5):
        yield from sewn_along(rows, (4, 6), (3,))
    yield from (one for one in sewn_along(6, (8,), ()) if "two-on" in one[0])
