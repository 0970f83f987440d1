"""Drawings and tables in open formats, read back by other readers."""

import csv
from xml.etree import ElementTree

import pytest

from keelroom.assess.assess import assess
from keelroom.assess.report import ledger_rows
from keelroom.document.file import load
from keelroom.drawing.elevation import elevation
from keelroom.errors import ExportError
from keelroom.export.svg import write_svg
from keelroom.export.tables import as_text, write_csv
from tests.conftest import DEMO

BUILD = load(DEMO)
SVG = "{http://www.w3.org/2000/svg}"


def test_the_svg_is_full_size_in_millimetres(tmp_path):
    write_svg(elevation(BUILD.package, "us", BUILD.survey), tmp_path / "e.svg")
    root = ElementTree.parse(tmp_path / "e.svg").getroot()
    face = next(r for r in root.iter(f"{SVG}rect") if r.get("class") == "core.face")
    assert float(face.get("width")) == pytest.approx(26 * 25.4, abs=0.01)
    rings = [c for c in root.iter(f"{SVG}circle") if c.get("class") == "fan.ring"]
    assert [float(c.get("r")) for c in rings] == pytest.approx([6 * 25.4] * 2, abs=0.01)
    assert root.get("width").endswith("mm")
    width = float(root.get("width")[:-2])
    assert width == pytest.approx(float(root.get("viewBox").split()[2]), abs=0.01)
    assert any("face 26 in" in (t.text or "") for t in root.iter(f"{SVG}text"))


def test_the_ledger_as_csv_reads_back(tmp_path):
    rows = ledger_rows(assess(BUILD), "us")
    write_csv(rows, tmp_path / "l.csv")
    with open(tmp_path / "l.csv", encoding="utf-8-sig", newline="") as file:
        assert [tuple(row) for row in csv.reader(file)] == rows
    assert as_text([["a\tb", "c"], ["d", "e\nf"]]) == "a b\tc\nd\te f"


def test_a_folder_that_is_not_there_is_said(tmp_path):
    with pytest.raises(ExportError, match="could not be written"):
        write_csv([["a"]], tmp_path / "nowhere" / "l.csv")
    with pytest.raises(ExportError):
        write_svg(elevation(BUILD.package, "si"), tmp_path / "nowhere" / "e.svg")
