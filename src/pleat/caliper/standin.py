"""A stand-in for a digital caliper: it speaks the line protocol, and takes from the remarks what lies between
its jaws.

Its settings can be changed on the line with ``SET name value``: ``sheet`` (mm), ``noise`` (mm, standard
deviation), ``zero`` (mm), ``unit`` (mm or in) and ``fault``: none, silent, garbage, inches (an inch value
that says mm), extra (one sheet too many in the stack).
"""

from __future__ import annotations

import random
import re
import socketserver
import threading
import time
from dataclasses import dataclass, field, replace
from typing import Final, Literal, get_args

Fault = Literal["none", "silent", "garbage", "inches", "extra"]
FAULTS: Final[tuple[str, ...]] = get_args(Fault)
SILENCE_S: Final = 4.0
_STACK: Final = re.compile(r"stack of (\d{1,3})")
_SHEET: Final = re.compile(r"one sheet about (\d+\.\d+) mm")


@dataclass(frozen=True)
class Settings:
    """What the stand-in measures and how badly; ``sheet_mm`` None takes the thickness that the remark
    expects."""

    sheet_mm: float | None = None
    noise_mm: float = 0.006
    zero_mm: float = 0.0
    unit: str = "mm"
    fault: str = "none"


@dataclass
class CaliperState:
    """The settings now, what is between the jaws, and the dice."""

    settings: Settings = Settings()
    sheets: int = 0
    expected_mm: float = 0.1
    dice: random.Random = field(default_factory=random.Random)


def answer(state: CaliperState, line: str) -> str | None:
    """What the caliper says to a line; None for nothing, "" for silence that lasts until the other side gives
    up."""
    if line.startswith("#"):
        stack, sheet = _STACK.search(line), _SHEET.search(line)
        state.sheets = int(stack[1]) if stack else 0
        state.expected_mm = float(sheet[1]) if sheet else state.expected_mm
        return None
    words = line.split()
    if words[:1] == ["SET"] and len(words) == 3:
        return _set(state, words[1], words[2])
    return _reading(state) if words == ["READ"] else "ERR unknown"


def _set(state: CaliperState, name: str, value: str) -> str:
    if name == "fault" and value in FAULTS:
        state.settings = replace(state.settings, fault=value)
    elif name == "unit" and value in ("mm", "in"):
        state.settings = replace(state.settings, unit=value)
    elif name in ("sheet", "noise", "zero") and re.fullmatch(r"-?\d+(\.\d+)?", value):
        changes = {f"{name}_mm": float(value)}
        state.settings = replace(state.settings, **changes)  # type: ignore[arg-type]  # the three named above are all floats
    else:
        return "ERR setting"
    return "OK"


def _reading(state: CaliperState) -> str:
    settings = state.settings
    if settings.fault == "silent":
        return ""
    if settings.fault == "garbage":
        return "\x7f~R#?1.0!4"
    sheet = state.expected_mm if settings.sheet_mm is None else settings.sheet_mm
    sheets = state.sheets + (1 if settings.fault == "extra" and state.sheets else 0)
    mm = sheets * sheet + settings.zero_mm + (state.dice.gauss(0, settings.noise_mm) if sheets else 0.0)
    if settings.fault == "inches":
        return f"R {mm / 25.4:.4f} mm"
    return f"R {mm / 25.4:.4f} in" if settings.unit == "in" else f"R {mm:.3f} mm"


class StandIn(socketserver.ThreadingTCPServer):
    """The stand-in on a port of this machine; ``address`` is where it listens."""

    allow_reuse_address = True
    daemon_threads = True

    def __init__(self, port: int = 0, settings: Settings | None = None, seed: int | None = None) -> None:
        self.state = CaliperState(settings or Settings(), dice=random.Random(seed))
        super().__init__(("127.0.0.1", port), _Line)

    @property
    def address(self) -> str:
        return f"127.0.0.1:{self.server_address[1]}"

    def start(self) -> None:
        """Listen in a thread of its own, until ``shutdown``."""
        threading.Thread(target=self.serve_forever, daemon=True).start()


class _Line(socketserver.StreamRequestHandler):
    server: StandIn
    timeout = 30

    def handle(self) -> None:
        while line := self.rfile.readline(200):
            said = answer(self.server.state, line.decode("ascii", "replace").strip())
            if said == "":
                time.sleep(SILENCE_S)
                return
            if said is not None:
                self.wfile.write(f"{said}\n".encode("ascii", "replace"))
