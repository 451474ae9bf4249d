"""Other devices: let in once by the code, listed, sent away; one that guesses keeps no other out. What a
browser may keep."""

from __future__ import annotations

import io
from typing import Any

import pytest
import segno
from flask.testing import FlaskClient
from PIL import Image
from playwright.sync_api import Page

from pleat.web import pairing
from pleat.web.app import create_app
from tests.process import on_its_page, running

HERE = {
    "PLEAT_PAIRING": "1234 5678",
    "PLEAT_HOSTS": ("192.0.2.7",),
    "PLEAT_PORT": 5191,
    "WTF_CSRF_ENABLED": False,
}


@pytest.fixture
def shared(database):
    made = create_app(database, HERE)
    yield made
    made.extensions["pleat_engine"].dispose()


def device(app, address: str) -> FlaskClient:
    """A browser of another device."""
    made = on_its_page(app)
    made.environ_base["REMOTE_ADDR"] = address
    made.environ_base["HTTP_HOST"] = "192.0.2.7:5191"
    return made


def let_in(app, address: str, name: str = "") -> FlaskClient:
    made = device(app, address)
    assert made.post("/pair", data={"code": "1234 5678", "name": name}).status_code == 303
    assert made.get("/").status_code == 200
    return made


def test_another_device_gives_the_code_once(shared):
    tablet, maker = device(shared, "192.0.2.9"), on_its_page(shared)
    assert tablet.get("/").headers["Location"].endswith("/pair")
    assert tablet.post("/import").status_code == 403
    assert tablet.get(f"{shared.static_url_path}/css/house.css").status_code == 200
    shown = maker.get("/pair").text
    assert "1234 5678" in shown
    assert "<svg" in shown
    assert "1234 5678" not in tablet.get("/pair").text, "the code stands on the maker's own screen only"
    assert tablet.post("/pair", data={"code": "0000 0000"}).status_code == 422
    assert tablet.post("/pair", data={"code": "12345678"}).status_code == 303
    assert tablet.get("/").status_code == 200
    scanned = device(shared, "192.0.2.10")
    assert scanned.get("/pair?code=12345678").status_code == 303
    assert scanned.get("/").status_code == 200
    names = shared.test_client().get("/new").headers.getlist("Set-Cookie")
    assert all(name.startswith("pleat_5191") for name in names), (
        "two Pleats on one machine keep their own cookies"
    )


def test_one_that_guesses_is_not_listened_to_and_keeps_no_other_out(shared, monkeypatch):
    moment = [1000.0]
    monkeypatch.setattr(pairing.time, "monotonic", lambda: moment[0])
    guess = device(shared, "192.0.2.66")
    codes = [
        guess.post("/pair", data={"code": str(number)}).status_code for number in range(pairing.TRIES + 3)
    ]
    assert codes == [422] * pairing.TRIES + [429] * 3
    assert guess.post("/pair", data={"code": "12345678"}).status_code == 429, "nor the right one, for a while"
    let_in(shared, "192.0.2.9")
    moment[0] += pairing.TRIES_IN_S + 1
    assert guess.post("/pair", data={"code": "12345678"}).status_code == 303, (
        "afterwards its right code gets in"
    )


def test_an_address_of_the_same_network_is_the_same_device(shared):
    """A device gives itself new IPv6 addresses as it likes (RFC 8981); wrong codes from any of them are its
    own."""
    codes = [
        device(shared, f"2001:db8::{number:x}").post("/pair", data={"code": "1"}).status_code
        for number in range(1, pairing.TRIES + 2)
    ]
    assert codes[-1] == 429
    assert device(shared, "2001:db8:0:1::1").post("/pair", data={"code": "1"}).status_code == 422


def test_devices_are_listed_with_when_they_were_seen_and_sent_away_for_good(shared):
    bench, other, maker = (
        let_in(shared, "192.0.2.9", "bench <tablet>"),
        let_in(shared, "192.0.2.10"),
        on_its_page(shared),
    )
    page = maker.get("/pair").text
    assert "bench &lt;tablet&gt;" in page
    assert "device 2" in page
    assert page.count("data-clock") == 2
    assert bench.post("/pair/1/away").status_code == 403, "only the maker's own screen sends one away"
    assert maker.post("/pair/1/away").status_code == 303
    for asked in (bench.get("/"), bench.post("/books/1/bin")):
        assert asked.status_code in (303, 403)
        assert b"Your books" not in asked.data
    assert other.get("/").status_code == 200
    assert "bench &lt;tablet&gt; gets in no more" in maker.get("/pair").text
    assert "bench" not in maker.get("/pair").text
    assert maker.post("/pair/1/away").status_code == 303
    assert bench.post("/pair", data={"code": "12345678"}).status_code == 303, "with the code it gets in again"
    assert bench.get("/").status_code == 200


def test_a_cookie_of_another_database_is_none(shared, tmp_path):
    """Two databases in one folder have one key; each knows its own devices only."""
    tablet = let_in(shared, "192.0.2.9")
    other = create_app(tmp_path / "other.db", HERE)
    let_in(other, "192.0.2.12")
    stranger = device(other, "192.0.2.9")
    cookie = tablet.get_cookie("pleat_5191_paired")
    assert cookie
    stranger.set_cookie("pleat_5191_paired", cookie.value)
    assert stranger.get("/").status_code == 303
    other.extensions["pleat_engine"].dispose()


@pytest.mark.parametrize("dark", ["0", "1"])
def test_the_pairing_code_is_seen_as_it_is_drawn_with_its_clear_margin(page: Page, demo_database, dark):
    """ISO/IEC 18004 asks for four clear modules all round; whatever the page's styles, what is seen is the
    code and nothing else."""
    config: dict[str, Any] = {
        "PLEAT_PAIRING": "1234 5678",
        "PLEAT_PORT": 5180,
        "PLEAT_HOSTS": ["127.0.0.1", "192.168.7.20"],
    }
    matrix = [
        list(row)
        for row in segno.make("http://192.168.7.20:5180/pair?code=12345678", error="m").matrix_iter(border=4)
    ]
    page.add_init_script(f"localStorage.setItem('pleat-dark', '{dark}')")
    with running(demo_database, config) as address:
        page.goto(f"{address}/pair")
        seen = Image.open(io.BytesIO(page.locator(".pairing-places svg").screenshot())).convert(
            "1", dither=Image.Dither.NONE
        )
    step = seen.width / len(matrix)
    assert seen.height == pytest.approx(seen.width, abs=1)
    for y, row in enumerate(matrix):
        assert [
            seen.getpixel((int((x + 0.5) * step), int((y + 0.5) * step))) == 0 for x in range(len(row))
        ] == [bool(one) for one in row]
