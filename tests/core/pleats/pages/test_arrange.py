"""Arranging mixed papers: against brute force on small piles, against random orders on large ones, and by its
laws."""

import itertools
import random

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from pleat.core.pleats.pages.arrange import PileFolio, alike, arrange, costs_of, meetings, told
from tests.profiles import examples

WORDS = ["map", "stars", "indigo", "kraft", "grid", "moon", "gold", "plain"]


def pile_of(count, seed):
    dice = random.Random(seed)
    return [
        PileFolio(
            number,
            dice.choice([0.08, 0.1, 0.15, 0.25]),
            dice.choice([210.0, 210.0, 200.0, 150.0]),
            dice.choice(["weak", "usual", "usual", "tough"]),
            frozenset(dice.sample(WORDS, 2)),
            dice.random() < 0.15,
        )
        for number in range(count)
    ]


def cuts(order, sections):
    for places in itertools.combinations(range(1, len(order)), sections - 1):
        ends = (0, *places, len(order))
        yield tuple(tuple(order[a:b]) for a, b in itertools.pairwise(ends))


@pytest.mark.every(2)
@pytest.mark.parametrize(("count", "sections"), [(1, 1), (4, 1), (6, 1), (5, 2), (6, 2), (6, 3)])
@pytest.mark.parametrize("seed", [1, 2, 3])
def test_small_piles_are_arranged_as_well_as_can_be(count, sections, seed):
    pile = pile_of(count, seed)
    best = min(
        sum(costs_of(one, pile).values())
        for order in itertools.permutations(range(count))
        for one in cuts(order, sections)
    )
    assert arrange(pile, sections, seed).cost == pytest.approx(best, abs=1e-6)


def test_eight_sheets_in_one_section_reach_the_optimum():
    pile = pile_of(8, 9)
    best = min(sum(costs_of((order,), pile).values()) for order in itertools.permutations(range(8)))
    assert arrange(pile, 1, 0).cost == pytest.approx(best, abs=1e-6)


@pytest.mark.parametrize("seed", [4, 5])
def test_large_piles_are_far_better_than_any_of_many_random_orders(seed):
    pile, dice = pile_of(60, seed), random.Random(seed)
    found = arrange(pile, 8, seed)
    tries = []
    for _ in range(200):
        order = list(range(60))
        dice.shuffle(order)
        tries.append(sum(costs_of(tuple(tuple(order[n::8]) for n in range(8)), pile).values()))
    assert found.cost < 0.5 * min(tries)
    assert found.costs["windows"] == 0


@settings(max_examples=examples(25))
@given(st.integers(1, 24), st.integers(1, 6), st.integers(0, 50))
def test_every_sheet_is_used_once_and_the_same_seed_gives_the_same(count, sections, seed):
    pile = pile_of(count, seed)
    found = arrange(pile, sections, seed)
    assert sorted(one for section in found.sections for one in section) == list(range(count))
    assert len(found.sections) == min(sections, count)
    assert all(found.sections)
    assert arrange(pile, sections, seed) == found
    assert found.costs == pytest.approx(costs_of(found.sections, pile))
    mirrored = tuple(reversed(found.sections))
    assert sum(costs_of(mirrored, pile).values()) == pytest.approx(found.cost), "back to front is as good"


@given(st.integers(0, 30))
def test_pinned_sheets_stay_and_chosen_pairs_meet(seed):
    pile = pile_of(12, seed)
    pins = {3: (0, 0), 7: (1, 1)}
    found = arrange(pile, 3, seed, pinned=pins, pairs=[(1, 9), (5, 6)])
    assert found.sections[0][0] == 3
    assert found.sections[1][1] == 7
    together = {frozenset(pair) for pair in meetings(found.sections)}
    assert {frozenset((1, 9)), frozenset((5, 6))} <= together
    assert found.costs["pairs"] == 0


@pytest.mark.parametrize("seed", range(4))
def test_a_second_proposal_is_really_different_and_nearly_as_good(seed):
    pile = pile_of(20, seed)
    first = arrange(pile, 3, seed)
    second = arrange(pile, 3, seed + 100, unlike=first.sections)
    same = {frozenset(pair) for pair in meetings(first.sections)} & {
        frozenset(pair) for pair in meetings(second.sections)
    }
    assert len(same) <= len(meetings(first.sections)) / 3
    assert second.cost < first.cost + 25


def test_what_is_told_of_an_arrangement_is_counted_by_hand():
    """Sections of 0.3 and 0.2 mm a sheet side; a weak sheet outside, a tough one inside; two maps, two
    windows and two small ones meet."""
    maps = frozenset({"map"})
    pile = [
        PileFolio(0, 0.1, 200, "weak", frozenset({"a"})),
        PileFolio(1, 0.1, 200, "usual", maps, True),
        PileFolio(2, 0.1, 200, "tough", maps, True),
        PileFolio(3, 0.1, 100, "usual", frozenset({"b"})),
        PileFolio(4, 0.1, 120, "usual", frozenset({"c"})),
    ]
    found = told(((0, 1, 2), (3, 4)), pile, [(3, 4), (0, 4)])
    assert not any(one.met for one in found.values())
    assert {wish: one.words for wish, one in found.items()} == {
        "equal": "0.4 to 0.6 mm",
        "tough": "1 tough in the inner half, 1 weak in the outer half",
        "similar": "1 of 4 neighbours much alike",
        "windows": "1 face to face",
        "small": "1 small ones meet",
        "pairs": "1 of 2 meet",
    }
    single = told(((3,),), pile)
    assert all(one.met for one in single.values())
    assert single["equal"].words == "0.2 mm"
    assert set(found) - set(single) == {"pairs"}, "nothing is said of pairs where there are none"


def test_words_in_common_make_papers_alike():
    a, b, plain = (
        PileFolio(n, 0.1, 200, words=frozenset(words))
        for n, words in enumerate((["map", "indigo"], ["map", "gold"], []))
    )
    assert (alike(a, a), alike(a, b), alike(a, plain), alike(plain, plain)) == (
        1.0,
        pytest.approx(1 / 3),
        0.0,
        0.0,
    )
    with pytest.raises(ValueError, match="needs sheets"):
        arrange([], 1)
