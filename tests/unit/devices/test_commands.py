"""Stand-ins and trials from the command line."""

import json

from keelroom import cli
from keelroom.document.file import load, serialised
from tests.conftest import DEMO
from tests.drives import leg
from tests.trials import reading, trial, with_trials


def test_a_stand_in_says_its_port_and_goes_when_it_is_pulled_out(capsys):
    for kind in ("car", "logger"):
        assert cli.main(["standin", kind, str(DEMO), "--pace", "60", "--dies", "0.2"]) == 0
        assert capsys.readouterr().out.startswith(f"{kind}: /dev/")
    assert cli.main(["standin", "car", str(DEMO), "--schedule", "nowhere"]) != 0
    assert "There is no such drive; there are soak, traffic, quarry" in capsys.readouterr().err


def test_trials_are_told_in_words_and_for_machines(capsys, tmp_path):
    hill = leg("hold", "14 min", speed="45 mph", grade="5 %", gear_step="1.4", id="hill")
    one = trial(hill, begins="settled", name="Mill road", readings=(reading("upper", "13 min", temperature="195 °F"),))
    file = tmp_path / "tried.keelroom"
    file.write_bytes(serialised(with_trials(load(DEMO), one)))
    assert cli.main(["trials", str(file)]) == 0
    told = capsys.readouterr().out
    assert "Mill road" in told
    assert "Upper hose, probe" in told
    assert "1 reading of 1 trial together." in told
    assert cli.main(["trials", str(file), "--json"]) == 0
    found = json.loads(capsys.readouterr().out)
    assert found["readings"] == 1
    assert set(found["factors"]) == {"heat", "core", "fans", "leaks", "flow"}
    assert found["cases"]["cruise"]["by_trials"]["temperature"] > 0
