"""Takes the pictures of docs/screenshots from the demo: `python tools/screenshots.py FOLDER`."""

import os
import sys
import tempfile
from collections.abc import Callable
from pathlib import Path

from PyQt6.QtCore import QThreadPool
from PyQt6.QtWidgets import QApplication


def settle(app: QApplication) -> None:
    """Let the window and its worker finish what they began."""
    for _ in range(3):
        app.processEvents()
        QThreadPool.globalInstance().waitForDone()
        app.processEvents()


def main(folder: Path) -> None:
    home = tempfile.mkdtemp(prefix="keelroom-shots-")
    for name in ("XDG_CONFIG_HOME", "XDG_STATE_HOME", "XDG_DATA_HOME", "HOME"):
        os.environ[name] = home
    from keelroom.gui.app import application, make_window

    app = application()
    window = make_window()
    window.resize(1280, 800)
    window.show()
    folder.mkdir(parents=True, exist_ok=True)

    def shot(name: str, *steps: Callable[[], object]) -> None:
        for step in steps:
            step()
        settle(app)
        window.grab().save(str(folder / f"{name}.png"))
        print(f"{name}.png")

    station, page = window.show_station, lambda s, p: window.stations[s].choose(p)
    shot("start")
    shot("brief", window.open_demo)
    shot("brief-duty-cases", lambda: page("Brief", "Duty cases"))
    shot("core", lambda: station("Core"))
    shot("why", lambda: page("Core", "Size"), lambda: window.session.select("grade"), lambda: window.show_panel("Why"))
    shot("air", lambda: station("Air"), lambda: window.show_panel("Findings"))
    shot("air-figures", lambda: page("Air", "Figures"))
    shot("bare-fan", lambda: window.session.set(("active",), "p2", "Package"), lambda: page("Air", "Fans"))
    shot("air-dark", lambda: window.session.set(("active",), "p1", "Package"), window.switch_theme, window.switch_units)
    window.as_demo = True
    window.close()


if __name__ == "__main__":
    main(Path(sys.argv[1]))
