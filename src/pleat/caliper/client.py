"""Reading a caliper, stand-in or real, through the same code. Every fault is an error in the maker's words;
nothing is guessed."""

from __future__ import annotations

import math
import re
import socket
from dataclasses import dataclass
from typing import Final

from pleat.core.base.errors import PleatError
from pleat.core.base.units import MM_PER_INCH

TIMEOUT_S: Final = 2.0
LONGEST_LINE: Final = 200
"""Bytes. A reading is a dozen; a device that talks on is not a caliper."""
LARGEST_MM: Final = 300.0
_READING: Final = re.compile(r"R ([+-]?\d{1,4}\.\d{1,5}) (mm|in)")


class CaliperError(PleatError):
    """A reading that could not be had. ``fault`` is a short name, ``text`` says what to do."""

    def __init__(self, fault: str, text: str) -> None:
        self.fault = fault
        self.text = text
        super().__init__(text)


@dataclass(frozen=True)
class Reading:
    """What the caliper shows, in mm, and the unit it was set to."""

    mm: float
    unit: str


def read_caliper(address: str, remark: str) -> Reading:
    """One reading from ``host:port``. ``remark`` says what is between the jaws. Raises CaliperError."""
    host, _, port = address.rpartition(":")
    if not port.isdecimal():
        raise CaliperError(
            "address", f"“{address}” is no address of a caliper; it should look like 127.0.0.1:5186."
        )
    try:
        with socket.create_connection((host, int(port)), timeout=TIMEOUT_S) as line:
            line.sendall(f"# {remark}\nREAD\n".encode("ascii", "replace"))
            answer = _line(line)
    except TimeoutError as error:
        raise CaliperError(
            "silent",
            "The caliper does not answer. Is it switched on, and its cable in? Press its on key and try "
            "again.",
        ) from error
    except OSError as error:
        raise CaliperError(
            "absent",
            "There is no caliper on the line. Plug it in, or start the stand-in; typing readings by hand "
            "always works.",
        ) from error
    return _understood(answer)


def _line(line: socket.socket) -> str:
    """What comes up to the first line feed."""
    received = b""
    while b"\n" not in received and len(received) <= LONGEST_LINE:
        more = line.recv(256)
        if not more:
            raise TimeoutError
        received += more
    return received.split(b"\n")[0].decode("ascii", "replace").strip()


def _understood(answer: str) -> Reading:
    if answer.startswith("ERR"):
        raise CaliperError(
            "error",
            f"The caliper reports a fault ({answer[4:40].strip() or 'no word'}). Wipe the jaws and its "
            "scale, and try again.",
        )
    found = _READING.fullmatch(answer)
    if not found:
        shown = "".join(c if c.isprintable() and c.isascii() else "·" for c in answer[:24])
        raise CaliperError(
            "garbage",
            f"The caliper sent “{shown}”, which is no reading. Nothing was taken. Check the cable and press "
            "again.",
        )
    mm = float(found[1]) * (MM_PER_INCH if found[2] == "in" else 1.0)
    if not math.isfinite(mm) or abs(mm) > LARGEST_MM:
        raise CaliperError(
            "range",
            f"The caliper shows {found[1]} {found[2]}, wider than its jaws go. Close it, set its zero and "
            "try again.",
        )
    return Reading(mm, found[2])
