"""Materials ready for use: a paper, a board or a cloth as what pieces are cut from."""

from __future__ import annotations

from dataclasses import dataclass, field
from functools import lru_cache

from pleat.core.base.estimate import Estimate
from pleat.core.base.plan import Rule
from pleat.core.base.points import point
from pleat.core.base.units import RULERS, Ruler
from pleat.core.materials.items import Board, Cloth, Material, Paper, PaperKind
from pleat.core.materials.sheet import GrainAxis
from pleat.core.materials.sizes import size_name
from pleat.core.materials.thickness import Thickness, thickness
from pleat.core.materials.uses import fits_pattern, grain_axis
from pleat.core.pleats.paper.record import ROLES
from pleat.core.trade.paper import AS_SOLD


@dataclass(frozen=True)
class Stock:
    """A material ready for use: sizes in mm; ``grain`` is the sheet's axis (w or h) or None when not known.
    Pieces name it by its ``key``.

    ``upright_only`` says that its pattern has a top, along the sheet's height. ``cloth`` comes from a roll,
    its ``price`` is that of a metre, and glue comes through one that is not ``backed``. ``in_materials``
    sheets are counted among the materials, not in the book: in all places with the same ``item`` together. A
    pad has so many ``designs``, ``each`` so many times. ``margins`` (left, top, right, bottom) are edges that
    are not used, ``windows`` (x, y, width, height) holes that no piece may have.
    """

    key: str
    role: str
    name: str
    kind: PaperKind
    form: str
    sheet_width_mm: float
    sheet_height_mm: float
    thick: Thickness
    grain: GrainAxis | None
    owned: int | None
    swatch: str
    grammage: float | None = None
    pounds: float | None = None
    grade: str | None = None
    sides: int = 2
    upright_only: bool = False
    cloth: bool = False
    in_materials: bool = False
    item: str = field(default="", repr=False)
    price: float | None = None
    backed: bool = True
    designs: int = 1
    each: int = 1
    margins: tuple[float, float, float, float] = (0.0, 0.0, 0.0, 0.0)
    windows: tuple[tuple[float, float, float, float], ...] = ()

    @property
    def usable_width_mm(self) -> float:
        """The sheet's width without the edges that are not used."""
        return max(self.sheet_width_mm - self.margins[0] - self.margins[2], 0.1)

    @property
    def usable_height_mm(self) -> float:
        """The sheet's height without the edges that are not used; of a roll all that is left."""
        return max(self.sheet_height_mm - self.margins[1] - self.margins[3], 0.1)

    @property
    def whole(self) -> bool:
        """Whether all of a sheet can be used."""
        return not any(self.margins) and not self.windows

    @property
    def roll(self) -> bool:
        """Whether lengths are cut off it: its height is what is left of it."""
        return self.cloth or self.form == "roll"

    @property
    def serves(self) -> str:
        """What it is for, in words: ``the leaves``."""
        return ROLES[self.role].serves if self.role in ROLES else "the pile"

    @property
    def caliper(self) -> Estimate:
        return self.thick.sheet

    @property
    def measured(self) -> bool:
        return self.thick.source == "measured"

    @property
    def size_name(self) -> str | None:
        return size_name(self.sheet_width_mm, self.sheet_height_mm)


@lru_cache(maxsize=2000)
def stock_of(key: str, material: Material, ruler: Ruler = RULERS["mm"]) -> Stock:
    """A material made ready for use in the role of its key; under any other key it is a paper of a pile."""
    return _stock(material, key, ruler)


@point("stock", "a material made ready to be cut from")
def _stock(material: Material, _key: str, _ruler: Ruler) -> Stock:
    raise TypeError(type(material))


@_stock.register
def _of_paper(paper: Paper, key: str, ruler: Ruler) -> Stock:
    left, _, right, _ = paper.margins
    roll = paper.form == "roll"
    return Stock(
        key=key,
        role=_role(key),
        name=paper.name,
        kind=paper.kind,
        form=paper.form,
        sheet_width_mm=paper.sheet_width_mm,
        sheet_height_mm=paper.sheet_height_mm,
        thick=thickness(paper, ruler),
        grain=grain_axis(paper.sheet_width_mm, paper.sheet_height_mm, paper.grain),
        owned=paper.owned,
        swatch=paper.swatch,
        grammage=paper.grammage,
        pounds=paper.pounds,
        grade=paper.grade,
        sides=paper.sides,
        upright_only=fits_pattern(paper),
        in_materials=paper.stock_id is not None,
        item=paper.stock_id or "",
        price=paper.price,
        designs=paper.designs,
        each=paper.each,
        margins=(left, 0.0, right, 0.0) if roll else paper.margins,
        windows=() if roll else paper.windows,
    )


@_stock.register
def _of_board(board: Board, key: str, ruler: Ruler) -> Stock:
    thick = _as_sold(board.name, board.thickness_mm, AS_SOLD["board"], ruler)
    grain = grain_axis(board.sheet_width_mm, board.sheet_height_mm, board.grain)
    return Stock(
        key=key,
        role=_role(key),
        name=board.name,
        kind="other",
        form="sheets",
        sheet_width_mm=board.sheet_width_mm,
        sheet_height_mm=board.sheet_height_mm,
        thick=thick,
        grain=grain,
        owned=board.owned,
        swatch=board.swatch,
        in_materials=board.stock_id is not None,
        item=board.stock_id or "",
        price=board.price,
    )


@_stock.register
def _of_cloth(cloth: Cloth, key: str, ruler: Ruler) -> Stock:
    """A roll, or what is left of it: its warp runs along the roll, which is its height; its right side alone
    is to be seen."""
    return Stock(
        key=key,
        role=_role(key),
        name=cloth.name,
        kind="other",
        form="roll",
        sheet_width_mm=cloth.roll_width_mm,
        sheet_height_mm=max(cloth.length_left_mm, 0.1),
        thick=_as_sold(cloth.name, cloth.thickness_mm, AS_SOLD["cloth"], ruler),
        grain="h",
        owned=1,
        swatch=cloth.swatch,
        sides=1,
        cloth=True,
        in_materials=cloth.stock_id is not None,
        item=cloth.stock_id or "",
        price=cloth.price,
        backed=cloth.backed == "yes",
    )


def _role(key: str) -> str:
    return key if key in ROLES else "pile"


def _as_sold(name: str, mm: float, part: float, ruler: Ruler) -> Thickness:
    sheet = Estimate.ranged(mm * (1 - part), mm, mm * (1 + part), f"the thickness of {name}, as it is sold")
    how = f"{ruler.fine(mm)} as it was sold, give or take {part:.0%}."
    rules = (
        Rule("chosen by you", "thickness as sold"),
        Rule("AS_SOLD", f"sold thicknesses are right to {part:.0%}"),
    )
    return Thickness(sheet, "sold", how, rules, "Measure it and type what you read.")
