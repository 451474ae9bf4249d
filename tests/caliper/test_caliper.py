"""The caliper's line, stand-in and all: good readings in both units, and every fault named without a
value."""

import socket
import statistics

import pytest

from pleat.caliper import client
from pleat.caliper.client import CaliperError, read_caliper
from pleat.caliper.standin import FAULTS, CaliperState, Settings, StandIn, answer
from pleat.core.base.errors import LengthError
from pleat.core.materials.items import Paper
from pleat.core.materials.measuring import judge
from pleat.services import measuring

PAPER = Paper(name="Log paper", kind="copier", sheet_width_mm=210, sheet_height_mm=297, grammage=80)


@pytest.fixture
def stand_in(monkeypatch):
    monkeypatch.setattr(client, "TIMEOUT_S", 0.3)
    made = StandIn(settings=Settings(sheet_mm=0.104), seed=7)
    made.start()
    yield made
    made.shutdown()
    made.server_close()


def tell(stand_in, *lines):
    """Send lines to the stand-in; what it says to the last."""
    host, port = stand_in.server_address
    with socket.create_connection((host, port), timeout=2) as line:
        for one in lines:
            line.sendall(f"{one}\n".encode())
        return line.recv(100).decode().strip().splitlines()[-1]


@pytest.mark.parametrize("unit", ["mm", "in"])
def test_zero_first_then_readings_that_scatter_about_the_stack(stand_in, unit):
    assert tell(stand_in, f"SET unit {unit}") == "OK"
    assert measuring.take_zero(stand_in.address) == pytest.approx(0, abs=0.002)
    readings = [measuring.take_reading(stand_in.address, PAPER, 10) for _ in range(12)]
    assert statistics.mean(readings) == pytest.approx(1.04, abs=0.01)
    assert 0.001 < statistics.stdev(readings) < 0.02
    assert judge(readings, 10).sheet.likely == pytest.approx(0.104, abs=0.001)


def test_a_zero_error_is_found_and_taken_off(stand_in):
    tell(stand_in, "SET zero 0.13")
    session = measuring.Session(10, measuring.take_zero(stand_in.address), ())
    assert "+0.13 mm" in session.zero_said
    assert session.may_go_on
    session = measuring.Session(
        10, session.zero_mm, tuple(measuring.take_reading(stand_in.address, PAPER, 10) for _ in range(3))
    )
    assert session.judged(PAPER).sheet.likely == pytest.approx(0.104, abs=0.002)
    assert not measuring.Session(10, 1.4, ()).may_go_on, "something is between the jaws"


@pytest.mark.parametrize(
    ("fault", "words"), [("silent", "does not answer"), ("garbage", "which is no reading")]
)
def test_faults_of_the_line_are_named_and_give_no_value(stand_in, fault, words):
    tell(stand_in, f"SET fault {fault}")
    with pytest.raises(CaliperError) as caught:
        measuring.take_reading(stand_in.address, PAPER, 10)
    assert words in caught.value.text


@pytest.mark.parametrize(
    ("fault", "words"), [("inches", "measure in inches"), ("extra", "11 sheets of this weight, one too many")]
)
def test_faults_of_the_reading_are_seen_by_what_it_says(stand_in, fault, words):
    tell(stand_in, f"SET fault {fault}")
    session = measuring.Session(
        10, 0.0, tuple(measuring.take_reading(stand_in.address, PAPER, 10) for _ in range(3))
    )
    judged = session.judged(PAPER)
    assert words in judged.problem
    assert judged.sheet is None
    tell(stand_in, "SET fault none")
    mixed = (
        *session.readings_mm[:1],
        *(measuring.take_reading(stand_in.address, PAPER, 10) for _ in range(3)),
    )
    judged = judge(mixed, 10)
    assert [one.mm for one in judged.thrown] == [mixed[0]], "one odd reading among good ones is thrown out"


@pytest.mark.parametrize(
    ("address", "fault"), [("127.0.0.1:9", "absent"), ("nowhere", "address"), ("127.0.0.1:x", "address")]
)
def test_no_caliper_at_all(address, fault):
    with pytest.raises(CaliperError) as caught:
        read_caliper(address, "jaws closed")
    assert caught.value.fault == fault


@pytest.mark.parametrize(
    ("said", "fault"),
    [
        (b"R 1.040 mm\n", None),
        (b"R -0.020 mm\n", None),
        (b"R 0.0410 in\nmore", None),
        (b"ERR battery\n", "error"),
        (b"R 9999.0 mm\n", "range"),
        (b"R 1.04\n", "garbage"),
        (b"R nan mm\n", "garbage"),
        (b"R 1,04 mm\n", "garbage"),
        (b"\xff\xfe\n", "garbage"),
        (b"x" * 5000, "garbage"),
        (b"", "silent"),
    ],
)
def test_whatever_a_device_says(said, fault, monkeypatch):
    monkeypatch.setattr(client, "TIMEOUT_S", 0.3)
    with socket.create_server(("127.0.0.1", 0)) as server:
        import threading

        def speak():
            line, _ = server.accept()
            with line:
                line.recv(100)
                line.sendall(said)

        threading.Thread(target=speak, daemon=True).start()
        address = f"127.0.0.1:{server.getsockname()[1]}"
        if fault is None:
            assert abs(read_caliper(address, "x").mm) < 2
        else:
            with pytest.raises(CaliperError) as caught:
                read_caliper(address, "x")
            assert caught.value.fault == fault


def test_the_stand_ins_settings():
    state = CaliperState()
    assert answer(state, "# stack of 10, one sheet about 0.25 mm") is None
    assert (state.sheets, state.expected_mm) == (10, 0.25)
    assert answer(state, "READ").endswith(" mm")
    assert answer(state, "# jaws closed") is None
    assert answer(state, "READ") == "R 0.000 mm"
    for wrong in ("SET fault none x", "SET fault burning", "SET unit ell", "SET noise much", "HELLO", ""):
        assert answer(state, wrong).startswith("ERR")
    assert all(answer(state, f"SET fault {fault}") == "OK" for fault in FAULTS)


@pytest.mark.parametrize(
    ("text", "mm"), [("1.04", 1.04), ("1,04", 1.04), ("0.041 in", 1.0414), ("41 thou", 1.0414)]
)
def test_typing_by_hand_always_works(text, mm):
    assert measuring.typed_reading(text) == pytest.approx(mm)
    for wrong in ("", "thick", "0", "900"):
        with pytest.raises(LengthError):
            measuring.typed_reading(wrong)
