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
    for _ in range(4):
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

    from keelroom.build.edits import Change, Edit
    from keelroom.build.quantity import quantity

    session, station = window.session, window.show_station

    def page(name: str, title: str) -> None:
        station(name)
        window.stations[name].choose(title)

    def press(path: tuple[str, ...]) -> None:
        window.go_to(path)

    def change(*changes: Change) -> None:
        session.attempt(Edit("For the picture", changes))

    fans = ("packages", "p1", "fans")
    shot("start")
    shot("brief", window.open_demo, lambda: settle(app))
    shot("brief-duty-cases", lambda: page("Brief", "Duty cases"))
    shot("causes", lambda: page("Brief", "Causes"))
    shot("core", lambda: page("Core", "Choose"))
    shot("compare", lambda: page("Core", "Compare"))
    shot("sweeps", lambda: session.select("grade"), lambda: page("Core", "Sweeps"))
    shot("why", lambda: page("Core", "Size"), lambda: window.show_panel("Why"), lambda: press(("packages", "p1", "core", "depth")))
    shot("worth", lambda: window.show_panel("Findings"), lambda: session.select("idle"), lambda: page("Air", "Worth"))
    shot("curve", lambda: page("Air", "Curve"), window.map_bar.chips["Air temperature"].click)
    shot("air-figures", lambda: page("Air", "Figures"), window.map_bar.chips["Heat"].click)
    shot("map-two-fans", window.map_bar.chips["Air speed"].click, lambda: page("Air", "Shroud"))
    shot("map-one-stopped", lambda: page("Air", "Fans"), lambda: change(Change((*fans, "fan2", "runs"), False)))
    session.store.undo()
    shot("map-bare", lambda: session.set(("active",), "p2", "Package"))
    session.store.undo()
    one = next(p for p in session.build.packages if p.id == "p3")
    shot("map-one-shrouded", lambda: change(Change(("active",), one.id)))
    session.store.undo()
    shot("map-uncut", lambda: session.select("grade"), lambda: page("Air", "Shroud"), session.toggle_hold,
         lambda: change(Change(("survey", "opening", "width"), quantity("17 in", "length"))))  # fmt: skip
    session.store.undo()
    session.toggle_hold()
    shot("air-dark", lambda: page("Air", "Worth"), window.switch_theme, window.switch_units)
    window.as_demo = True
    window.close()


if __name__ == "__main__":
    main(Path(sys.argv[1]))
