"""A car that answers on python-can's in-process bus, by can-isotp (ISO 15765): a peer that is none of ours."""

import threading
from contextlib import contextmanager

import can
import isotp

from keelroom.devices.can_car import ASKS, FIRST

KNOWN = {b"\x01\x05": b"\x41\x05\x7b"}
"""coolant 0x7b: 83 degC (SAE J1979: A - 40)"""
SILENT = {"rpm": b"\x01\x0c"}


@contextmanager
def answering_car(channel, silent=()):
    """On that channel: knows its coolant, refuses the rest, and says nothing to what it is silent about."""
    bus = can.Bus(interface="virtual", channel=channel, receive_own_messages=False)
    stack = isotp.CanStack(bus, address=isotp.Address(isotp.AddressingMode.Normal_11bits, txid=FIRST, rxid=ASKS))
    stack.start()
    over, mute = threading.Event(), {SILENT[name] for name in silent}

    def answers():
        while not over.is_set():
            asked = stack.recv(block=True, timeout=0.05)
            if asked is not None and bytes(asked) not in mute:
                stack.send(KNOWN.get(bytes(asked), b"\x7f\x01\x12"))

    thread = threading.Thread(target=answers)
    thread.start()
    try:
        yield
    finally:
        over.set()
        thread.join()
        stack.stop()
        bus.shutdown()
