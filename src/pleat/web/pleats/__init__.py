"""What each pleat's template needs: its drawings and a few words. One module a pleat, named as in the core."""

from collections.abc import Callable, Collection
from typing import Any, Final

from pleat.services.books import Opened
from pleat.web.pleats import bench, binding, brief, cover, cutting, extras, pages, paper

_MODULES: Final = {
    "brief": brief,
    "paper": paper,
    "pages": pages,
    "extras": extras,
    "binding": binding,
    "cover": cover,
    "cutting": cutting,
    "bench": bench,
}
VIEWS: Final[dict[str, Callable[[Opened], dict[str, Any]]]] = {name: module.view for name, module in _MODULES.items()}


def stale(changed: Collection[str]) -> tuple[str, ...]:
    """The pleats to be shown anew when these changed: themselves, and those whose view reads one of them."""
    return tuple(name for name, module in _MODULES.items() if name in changed or not module.READS.isdisjoint(changed))


QUESTIONS: Final = {
    "brief": "What am I making, how big, and how many?",
    "paper": "What is it made from, and how thick is that?",
    "pages": "How many sheets, folded how, give how many pages?",
    "extras": "What pockets, flaps and bands go in?",
    "binding": "Where do the holes go, and which way does the thread run?",
    "cover": "What do I cut the cover to, and where do I score it?",
    "cutting": "How do I cut all that from what I own?",
    "bench": "What do I do now, and what must I not forget?",
}
