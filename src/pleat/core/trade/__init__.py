"""The numbers of the trade by subject: every limit, allowance and usual size that is no arithmetic.

They import nothing of Pleat and know no book; whoever works something out takes them from here, so that none
stands twice. Begin with ``number``. ``docs/sources.md`` lists them all with where they come from.
"""

from pleat.core.trade import cases, covers, extras, folding, holes, making, pages, paper, sewing
from pleat.core.trade.number import NUMBERS

__all__ = ["NUMBERS", "cases", "covers", "extras", "folding", "holes", "making", "pages", "paper", "sewing"]
