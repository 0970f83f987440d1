"""The pages of the docs name only what exists, and the check that says so can fail."""

import importlib.util
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[2]
_spec = importlib.util.spec_from_file_location("check_docs", ROOT / "tools/check_docs.py")
check_docs = importlib.util.module_from_spec(_spec)
_spec.loader.exec_module(check_docs)


def test_the_pages_as_they_stand():
    assert check_docs.main() == 0


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("`core/nowhere.py: solve`", "there is no core/nowhere.py"),
        ("`core/operating_point.py: slove`", "defines no slove"),
        ("`core/unsure.py: GEARBOX = 0.4`", "GEARBOX is not 0.4"),
        ("`core/unsure.py: GEARBOX = 0.25` and `core/operating_point.py: solve`", ""),
        ("`gui/gone.py`", "there is no gui/gone.py"),
    ],
)
def test_a_dead_name_is_found(text, said):
    wrong = check_docs.faults("a page", text)
    assert (said in " ".join(wrong)) if said else not wrong
