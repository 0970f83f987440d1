"""Exit codes: 1 is findings and nothing else; whatever was not done is 2 with one sentence, on any terminal."""

import json
import os
import subprocess
import sys

import pytest

from keelroom import cli
from keelroom.assess.judge.part import Part
from keelroom.document.file import load, save
from tests.changes import on
from tests.conftest import DEMO

STUCK = on(load(DEMO), (("packages", "p1", "core", "fin_density"), "1.5 fins/in", "fin density"))


def ran(*arguments, out=subprocess.PIPE, **environment):
    """The command in a process of its own."""
    kept = {
        name: value
        for name, value in os.environ.items()
        if name not in ("DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM")
    }
    return subprocess.run(
        [sys.executable, "-m", "keelroom", *map(str, arguments)],
        stdout=out,
        stderr=subprocess.PIPE,
        text=True,
        env=kept | environment,
        timeout=60,
    )


def one_sentence(told):
    assert told.returncode == 2
    assert told.stderr.count("\n") == 1
    assert told.stderr.startswith("keelroom: ")
    assert "Traceback" not in told.stderr
    return told.stderr


def test_a_build_that_cannot_be_worked_out_is_findings(tmp_path, capsys):
    path = tmp_path / "stuck.keelroom"
    save(STUCK, path)
    assert cli.main(["assess", str(path)]) == 1
    assert (
        "not worked out: Fins 1.5 fins/in, usual 15 fins/in: fin thickness over fin pitch is then 0.00591"
        in capsys.readouterr().out
    )
    assert cli.main(["assess", "--json", str(path)]) == 1
    told = json.loads(capsys.readouterr().out)
    assert {case["stopped"]["where"][-1] for case in told["cases"]} == {"fin_density"}
    assert cli.main(["sheet", str(path), "-o", str(tmp_path / "s.pdf")]) == 1
    assert (tmp_path / "s.pdf").read_bytes().startswith(b"%PDF")


def test_a_crash_is_one_sentence(tmp_path, monkeypatch, capsys):
    def crashes(*_given):
        raise RuntimeError("nobody thought of it")

    monkeypatch.setattr("keelroom.document.file.load", crashes)
    assert cli.main(["assess", str(DEMO)]) == 2
    assert "something went wrong inside (RuntimeError" in capsys.readouterr().err
    monkeypatch.undo()
    # A part of the judgement that crashed: what stands is printed, and that it is not all of it.
    crashes.__name__ = "claims"
    monkeypatch.setattr("keelroom.assess.judge.judge.PARTS", (Part(crashes),))
    assert cli.main(["assess", str(DEMO)]) == 2
    said = capsys.readouterr()
    assert "Steady cruise" in said.out
    assert said.err.startswith("keelroom: The judgement of claims could not be worked out")


def test_output_that_cannot_be_written_or_printed():
    with open("/dev/full", "w") as full:
        assert "No space left on device" in one_sentence(ran("assess", DEMO, out=full))
    assert "encoding (ascii) cannot print" in one_sentence(ran("assess", DEMO, PYTHONIOENCODING="ascii"))
    assert json.loads(ran("assess", "--json", DEMO, PYTHONIOENCODING="ascii").stdout)["format"] == "keelroom-assessment"


@pytest.mark.parametrize("display", [None, ":7654"])
def test_no_display(display):
    assert "there is no display" in one_sentence(ran("demo", **({"DISPLAY": display} if display else {})))


@pytest.mark.parametrize("name", ["other.keelroom", "van.pdf", "link.pdf", "same.pdf", "new.KEELROOM"])
def test_no_output_goes_onto_a_build(tmp_path, capsys, name):
    """By its name, by what it holds, through a link of either sort, or where nothing is yet."""
    van = tmp_path / "van.keelroom"
    van.write_bytes(DEMO.read_bytes())
    (tmp_path / "other.keelroom").write_bytes(DEMO.read_bytes())
    (tmp_path / "van.pdf").write_bytes(DEMO.read_bytes())
    (tmp_path / "link.pdf").symlink_to(van)
    (tmp_path / "same.pdf").hardlink_to(van)
    before = {path.name: path.read_bytes() for path in tmp_path.iterdir()}
    assert cli.main(["sheet", str(van), "-o", str(tmp_path / name)]) == 2
    assert "goes onto one; choose another name" in capsys.readouterr().err
    assert {path.name: path.read_bytes() for path in tmp_path.iterdir()} == before
