"""The words of the trade and of this project, each in one sentence: the only place where they are explained.

``docs/glossary.md`` is made of it (``make glossary``), and what explains a word on the screen reads it too.
"""

from __future__ import annotations

from typing import Final, Literal, NamedTuple

Group = Literal[
    "the block",
    "folding and sewing",
    "holes and hardware",
    "covers",
    "albums and folded things",
    "paper",
    "the program",
]


class Term(NamedTuple):
    """A word, what it means in one sentence, and other words that makers use for the same."""

    word: str
    meaning: str
    also: tuple[str, ...] = ()


GLOSSARY: Final[dict[Group, tuple[Term, ...]]] = {
    "the block": (
        Term("sheet", "Paper as it comes, before it is folded or cut."),
        Term("folio", "A sheet folded once, which makes 2 leaves of 4 pages."),
        Term("leaf", "One piece of paper in the finished book, which has 2 pages."),
        Term("page", "One side of a leaf, so that 8 leaves are 16 pages."),
        Term("opening", "Two pages that are seen side by side.", ("spread",)),
        Term("section", "Folios nested in one fold and held there together.", ("signature", "gathering")),
        Term("block", "All leaves of a book together, without its cover.", ("text block",)),
        Term("pile", "Sheets of mixed papers before they are put in an order."),
        Term("spine", "The side at which a book is held together."),
        Term("fore edge", "The side of a book opposite its spine."),
        Term("head", "The upper end of a book that stands."),
        Term("tail", "The lower end of a book that stands."),
        Term("stub", "A narrow strip in the fold to which a single leaf is glued."),
        Term("tipped in", "Fastened by a thin line of glue along one edge."),
        Term("fold-out", "A leaf wider than the others that is folded back to lie within them."),
        Term(
            "creep", "How far the inner folios of a section stand out past the outer ones at the fore edge."
        ),
        Term("swell", "The thickness that thread adds at the spine."),
        Term("bulk", "The thickness of a shut book from place to place, with all that is put in."),
        Term(
            "gape",
            "A book gapes when it stands open at the fore edge because it is thicker there "
            "than at its spine.",
        ),
    ),
    "folding and sewing": (
        Term("valley fold", "A fold whose sides come up towards you."),
        Term("mountain fold", "A fold whose sides go down away from you."),
        Term("score", "A line pressed into paper or card so that it folds there."),
        Term(
            "station",
            "A place along the fold or spine where a hole for the thread is pierced.",
            ("sewing hole",),
        ),
        Term("kettle station", "The outermost stations, where each section is linked to the one before."),
        Term("trough", "A V-shaped holder in which sections are pierced through their fold."),
        Term("stitch", "A way for the thread through all stations, kept as a list of moves."),
        Term("move", "One step of a stitch: which hole is gone to next, and what is done on the way."),
        Term("promise", "What a stitch says of itself, such as every span covered twice, and is held to."),
        Term(
            "support",
            "A tape, cord, stick or board round or through which the thread passes outside the fold.",
        ),
        Term("span", "The thread between two neighbouring stations, on one side of the paper."),
        Term("tail of thread", "The end of thread that is left at a knot."),
        Term("lea", "A number for the fineness of linen thread, of which a higher one is finer."),
    ),
    "holes and hardware": (
        Term("inset", "How far the middle of a hole lies from the edge at which leaves are held."),
        Term("bridge", "The paper between a hole and the edge, which carries the leaf."),
        Term("pitch", "The distance from one hole to the next of a punch, a wire or a strip."),
        Term("lift", "As many sheets as a punch takes at once."),
        Term("jig", "A strip or plate that puts the hole at the same place in each lift.", ("guide",)),
        Term("wire", "Looped wire closed round a row of holes, counted in loops an inch."),
        Term("band", "Rubber or elastic that holds leaves at a stick, or a book shut."),
    ),
    "covers": (
        Term("board", "Stiff card that makes a hard cover."),
        Term("square", "How far a cover stands past the leaves at head, tail and fore edge.", ("overhang",)),
        Term("set-back", "How far the boards keep off the spine edge of the block."),
        Term(
            "joint",
            "The gap between a board and the spine strip, in which a hard cover bends.",
            ("hinge gap",),
        ),
        Term("spine strip", "The stiff strip between the two boards of a case."),
        Term("case", "A hard cover that is made by itself, into which the block is hung."),
        Term("wrap", "A covering of one piece, soft and by itself or glued round boards."),
        Term("turn-in", "The covering material that is folded over a board's edge and glued inside."),
        Term(
            "quarter covering",
            "A hard cover with one material at the spine and another over the rest of the boards.",
        ),
        Term("liner", "The paper glued inside a board, over the turn-ins.", ("pastedown",)),
        Term(
            "spine lining", "Cloth or paper glued inside a case over the spine strip and on to both boards."
        ),
        Term("sheath", "A board in two folded strips that interlock without glue."),
        Term("filler", "Card that makes the inside of a padded board level for what is glued there."),
        Term("hang in", "Glue the first and last leaves of a block to the insides of its case."),
    ),
    "albums and folded things": (
        Term("panel", "A part of a piece between two folds or between a fold and an edge."),
        Term("gusset", "A narrow panel that gives room between two others for what lies between them."),
        Term("flap", "A panel that folds over others and is opened before they are seen."),
        Term("tab", "A strip along an edge that is glued under or over another piece.", ("glue tab",)),
        Term("flange", "The part of a hinge that is glued to a board or leaf."),
        Term("hill", "A pleat of a hinge strip, glued shut, to which an album leaf is glued."),
        Term("floor", "The flat part of a hinge strip between two hills."),
        Term("connector", "A strip of flange, gusset and flange that joins two album leaves."),
        Term("concertina", "A long strip folded to and fro.", ("accordion", "leporello")),
        Term("pocket", "A room between layers of paper that is glued on some sides and open at its mouth."),
        Term("mouth", "The open side of a pocket."),
        Term("throat", "The width of what a pocket lets in, between its glue and folds."),
        Term("mat", "A paper glued on a panel or under a photograph with an even border."),
        Term("belly band", "A strip round a page or cover that holds what is slid under it."),
        Term("fastener", "Two halves that keep a cover or flap shut: magnets, snaps or hook-and-loop dots."),
        Term(
            "closing order", "The order in which panels are shut, on which the room of each gusset depends."
        ),
    ),
    "paper": (
        Term(
            "grain",
            "The direction in which the fibres of paper or board lie, along which it folds well.",
            ("machine direction",),
        ),
        Term("caliper", "The thickness of one sheet, and the tool that measures it.", ("thickness",)),
        Term("grammage", "The weight of a square metre of paper in grams."),
        Term(
            "bulk of a paper",
            "Its volume in cubic centimetres a gram, by which its thickness follows from its grammage.",
        ),
        Term(
            "basis weight",
            "Pounds of 500 sheets of a size that depends on the grade of paper, and which never says "
            "anything without it.",
        ),
        Term("offcut", "What is left of a sheet and kept."),
        Term("pad of papers", "Papers sold together: some designs, so many sheets of each."),
        Term("lay factor", "By how much leaves that were handled or crumpled lie thicker than new ones."),
    ),
    "the program": (
        Term(
            "pleat",
            "One of the eight parts in which a book is worked out, each of which reads only what stands to "
            "its left.",
        ),
        Term(
            "kind",
            "A way to make a block, a binding or a cover, or a thing that is put in, such as pamphlet stitch "
            "or pocket.",
        ),
        Term(
            "member", "A kind as it stands in the registry of its pleat, with its record and its computation."
        ),
        Term("record", "The decisions that a maker made for one member, as they are kept in the book file."),
        Term("recipe", "A block, a binding and a cover that go well together, offered to start from."),
        Term("unit", "What a binding holds one of: a section, a leaf, a pad, or a folded thing."),
        Term("edge", "Where a binding holds its units, such as the fold, the spine, or a row of holes."),
        Term(
            "face", "A side of a leaf, a panel or a cover on which things can be put, with a name that lasts."
        ),
        Term("figure", "A number on the screen, with how it was worked out and where its rule comes from."),
        Term("part", "A piece that is cut from stock, whichever pleat made it."),
        Term("check", "Something that can go wrong, said in the maker's words with what to do about it."),
        Term("slip", "A mistake that is really made at the bench, by its letter and number, such as A3."),
        Term("offer", "A change to the book that one tap makes.", ("fix",)),
        Term(
            "step",
            "One thing to do at the bench, with what it needs to be done before and what it makes possible.",
        ),
        Term("stock", "A paper, board, cloth or thread as this book uses it, with how much of it is owned."),
        Term("role", "What a stock serves as in a book, such as leaf, cover or lining."),
        Term(
            "strip",
            "A pleat that is folded on the screen, with its key figure; on paper, a card with the marks of "
            "one row of stations.",
        ),
        Term("portrait", "A book drawn small as it will look."),
        Term("programme", "A folded thing as a list of operations: add a piece, fold it, lay it on another."),
        Term("state", "How far a folded thing is shut; of the work, what was done already."),
        Term("ruler", "Millimetres or inches with their fractions, on whose marks figures are shown."),
        Term("revision", "A book as it was after one change, kept so that it can be undone."),
    ),
}
