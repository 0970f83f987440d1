"""Cars and loggers read live: published encodings, independent peers on both ends, and every way a line breaks."""

from itertools import pairwise

import numpy as np
import obdii
import pytest

from keelroom.devices.adapter import Adapter
from keelroom.devices.can_car import opened
from keelroom.devices.serial_logger import SerialLogger, columns_of, moment_of
from keelroom.devices.service01 import PIDS, DeviceError, decoded, encoded, mask_of, supported
from keelroom.devices.standin import CarStandIn, Faults, Lines, LoggerStandIn
from tests.answering import answering_car

CAR = {"coolant": np.array([92.0, 92.0]), "volts": np.array([13.9, 13.9]), "rpm": np.array([812.0, 812.0])}
LINES = Lines(np.array([0.0, 600.0]), CAR)


def read_on(read):
    """Read until it breaks, what waits in the line first."""
    for _ in range(300):
        read()


@pytest.fixture
def car():
    one = CarStandIn(LINES)
    yield one
    one.stop()


@pytest.mark.parametrize(
    ("name", "data", "value"),
    [
        ("coolant", "7B", 83.0),  # A − 40
        ("coolant", "00", -40.0),
        ("rpm", "1AF8", 1726.0),  # (256 A + B) / 4
        ("speed", "3C", 60 / 3.6),  # A km/h
        ("intake", "46", 30.0),
        ("volts", "36B0", 14.0),  # (256 A + B) / 1000
        ("load", "FF", 1.0),  # A / 255
        ("ambient", "41", 25.0),
    ],
)
def test_figures_are_those_of_the_published_formulas(name, data, value):
    """SAE J1979, service 01; the same by an independent library (py-obdii) for those it knows."""
    assert decoded(name, bytes.fromhex(data)) == pytest.approx(value)
    assert decoded(name, encoded(name, value)) == pytest.approx(value, abs=PIDS[name].factor)
    with pytest.raises(DeviceError, match="bytes"):
        decoded(name, b"")


def test_the_mask_says_what_a_car_has():
    """By hand: BE 1F A8 13 of SAE J1979 has 01, 03–07, 0C–11, 13, 15, 1C, 1F, 20."""
    numbers = supported(bytes.fromhex("BE1FA813"))
    assert numbers == {1, 3, 4, 5, 6, 7, 0x0C, 0x0D, 0x0E, 0x0F, 0x10, 0x11, 0x13, 0x15, 0x1C, 0x1F, 0x20}
    assert mask_of(numbers) == bytes.fromhex("BE1FA813")


def test_a_car_is_read_through_an_adapter(car):
    adapter = Adapter(car.port)
    assert adapter.read("coolant") == pytest.approx(92.0)
    assert adapter.read("volts") == pytest.approx(13.9)
    assert adapter.read("rpm") == pytest.approx(812.0)
    assert adapter.read("ambient") is None  # this car has none
    adapter.close()


def test_an_independent_library_reads_the_same_car(car):
    """py-obdii on the same port: what the stand-in says is what an adapter says."""
    with obdii.Connection(car.port, protocol=obdii.Protocol.ISO_15765_4_CAN) as theirs:
        answer = theirs.query(obdii.commands.ENGINE_COOLANT_TEMP)
        assert b"41 05 84" in answer.raw or answer.value == 92


def test_a_car_that_is_pulled_out_says_so():
    car = CarStandIn(LINES)
    adapter = Adapter(car.port)
    assert adapter.read("coolant") is not None
    car.stop()
    with pytest.raises(DeviceError, match=r"broke|No answer"):
        read_on(lambda: adapter.read("coolant"))


def test_a_slow_car_that_drops_answers_is_lived_with():
    car = CarStandIn(LINES, Faults(noise=0.5, lag=0.05, dropouts=0.4, seed=3))
    adapter = Adapter(car.port)
    read = [adapter.read("coolant") for _ in range(15)]
    assert None in read
    assert np.mean([value for value in read if value is not None]) == pytest.approx(92.0, abs=1.0)
    adapter.close()
    car.stop()


def test_what_is_no_adapter_or_no_port_is_said():
    with pytest.raises(DeviceError, match="Nothing can be opened at “nowhere”"):
        Adapter("nowhere")
    logger = LoggerStandIn(LINES)
    with pytest.raises(DeviceError):
        Adapter(logger.port, patience=0.4)
    logger.stop()


def test_a_logger_is_read_line_by_line():
    logger = LoggerStandIn(Lines(LINES.time, {"Upper hose": CAR["coolant"], "volts": CAR["volts"]}, 20.0))
    reader = SerialLogger(logger.port)
    moments = [reader.read() for _ in range(5)]
    assert moments[0].figures == pytest.approx({"Upper hose": 92.0, "volts": 13.9})
    assert all(b.seconds > a.seconds for a, b in pairwise(moments))
    logger.stop()
    with pytest.raises(DeviceError, match=r"broke|Nothing comes"):
        read_on(reader.read)


def test_a_loggers_lines_by_hand():
    columns = columns_of("# seconds,Upper hose F,Battery V")
    moment = moment_of("12.5,212,", columns)
    assert moment.figures == {"Upper hose": pytest.approx(100.0)}
    assert moment.dropped == ("Battery",)
    for line in ("12.5,abc,13", "12.5", "x,1,2"):
        with pytest.raises(DeviceError):
            moment_of(line, columns)
    for head in ("# seconds", "# minutes,Hose F", "# seconds,Hose K"):
        with pytest.raises(DeviceError):
            columns_of(head)


def test_a_car_is_read_over_its_own_bus():
    """python-can's in-process bus with an independent answerer on can-isotp (ISO 15765)."""
    with answering_car("bay", silent=("rpm",)):
        one = opened("virtual bay", patience=0.5)
        assert one.read("coolant") == 83.0
        assert one.read("ambient") is None
        with pytest.raises(DeviceError, match="No answer on the bus"):
            one.read("rpm")
        one.close()


@pytest.mark.parametrize("named", ["", "can0", "socketcan can0 fast", "nosuch can0"])
def test_a_bus_that_is_none_says_what_was_expected(named):
    with pytest.raises(DeviceError, match=r"an interface and a channel were expected|cannot be opened"):
        opened(named)
