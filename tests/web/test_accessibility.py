"""axe finds nothing serious or critical on any main view, light and dark."""

from __future__ import annotations

from pathlib import Path

import pytest
from playwright.sync_api import Page

from tests.profiles import LONG

AXE = (Path(__file__).parents[1] / "vendor/axe-core/axe.min.js").read_text()
VIEWS = [
    "/",
    "/new",
    "/bin",
    "/books/5/print",
    "/books/5/history",
    "/books/8/sewing?part=1",
    "/books/8/sewing/practice",
    "/books/3/sewing/own",
    "/books/14?open=extras&face=page+9",
    "/books/14?open=extras&face=inside+back+cover&design=hours",
    "/books/8?open=binding",
    "/books/8?open=cover",
    "/books/9?open=cover",
    "/books/9?open=paper",
    "/books/9/cover",
    *(
        f"/books/9/making?step={step}"
        for step in (
            "gather",
            "cut_leaves",
            "measure_sewn",
            "mark_covering",
            "glue_boards",
            "hang_in",
            "check",
        )
    ),
    "/books/10?open=binding",
    "/books/10?open=cover",
    "/books/10/turning",
    "/books/11?open=binding",
    "/books/12?open=pages",
    "/books/13?open=pages",
    "/books/13?open=binding",
    "/books/13/folding",
    "/copies",
    "/nothing",
    "/materials?make=140+x+200",
    "/materials/4",
    "/materials/30",
    "/materials/new/paper",
    "/materials/2/measure",
    "/materials/6/grain",
    "/materials/table",
    *(
        f"/books/{book}?open={name}"
        for book, name in [
            (5, "brief"),
            (5, "paper"),
            (4, "pages"),
            (5, "extras"),
            (3, "binding"),
            (2, "cover"),
            (2, "cutting"),
            (5, "bench"),
            (1, "pages"),
            (6, "pages"),
            (6, "cutting"),
        ]
    ),
]

CLASSES = [
    "/",
    "/new",
    "/books/13/folding",
    "/books/6?open=pages",
    "/books/14?open=extras&face=page+9",
    "/books/9?open=cover",
    "/books/6?open=cutting",
    "/books/5?open=bench",
    "/materials/4",
    "/books/9/making?step=glue_boards",
]
"""One view of each sort: the others are of the same templates with another book in them."""

FAINT = """() => [...document.querySelectorAll('.drawing text')].filter(
  text => text.checkVisibility()
).flatMap(text => {
  const rgb = colour => colour.match(/[\\d.]+/g).map(Number);
  const linear = v => v <= .04045 ? v / 12.92 : ((v + .055) / 1.055) ** 2.4;
  const light = ([r, g, b]) => [r, g, b].map(v => linear(v / 255))
    .reduce((sum, v, i) => sum + v * [.2126, .7152, .0722][i], 0);
  const box = text.getBoundingClientRect(), svg = text.closest('svg');
  const under = [...svg.querySelectorAll('rect, path, circle, polygon')].filter(shape => {
    const at = new DOMPoint(box.x + box.width / 2, box.y + box.height / 2)
      .matrixTransform(shape.getScreenCTM().inverse());
    const style = getComputedStyle(shape), fill = style.fill;
    return fill.startsWith('rgb') && style.fillOpacity * style.opacity > .9
      && (rgb(fill)[3] ?? 1) > .9 && shape.isPointInFill(at)
      && shape.compareDocumentPosition(text) & Node.DOCUMENT_POSITION_FOLLOWING;
  });
  const ground = under.length ? getComputedStyle(under.at(-1)).fill
    : getComputedStyle(document.body).backgroundColor;
  const [a, b] = [getComputedStyle(text).fill, ground].map(one => light(rgb(one))).sort();
  const ratio = (Math.max(a, b) + .05) / (Math.min(a, b) + .05);
  return ratio < 4.5 ? [`${text.textContent} (${text.getAttribute('class')}): ${ratio.toFixed(1)}`] : [];
})"""
"""Words in drawings, which axe does not look at: those with less than the contrast of WCAG 2.2, 1.4.3."""


@pytest.mark.every(2)
@pytest.mark.parametrize("part", range(4))  # so that two workers share them; the long run looks at all views
def test_no_serious_finding_light_or_dark(page: Page, part: int):
    page.emulate_media(reduced_motion="reduce", color_scheme="light")
    found = {}
    for view in (VIEWS if LONG else CLASSES)[part::4]:
        page.goto(view)
        page.evaluate("document.fonts.ready")
        if view.startswith("/books/") and "open=" in view:
            page.locator(".strip[aria-expanded=true]").wait_for(state="attached")
        if view == "/books/6?open=pages":
            page.locator(".fan-sheet").first.click()  # the slip of a chosen sheet belongs to the view
        page.evaluate(AXE)
        for theme, only in (
            ("light", ""),
            ("dark", ", runOnly: ['color-contrast']"),
        ):  # in the dark only the colours differ
            was = page.evaluate(
                "theme => [document.documentElement.dataset.theme, document.documentElement.dataset.theme = "
                "theme][0]",
                theme,
            )
            assert was == "light", "as the system prefers, until it is changed here"
            results = page.evaluate(f"axe.run({{resultTypes: ['violations']{only}}})")
            serious = [
                f"{one['id']}: {one['nodes'][0]['html'][:160]} "
                f"{one['nodes'][0].get('failureSummary', '')[:200]} (+{len(one['nodes']) - 1})"
                for one in results["violations"]
                if one["impact"] in ("serious", "critical")
            ]
            serious += page.evaluate(FAINT)
            if serious:
                found[view, theme] = serious
    assert found == {}
