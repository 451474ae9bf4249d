"""What a case reads of a plan's data: small functions over the JSON that ``pleat plan`` prints, so that a
case holds whatever is inside.

A case: ``example`` (a recipe's) or ``book`` (a whole file); ``drop`` (paths taken out), ``set`` (paths and
their values; one that ends in .kind begins that part anew); ``others`` (further sets by name, for comparing);
``take`` (offers, one after the other: the key of a check, a colon and a pattern for its label, or a pattern
alone); ``read`` (an expression); ``want`` (a text is an expression on ``got`` that has to be true; anything
else is the right value itself); ``why``. With ``or_not_made`` an offer that is no way out may be gone.
"""

from __future__ import annotations

import copy
import fnmatch
import fractions
import json
import re
from typing import Any

from pleat.core.base.errors import BadBook
from pleat.core.document.bookfile import read_book, write_book
from pleat.core.whole.planfile import plan_data
from pleat.core.whole.planning import PLEATS, make_plan
from tests.put import of


def all_checks(plan):
    """Every check, that of the first pleat first, each with its pleat."""
    return [{**one, "pleat": name} for name in PLEATS for one in plan[name]["checks"]]


def check(plan, key):
    return [f"{one['pleat']} {one['level']}: {one['title']}" for one in all_checks(plan) if one["key"] == key]


def told(plan, *words):
    """The checks that say one of the words, in title or reason."""
    return [
        f"{one['key']} {one['level']}: {one['title']}"
        for one in all_checks(plan)
        if any(word.lower() in (one["title"] + " " + one["why"]).lower() for word in words)
    ]


def stops(plan):
    return [f"{one['key']}: {one['title']}" for one in all_checks(plan) if one["level"] == "stop"]


def watches(plan):
    return [f"{one['key']}: {one['title']}" for one in all_checks(plan) if one["level"] == "watch"]


def offers(plan, key=None):
    found = [
        offer["label"] for one in all_checks(plan) if key in (None, one["key"]) for offer in one["offers"]
    ]
    return found + (
        [offer["label"] for name in PLEATS for offer in plan[name]["offers"]] if key is None else []
    )


def figure(plan, pleat, key, what="value"):
    return next((one[what] for one in plan[pleat]["figures"] if one["key"] == key), None)


def parts(plan):
    return [one for name in PLEATS for one in plan[name]["parts"]]


def part(plan, key):
    return next((one for one in parts(plan) if one["key"] == key), {})


def folds(plan, key, axis="upright"):
    return [one["position_mm"] for one in part(plan, key).get("folds", []) if one["axis"] == axis]


def cut(plan, key):
    return next((one for one in plan["cutting"]["cuts"] if one["part"]["key"] == key), {})


def steps(plan):
    return [one["step"] for one in plan["bench"]["steps"]]


def step(plan, key):
    return next(
        (one for one in steps(plan) if one["key"] == key),
        {"title": "no such step", "detail": "", "minutes": 0, "wait_minutes": 0},
    )


def number(plan, *words):
    """The numbers of the steps whose title says one of the words."""
    return [
        at
        for at, one in enumerate(steps(plan), 1)
        if any(word.lower() in one["title"].lower() for word in words)
    ]


def said(plan, *words):
    """The titles of the steps that say one of the words, in title or detail."""
    return [
        one["title"]
        for one in steps(plan)
        if any(word.lower() in (one["title"] + " " + one["detail"]).lower() for word in words)
    ]


def thing(plan, key):
    return next((one["thing"] for one in plan["extras"]["items"] if one["key"] == key), {})


def inches(text):
    """Every number of a text as inches: 2 3/16 is 2.1875."""
    found = re.findall(r"(\d+ \d+/\d+|\d+/\d+|\d+(?:\.\d+)?)", text)
    return [float(sum(fractions.Fraction(piece) for piece in one.split())) for one in found]


def ruled(mm, step=1 / 16):
    """Millimetres as the inch ruler shows them, in inches."""
    return round(mm / 25.4 / step) * step


NAMES: dict[str, Any] = {name: known for name, known in list(globals().items()) if callable(known)}


def put(book, path, value):
    *way, last = path.split(".")
    if last == "kind" and len(way) == 1 and book.get(way[0], {}).get("kind") != value:
        aside = book.get("aside", {}).get(way[0], {}).get(value, {})
        book[way[0]] = {**copy.deepcopy(aside), "kind": value}
        return
    at = book
    for one in way:
        at = at[int(one)] if isinstance(at, list) else at.setdefault(one, {})
    at[int(last) if isinstance(at, list) else last] = value


def drop(book, path):
    *way, last = path.split(".")
    for one in way:
        book = book[int(one)] if isinstance(book, list) else book.get(one, {})
    book.pop(last, None)


def begun(case, more=()):
    book = copy.deepcopy(case["book"]) if "book" in case else json.loads(write_book(of(case["example"])))
    for path in case.get("drop", []):
        drop(book, path)
    for path, value in [*case.get("set", {}).items(), *dict(more).items()]:
        put(book, path, value)
    return book


def planned(book):
    """(the plan's data, what a book that is not taken is told)"""
    try:
        return json.loads(json.dumps(plan_data(make_plan(read_book(json.dumps(book)))))), ""
    except BadBook as error:
        return {}, str(error)


def offered(plan, pattern):
    named = [(f"{one['key']}: ", offer) for one in all_checks(plan) for offer in one["offers"]]
    named += [("", offer) for name in PLEATS for offer in plan[name]["offers"]]
    return next(
        (
            offer
            for key, offer in named
            if any(fnmatch.fnmatchcase(text, pattern) for text in (offer["label"], key + offer["label"]))
        ),
        None,
    )


def same(got, want):
    if isinstance(want, bool) or isinstance(got, bool):
        return got is want
    if isinstance(want, int | float) and isinstance(got, int | float):
        return abs(got - want) <= 0.06
    if isinstance(want, list) and isinstance(got, list):
        return len(want) == len(got) and all(same(a, b) for a, b in zip(got, want, strict=True))
    return got == want


def holds(case):
    """(whether it holds, what it gives, offers that were not made)"""
    book, missing = begun(case), []
    plan, refused = planned(book)
    takes = case.get("take", [])
    for pattern in [takes] if isinstance(takes, str) else takes:
        offer = offered(plan, pattern)
        if offer is None:
            missing.append(pattern)
            continue
        for path, value in offer["changes"]:
            put(book, path, value)
        plan, refused = planned(book)
    others = {name: planned(begun(case, more))[0] for name, more in case.get("others", {}).items()}
    try:
        got = json.loads(
            json.dumps(eval(case["read"], {**NAMES, "plan": plan, "others": others, "refused": refused}))
        )
    except KeyError:
        return False, f"refused: {refused}", missing
    held = (
        bool(eval(case["want"], {**NAMES, "got": got}))
        if isinstance(case["want"], str)
        else same(got, case["want"])
    )
    return held or bool(missing and case.get("or_not_made")), got, missing
