"""Recipes: named kinds of book to start from, each a few decisions, with what it suits; and which of them
answers what a maker wants."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Final, Literal

from pleat.core.base.fields import NumberRule, rule_on
from pleat.core.base.kinds import TAG, Chosen, Hard
from pleat.core.base.marks import chosen_near
from pleat.core.base.plan import Changes
from pleat.core.base.units import RULERS, Ruler
from pleat.core.document import editing
from pleat.core.document.book import Book
from pleat.core.document.labels import rule_of
from pleat.core.document.made_of import chosen
from pleat.core.materials.items import Board, Cloth, Paper
from pleat.core.pleats.pages.block import BlockKind
from pleat.core.pleats.pages.kinds import BLOCKS
from pleat.core.pleats.paper.record import ROLES, Papers

Use = Literal["write", "paint", "photographs", "keep", "give"]
USES: Final[dict[Use, str]] = {
    "write": "to write in",
    "paint": "to paint in",
    "photographs": "for photographs",
    "keep": "to keep papers in",
    "give": "to give away",
}
WISHES: Final = {
    "needle": "no needle",
    "glue": "no glue",
    "punch": "no punch",
    "flat": "opens flat",
    "refills": "can be refilled",
}
"""What a recipe can be asked for, by its name on the page."""


@dataclass(frozen=True)
class Recipe:
    """A kind of book to start from: its decisions beside those of an empty book, and what makers ask before
    they choose.

    ``size`` and ``count`` are what is proposed, as typed; ``fewest`` and ``most`` the pages it suits.
    ``kept`` are the decisions in which it differs from the plainest book. ``example`` is the title of its
    example. ``pile`` begins with a pile of mixed papers.
    """

    name: str
    title: str
    example: str
    says: str
    use: Use
    hard: Hard
    size: str
    count: str
    fewest: int
    most: int
    kept: Changes = ()
    purpose: str = "writing"
    pile: bool = False
    glue: bool = False
    leaf: Paper | None = None
    cover: Paper | None = None
    board: Board | None = None
    covering: Cloth | Paper | None = None
    card: Paper | None = None
    mat: Paper | None = None

    def book(self) -> Book:
        """The example of this recipe: its own size, count and papers."""
        return self._example

    @cached_property
    def _example(self) -> Book:
        own = {role: kept for role in ROLES if (kept := getattr(self, role, None)) is not None}
        papers = Papers().model_copy(update=own)
        book = editing.apply(
            Book(title=self.example, paper=papers),
            (*self.begun_on(RULERS["mm"]), *(_PILE if self.pile else ())),
        )
        return editing.edit(
            book, {"brief.size": self.size, **({"pages.count": self.count} if self.counted else {})}
        )

    @property
    def counted(self) -> bool:
        """Whether it has a number of pages to ask for: a folded structure has the panels it has."""
        return "amount" in self._block.record.model_fields

    @property
    def counts(self) -> NumberRule | None:
        """The bounds of that number."""
        rule = rule_on(self._block.record.model_fields["amount"]) if self.counted else None
        return rule if isinstance(rule, NumberRule) else None

    @property
    def made_from(self) -> str:
        """The role of the paper it is mostly made of; leaves that are tags are of the folding card."""
        return "card" if dict(self.kept).get("pages.leaf_is") == "tag" else self._block.roles[0]

    @property
    def _block(self) -> BlockKind:
        kind = BLOCKS.find(str(dict(self.made).get(f"pages.{TAG}", "")))
        return kind or BLOCKS.members[0]

    def begun_on(self, ruler: Ruler) -> Changes:
        """The decisions a new book begins with, on the marks of its ruler."""
        return (*self.made_on(ruler), ("brief.purpose", self.purpose))

    def made_on(self, ruler: Ruler) -> Changes:
        """What makes a book one of these, its lengths on the marks of a ruler."""
        return tuple((path, chosen_near(rule_of(path), value, ruler)) for path, value in self.made)

    @property
    def made(self) -> Changes:
        """What makes a book one of these: members first, then how it is folded and held, with what other
        kinds decide there taken back."""
        kept = dict(self.kept)
        plain = {path: value for path, value in _PLAIN if f"{path.split('.')[0]}.{TAG}" not in kept}
        return tuple({**plain, **kept}.items())

    def wishes(self, made_of: Chosen) -> frozenset[str]:
        """Which of the wishes it meets, made of these members."""
        traits = [one.traits for one in (made_of.block, made_of.binding, made_of.cover)]
        met = {
            "needle": not any(trait.needle for trait in traits),
            "glue": not self.glue and not any(trait.glue for trait in traits),
            "punch": not any(trait.punch for trait in traits),
            "flat": any(trait.opens_flat for trait in traits),
            "refills": any(trait.refills for trait in traits),
        }
        return frozenset(name for name, good in met.items() if good)


def _paper(name: str, kind: str, width: float, height: float, weight: float, **more: object) -> Paper:
    return Paper.model_validate(
        {
            "name": name,
            "kind": kind,
            "sheet_width_mm": width,
            "sheet_height_mm": height,
            "grammage": weight,
            "grain": "short",
            **more,
        }
    )


_LOG: Final = _paper("Log paper, cream", "drawing", 297, 210, 100, swatch="cream")
_CHART: Final = _paper("Chart paper, long sheets", "drawing", 420, 210, 110, swatch="white")
_SKETCH: Final = _paper("Sketching paper", "watercolour", 420, 297, 190, swatch="white")
_KRAFT: Final = _paper("Kraft card", "cardstock", 450, 320, 270, swatch="kraft")
_NIGHT: Final = _paper("Night card, indigo", "cardstock", 450, 320, 250, swatch="indigo")
_RUST: Final = _paper("Rust card", "cardstock", 450, 320, 250, swatch="rust")
_MOSS: Final = _paper("Moss card", "cardstock", 450, 320, 250, swatch="moss")
_THIN: Final = _paper("Thin log paper", "copier", 297, 210, 80, swatch="white")
_THIN_A4: Final = _paper("Thin log paper, A4", "copier", 210, 297, 80, grain="long", swatch="white")
_BOARD: Final = Board(
    name="Greyboard, 2 mm", sheet_width_mm=700, sheet_height_mm=500, thickness_mm=2.0, grain="short"
)

_CLOTH: Final = Cloth(
    name="Book cloth, midnight", roll_width_mm=900, length_left_mm=1500, thickness_mm=0.35, swatch="indigo"
)
_FABRIC: Final = Cloth(
    name="Cotton, star print",
    roll_width_mm=1100,
    length_left_mm=800,
    thickness_mm=0.3,
    backed="no",
    swatch="rust",
)
_SHEETS: Final = _paper("Pasted paper, nebula", "drawing", 305, 305, 120, swatch="moss", sides=1)

_BAGS: Final = _paper("Flour bags, opened", "kraft", 450, 320, 90, swatch="kraft", toughness="tough")

_FOLDING: Final = _paper("Folding card, large sheets", "cardstock", 700, 500, 220, swatch="kraft")
_STARS: Final = _paper("Star chart paper, pad", "drawing", 305, 305, 120, swatch="indigo", sides=1)
_ALBUM: Final = _paper("Album card, black", "cardstock", 450, 320, 200, swatch="grey")
_ENVELOPE: Final = _paper(
    "Wrapping kraft, sheets", "kraft", 1000, 700, 110, swatch="kraft", toughness="tough"
)

_FOUND: Final = {
    "p1": _LOG,
    "p2": _paper("Flour bag paper", "kraft", 297, 210, 70, swatch="kraft", toughness="weak"),
    "p3": _paper("Site map, folded", "coated", 420, 297, 90, grain="long", swatch="moss"),
}
_PILE: Final[Changes] = (
    ("paper.more", {key: paper.model_dump(mode="json") for key, paper in _FOUND.items()}),
    ("pages.pile", [{"id": number, "paper": f"p{1 + number % 3}"} for number in range(1, 9)]),
)
"""What the example of a pile is made of."""

_PLAIN: Final[Changes] = (
    ("pages.kind", "sections"),
    ("binding.kind", "pamphlet"),
    ("binding.way", "past"),
    ("cover.kind", "wrap"),
    ("pages.folds", 1),
    ("pages.sections", 1),
    ("pages.flap_mm", None),
    ("cover.creases", "auto"),
)
"""What the plainest book is made of and how it is folded: a kind of book is this, but for what it keeps for
itself."""

RECIPES: Final[tuple[Recipe, ...]] = (
    Recipe("journal", "one-section journal", "Observing journal", "One section in a soft cover, sewn with "
    "one thread and one knot.", "write", "first "
    "book", "A5", "32 "
    "pages", 8, 48, leaf=_LOG, cover=_KRAFT),
    Recipe("pocket", "pocket notebook", "Pocket star log",
    "Sheets folded twice and slit open: little to cut.", "write", "first "
    "book", "105 "
    "× 148", "32 "
    "pages", 16, 64, kept=(("pages.folds", 2),), cover=_MOSS),
    Recipe("thick", "two-section journal", "Season log", "Two sections side by side in one cover, each with "
    "its own thread.", "write", "some "
    "practice", "A5", "64 "
    "pages", 48, 96, kept=(("pages.sections", 2), ("cover.creases", "two")), leaf=_LOG, cover=_NIGHT),
    Recipe("sketchbook", "square sketchbook", "Moon sketches", "Few heavy sheets, five holes, the knot "
    "outside.", "paint", "some "
    "practice", "200 "
    "× 200", "12 "
    "pages", 8, 20, kept=(("binding.station_count", 5), ("binding.knot", "outside")), purpose="painting",
    leaf=_SKETCH, cover=_KRAFT),
    Recipe("foldout", "journal with a fold-out", "Panorama of the ridge", "A panorama folds out of its "
    "middle.", "photographs", "some "
    "practice", "140 "
    "× 200", "24 "
    "pages", 8, 32, kept=(("pages.flap_mm", 110.0),), purpose="photographs", leaf=_CHART, cover=_RUST),
    Recipe("found", "found-paper journal", "Found-paper journal", "Whatever papers are lying about, arranged "
    "so that neighbours differ.", "keep", "takes "
    "care", "A5", "32 "
    "pages", 16, 96, pile=True, glue=True, leaf=_LOG, cover=_KRAFT),
    Recipe("programme", "programme, its own cover", "Open night programme", "No cover: the outermost sheet "
    "is it. Page numbers for what is printed.", "give", "first "
    "book", "A6", "16 "
    "pages", 4, 32, kept=(("cover.kind", "bare"), ("pages.numbered", "yes")), purpose="gift", leaf=_LOG),
    Recipe("keepsake", "keepsake booklet", "Meteor keepsake", "Small and thin, with long tails outside to "
    "hang something from.", "give", "first "
    "book", "A6", "12 "
    "pages", 4, 24, kept=(("binding.knot", "outside"), ("binding.tail_mm", 200.0)), purpose="gift",
    leaf=_LOG, cover=_RUST),
    Recipe("eight", "figure-of-eight journal", "Aurora diary", "Sewn as a figure of eight through five "
    "holes: even on both sides.", "write", "some "
    "practice", "A5", "32 "
    "pages", 8, 48, kept=(("binding.station_count", 5), ("binding.way", "eight")), leaf=_LOG, cover=_NIGHT),
    Recipe("ties", "album in paired ties", "Eclipse cards", "Two short ties instead of one long thread; each "
    "can be renewed.", "keep", "first "
    "book", "A5", "24 "
    "pages", 8, 32, kept=(("binding.kind", "ties"),), leaf=_LOG, cover=_MOSS),
    Recipe("pleat", "two sections in a pleat", "Sun and moon log", "The cover is folded in between two "
    "sections; no thread shows outside.", "write", "some "
    "practice", "A5", "48 "
    "pages", 32, 80, kept=(("binding.kind", "pleat"), ("pages.sections", 2)), leaf=_LOG, cover=_KRAFT),
    Recipe("double", "double pamphlet", "Twin comets", "Two sections with one thread, which crosses the "
    "spine at every hole.", "write", "some "
    "practice", "A5", "64 "
    "pages", 48, 96, kept=(("binding.kind", "double"), ("pages.sections", 2)), leaf=_LOG, cover=_RUST),
    Recipe("longstitch", "long-stitch journal", "Winter sky journal", "Sections sewn one by one through a "
    "soft spine; long stitches show outside.", "write", "some "
    "practice", "A5", "96 "
    "pages", 64, 200, kept=(("binding.kind", "longstitch"), ("pages.sections", 6)), leaf=_THIN, cover=_KRAFT),
    Recipe("plainlong", "plain long stitch", "Cloud notes", "As the long-stitch journal, without kettles: "
    "quicker, and looser.", "keep", "some "
    "practice", "A6", "64 "
    "pages", 48, 128,
    kept=(("binding.kind", "longstitch"), ("binding.way", "plain"), ("pages.sections", 4)), leaf=_THIN,
    cover=_MOSS),
    Recipe("link", "link-stitch sketchbook", "Dome sketchbook", "Two boards and an open spine of chains: "
    "lies flat at every page.", "paint", "some "
    "practice", "A5", "80 "
    "pages", 64, 240, kept=(("binding.kind", "link"), ("cover.kind", "boards"), ("pages.sections", 5)),
    purpose="painting", leaf=_LOG, board=_BOARD),
    Recipe("linkbare", "link-stitched block", "Star trail notes", "Chains across an open spine and no "
    "boards: the outermost leaves are the cover.", "write", "some "
    "practice", "A6", "80 "
    "pages", 48, 200, kept=(("binding.kind", "link"), ("cover.kind", "bare"), ("pages.sections", 5)),
    leaf=_THIN),
    Recipe("spanlinked", "span-linked block", "Variable star log", "Braids between the holes of an open "
    "spine.", "write", "some "
    "practice", "A5", "96 "
    "pages", 64, 240, kept=(("binding.kind", "spanlinked"), ("cover.kind", "bare"), ("pages.sections", 6)),
    leaf=_THIN),
    Recipe("tapes", "block over tapes", "Observatory ledger", "Sewn all along over tapes, firm enough for a "
    "case.", "write", "some "
    "practice", "A5", "160 "
    "pages", 96, 480, kept=(("binding.kind", "tapes"), ("cover.kind", "bare"), ("pages.sections", 10)),
    leaf=_THIN),
    Recipe("cords", "block on raised cords", "Members' book", "Cords stand up on the spine as bands.",
    "keep", "takes "
    "care", "A5", "128 "
    "pages", 96, 480, kept=(("binding.kind", "cords"), ("cover.kind", "bare"), ("pages.sections", 8)),
    leaf=_LOG),
    Recipe("twoon", "two-on over tapes", "Catalogue of nights", "Two thin sections with every run of the "
    "thread: half the thread, half the swell.", "keep", "takes "
    "care", "A5", "160 "
    "pages", 96, 480, kept=(("binding.kind", "twoon"), ("cover.kind", "bare"), ("pages.sections", 10)),
    leaf=_THIN),
    Recipe("case", "case-bound book", "Almanac of the society", "Sewn over tapes and hung into a case of "
    "boards and cloth, with endpapers.", "keep", "takes "
    "care", "A5", "160 "
    "pages", 64, 480, kept=(("binding.kind", "tapes"), ("cover.kind", "case"), ("pages.sections", 10)),
    glue=True, leaf=_THIN, board=_BOARD, covering=_CLOTH),
    Recipe("quarter", "quarter-covered case", "Comet register", "A case with cloth over the spine and "
    "patterned paper on its sides.", "give", "takes "
    "care", "A5", "128 "
    "pages", 64, 480, kept=(("binding.kind", "tapes"), ("cover.kind", "quarter"), ("pages.sections", 8)),
    purpose="gift", glue=True, leaf=_LOG, board=_BOARD, covering=_CLOTH),
    Recipe("padded", "padded case", "Guest book of the open night", "A case in fabric with padding under it, "
    "soft to the hand.", "give", "takes "
    "care", "A5", "96 "
    "pages", 64, 320, kept=(("binding.kind", "tapes"), ("cover.kind", "padded"), ("pages.sections", 8)),
    purpose="gift", glue=True, leaf=_LOG, cover=_KRAFT, board=_BOARD, covering=_FABRIC),
    Recipe("threepiece", "three-piece case", "Album of the eclipse trip", "Two boards and a spine board on a "
    "wrap that is joined from sheets.", "photographs", "takes "
    "care", "200 "
    "× 200", "64 "
    "pages", 32, 200, kept=(("binding.kind", "tapes"), ("cover.kind", "threepiece"), ("pages.sections", 8)),
    purpose="photographs", glue=True, leaf=_SKETCH, board=_BOARD, covering=_SHEETS),
    Recipe("flapped", "wrap with a closing flap", "Pocket almanac", "A soft wrap whose flap closes over the "
    "front, held by magnets.", "keep", "some "
    "practice", "A6", "40 "
    "pages", 16, 64, kept=(("binding.kind", "pamphlet"), ("cover.kind", "flapped")), leaf=_LOG, cover=_KRAFT),
    Recipe("pockets", "wrap with flaps", "Visitors' leaflet folder", "Flaps folded in at the fore edges make "
    "pockets for loose papers.", "keep", "some "
    "practice", "A6", "32 "
    "pages", 8, 64, kept=(("cover.flaps_mm", 60.0), ("cover.pockets", "yes"), ("cover.creases", "four")),
    glue=True, leaf=_LOG, cover=_NIGHT),
    Recipe("layered", "wrap of paper bags", "Scrapbook of the flour bags", "Three layers of bag paper glued "
    "on each other make a tough soft cover.", "keep", "some "
    "practice", "A5", "32 "
    "pages", 8, 64, kept=(("cover.kind", "layered"),), glue=True, leaf=_LOG, cover=_BAGS),
    Recipe("sheath", "boards in folded strips", "Meteor count", "Boards wrapped in folded strips, a spine "
    "strip tucked in: no glue at all.", "write", "some "
    "practice", "A6", "128 "
    "pages", 64, 240, kept=(("binding.kind", "tapes"), ("cover.kind", "sheath"), ("pages.sections", 8)),
    leaf=_THIN, cover=_MOSS, board=_BOARD),
    Recipe("coveredboards", "link stitch, covered boards", "Sketches at the eyepiece", "Two boards, each in "
    "cloth and lined, on an open spine of chains.", "paint", "takes "
    "care", "A5", "80 "
    "pages", 64, 240,
    kept=(("binding.kind", "link"), ("cover.kind", "coveredboards"), ("pages.sections", 5)),
    purpose="painting", glue=True, leaf=_LOG, board=_BOARD, covering=_CLOTH),
    Recipe("padcover", "cover for a pad", "Pad at the telescope", "A cover round the head of a bought pad, "
    "which slides in and is changed when it is full.", "write", "first "
    "book", "A6", "50 "
    "leaves", 20, 200,
    kept=(("pages.kind", "pad"), ("binding.kind", "asbought"), ("cover.kind", "padcover")), glue=True,
    leaf=_THIN, cover=_RUST),
    Recipe("rings", "leaves on two rings", "Constellation cards", "Loose leaves on two rings that open: put "
    "in, taken out, turned right round.", "keep", "first "
    "book", "A5", "40 "
    "leaves", 16, 300, kept=(("pages.kind", "leaves"), ("binding.kind", "rings"), ("cover.kind", "cards")),
    leaf=_LOG, cover=_KRAFT),
    Recipe("fliptop", "flip-top pad on rings", "Eyepiece notes", "Held at the head: it flips up and lies "
    "under itself.", "write", "first "
    "book", "A6", "50 "
    "leaves", 16, 200,
    kept=(("pages.kind", "leaves"), ("binding.kind", "rings"), ("binding.bound_at", "head"),
    ("binding.inner_mm", 19.0), ("binding.wire_mm", 2.0), ("cover.kind", "punchedboards")), leaf=_THIN,
    board=_BOARD),
    Recipe("strips", "leaves on a ring strip", "Night duty folder", "Three rings on one bar, opened "
    "together: the bar says where the holes are.", "keep", "first "
    "book", "A5", "60 "
    "leaves", 16, 240, kept=(("pages.kind", "leaves"), ("binding.kind", "strips"), ("cover.kind", "cards")),
    leaf=_LOG, cover=_MOSS),
    Recipe("filing", "leaves for a binder", "Minutes of the society", "Two or four filing holes by the "
    "standard, for a binder you have.", "keep", "first "
    "book", "A4", "60 "
    "leaves", 4, 500, kept=(("pages.kind", "leaves"), ("binding.kind", "filing"), ("cover.kind", "bare")),
    leaf=_THIN_A4),
    Recipe("planner", "six-hole planner leaves", "Observing planner", "Six holes in two groups, for a "
    "planner's binder.", "write", "first "
    "book", "A5", "80 "
    "leaves", 8, 300, kept=(("pages.kind", "leaves"), ("binding.kind", "planner"), ("cover.kind", "bare")),
    leaf=_LOG),
    Recipe("wire", "notebook on wire", "Star party notebook", "A row of wire loops: turns right round and "
    "lies flat.", "write", "some "
    "practice", "A5", "60 "
    "leaves", 20, 240, kept=(("pages.kind", "leaves"), ("binding.kind", "wire"), ("cover.kind", "cards")),
    leaf=_LOG, cover=_NIGHT),
    Recipe("coil", "sketch pad on a coil", "Crater sketches", "One coil screwed through a row of holes; "
    "springs back when it is bent.", "paint", "first "
    "book", "A5", "40 "
    "leaves", 12, 300, kept=(("pages.kind", "leaves"), ("binding.kind", "coil"), ("cover.kind", "cards")),
    leaf=_LOG, cover=_KRAFT),
    Recipe("posts", "album on screw posts", "Album of the dome", "Screw posts through boards and scored "
    "leaves; more can be added.", "photographs", "some "
    "practice", "200 "
    "× 200", "30 "
    "leaves", 10, 120,
    kept=(("pages.kind", "leaves"), ("binding.kind", "posts"), ("binding.hinge_mm", 22.0),
    ("cover.kind", "punchedboards")), leaf=_KRAFT, board=_BOARD),
    Recipe("batten", "battens and posts", "Log of the big telescope", "A thin batten before and behind the "
    "held edge, with posts through both.", "keep", "some "
    "practice", "A5", "60 "
    "leaves", 20, 300, kept=(("pages.kind", "leaves"), ("binding.kind", "batten"), ("cover.kind", "cards")),
    leaf=_LOG, cover=_RUST),
    Recipe("stickband", "stick and rubber band", "Menu of the night sky", "A stick along the edge and a band "
    "through two holes: changed in a moment.", "give", "first "
    "book", "A5", "24 "
    "leaves", 8, 120,
    kept=(("pages.kind", "leaves"), ("binding.kind", "stickband"), ("cover.kind", "cards")), leaf=_LOG,
    cover=_KRAFT),
    Recipe("keyring", "tags on a key ring", "Star name tags", "One hole in the corner, a brad, and a loop "
    "that carries a key ring.", "keep", "first "
    "book", "60 "
    "× 90", "24 "
    "leaves", 6, 80, kept=(("pages.kind", "leaves"), ("binding.kind", "keyring"), ("cover.kind", "cards")),
    leaf=_LOG, cover=_RUST),
    Recipe("sticks", "sewn sticks", "Driftwood almanac", "A stick lashed on every section, cloth strips "
    "woven between them and glued to boards.", "keep", "takes "
    "care", "A5", "96 "
    "pages", 48, 240, kept=(("binding.kind", "sticks"), ("pages.sections", 6), ("cover.kind", "boards")),
    leaf=_LOG, board=_BOARD),
    Recipe("loop", "booklet in a loop", "Telescope queue", "A loop of elastic holds the booklet; it is "
    "changed for a new one in a moment.", "keep", "first "
    "book", "A6", "32 "
    "pages", 16, 48, kept=(("binding.kind", "loop"),), leaf=_LOG, cover=_RUST),
    Recipe("folder", "folder with pockets", "Papers of the open night", "One sheet with a gusset and two "
    "pockets, for loose papers.", "keep", "first "
    "book", "A5", "", 2, 12,
    kept=(("pages.kind", "folder"), ("binding.kind", "itself"), ("cover.kind", "bare")), glue=True,
    card=_FOLDING, mat=_STARS),
    Recipe("crossfold", "cross-fold folio", "Eclipse in six pictures", "Arms fold in from every side over a "
    "middle, each on a gusset of its own.", "photographs", "some "
    "practice", "113 "
    "× 163", "", 6, 24,
    kept=(("pages.kind", "crossfold"), ("pages.photo", "10x15"), ("binding.kind", "itself"),
    ("cover.kind", "bare")), purpose="photographs", card=_FOLDING, mat=_STARS),
    Recipe("nested", "nested folders", "Three nights in the hills", "Folders one in another, their spines "
    "narrower towards the inside.", "photographs", "some "
    "practice", "150 "
    "× 200", "", 4, 24,
    kept=(("pages.kind", "nested"), ("pages.photo", "4x6"), ("binding.kind", "itself"),
    ("cover.kind", "bare")), purpose="photographs", glue=True, card=_FOLDING, mat=_STARS),
    Recipe("free", "free folio", "Map that folds its own way", "You draw it: scores, flaps, directions and "
    "the order of shutting.", "keep", "takes "
    "care", "A6", "", 2, 24,
    kept=(("pages.kind", "free"), ("binding.kind", "itself"), ("cover.kind", "bare")), glue=True,
    card=_FOLDING, mat=_STARS),
    Recipe("bagfolio", "folio of three bags", "Tickets and small maps", "Three bags side by side, folded in "
    "as three parts.", "keep", "some "
    "practice", "140 "
    "× 200", "", 2, 12,
    kept=(("pages.kind", "bagfolio"), ("pages.mats", "no"), ("binding.kind", "itself"),
    ("cover.kind", "bare")), glue=True, card=_ENVELOPE, mat=_STARS),
    Recipe("concertina", "concertina in a wrap", "Phases of the moon", "Strips joined by tabs, folded to and "
    "fro, in a wrap that a flap closes.", "photographs", "first "
    "book", "120 "
    "× 160", "8 "
    "leaves", 4, 48,
    kept=(("pages.kind", "concertina"), ("binding.kind", "ends"), ("cover.kind", "flapped")),
    purpose="photographs", glue=True, cover=_NIGHT, card=_FOLDING, mat=_STARS),
    Recipe("hills", "album on a strip of hills", "Album of the comet years", "A folded strip with a hill for "
    "every leaf, between boards.", "photographs", "takes "
    "care", "180 "
    "× 180", "8 "
    "leaves", 8, 48,
    kept=(("pages.kind", "album"), ("pages.photo", "10x15"), ("pages.bulk", "layered"),
    ("binding.kind", "hills"), ("cover.kind", "threepiece")), purpose="photographs", glue=True, leaf=_ALBUM,
    board=_BOARD, covering=_SHEETS, card=_FOLDING, mat=_STARS),
    Recipe("connectors", "album on connector hinges", "Faces of the society", "Leaves in a chain of folded "
    "connectors, with flips from the fore edge.", "photographs", "some "
    "practice", "160 "
    "× 200", "6 "
    "leaves", 6, 32,
    kept=(("pages.kind", "album"), ("pages.leaf_is", "tag"), ("pages.flips", "fore"),
    ("binding.kind", "connectors"), ("cover.kind", "threepiece")), purpose="photographs", glue=True,
    board=_BOARD, covering=_SHEETS, card=_FOLDING, mat=_STARS),
    Recipe("zigzag", "tags on a zigzag spine", "Tags of the star party", "A spine folded to and fro, a tag "
    "on every panel that faces up.", "keep", "first "
    "book", "90 "
    "× 150", "8 "
    "leaves", 8, 40,
    kept=(("pages.kind", "album"), ("pages.leaf_is", "tag"), ("binding.kind", "zigzag"),
    ("cover.kind", "flatwrap")), glue=True, cover=_RUST, card=_FOLDING, mat=_STARS),
    Recipe("row", "pairs under cords", "Nights of the week", "Leaves in pairs side by side on a spine, held "
    "by cords over eyelets.", "keep", "some "
    "practice", "A6", "14 "
    "leaves", 4, 48,
    kept=(("pages.kind", "pairs"), ("binding.kind", "eyecords"), ("cover.kind", "flatwrap")), glue=True,
    cover=_MOSS, card=_FOLDING, mat=_STARS),
    Recipe("pocketpages", "pocket pages on rings", "Slides and negatives", "Leaves that are pockets, each "
    "from one folded strip, on two rings.", "photographs", "first "
    "book", "140 "
    "× 200", "10 "
    "leaves", 4, 60,
    kept=(("pages.kind", "pocketpages"), ("pages.mats", "no"), ("binding.kind", "rings"),
    ("cover.kind", "cards")), purpose="photographs", glue=True, cover=_KRAFT, card=_FOLDING, mat=_STARS),
    Recipe("machine", "machine-sewn booklet", "Star party flyer book", "A seam along the fold, quick for a "
    "whole run.", "give", "some "
    "practice", "A6", "16 "
    "pages", 4, 32, kept=(("binding.kind", "machine"),), purpose="gift", leaf=_LOG, cover=_KRAFT),
    Recipe("own", "a stitch of your own", "Experiment one", "Tap the holes in the order you sew them; Pleat "
    "says what cannot be sewn.", "keep", "takes "
    "care", "A5", "32 "
    "pages", 8, 48, kept=(("binding.kind", "own"),), leaf=_LOG, cover=_NIGHT),
)  # fmt: skip
"""Every recipe in the order shown; each has a book file of its name among the examples."""


def recipe(name: str) -> Recipe | None:
    return next((one for one in RECIPES if one.name == name), None)


@dataclass(frozen=True)
class Advice:
    """A recipe that answers what is wanted, with the reasons for it and against it."""

    recipe: Recipe
    reasons: tuple[str, ...]
    against: tuple[str, ...]


def advise(use: str, pages: int, wishes: frozenset[str]) -> tuple[Advice, ...]:
    """All recipes, the best answer first: what it is for counts most, then every wish, then whether it suits
    so many pages.

    >>> advise("write", 72, frozenset())[0].recipe.name
    'thick'
    """
    found = []
    for place, one in enumerate(RECIPES):
        met = one.wishes(chosen(one.book()))
        reasons: list[str] = []
        against: list[str] = []
        (reasons if one.use == use else against).append(f"it is {USES[one.use]}")
        fits = one.fewest <= pages <= one.most
        (reasons if fits else against).append(f"it suits {one.fewest} to {one.most} pages")
        for wish in sorted(wishes & set(WISHES)):
            (reasons if wish in met else against).append(
                WISHES[wish] if wish in met else f"not “{WISHES[wish]}”"
            )
        far = 0 if fits else min(abs(pages - one.fewest), abs(pages - one.most))
        found.append(
            (
                (one.use != use) * 4 + len(wishes - met) * 3 + (not fits) * 2,
                far,
                place,
                Advice(one, tuple(reasons), tuple(against)),
            )
        )
    return tuple(advice for *_, advice in sorted(found, key=lambda row: row[:3]))
