"""Tests that cannot fail prove nothing: each deliberate fault must turn its tests red."""

import pytest

from tests.faults.catalogue import FAULTS
from tests.faults.run import red_tests


@pytest.mark.parametrize("fault", FAULTS, ids=lambda fault: fault.name)
def test_a_deliberate_fault_is_noticed(fault):
    red, closing = red_tests(fault)
    assert red, f"nothing noticed it: {closing}"
