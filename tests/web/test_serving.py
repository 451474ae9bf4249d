"""What serving does beside answering."""

from __future__ import annotations

import gc
import time
import weakref

from flask import Flask

from pleat.web.serving import tidy_when_quiet


class Ring:
    """Refers to itself, so that only looking for garbage lets it go."""

    def __init__(self) -> None:
        self.own = self


def test_garbage_is_let_go_once_nobody_asks_and_not_while_they_do():
    app, quiet_s, before = Flask(__name__), 0.4, gc.get_threshold()
    app.add_url_rule("/", view_func=lambda: "answered")
    try:
        tidy_when_quiet(app, quiet_s)
        left = weakref.ref(Ring())
        begun = time.monotonic()
        while time.monotonic() < begun + 2 * quiet_s:  # without a pause
            assert app.test_client().get("/").text == "answered"
            assert left() is not None
        latest = time.monotonic() + 20
        while left() is not None:
            assert time.monotonic() < latest
            time.sleep(0.05)
    finally:
        gc.set_threshold(*before)
        gc.unfreeze()
