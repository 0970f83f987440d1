"""Takes the pictures of docs/screenshots from the demo: `python tools/screenshots.py FOLDER`."""

import os
import sys
import tempfile
from collections.abc import Callable
from pathlib import Path

from PyQt6.QtCore import Qt, QThreadPool
from PyQt6.QtGui import QImage
from PyQt6.QtWidgets import QApplication, QDialog

from keelroom import ASSETS
from keelroom.assess.acts.registry import offer
from keelroom.document.quantity import quantity

GUIDE = ASSETS.parent / "guide"


def settle(app: QApplication) -> None:
    """Let the window and its worker finish what they began."""
    for _ in range(4):
        app.processEvents()
        QThreadPool.globalInstance().waitForDone()
        app.processEvents()


class Album:
    """One window on the demo, and a folder for its pictures."""

    def __init__(self, folder: Path) -> None:
        from keelroom.gui.app import application, make_window

        self.folder = folder
        self.app = application()
        self.window = make_window()
        self.window.session.settings.shown_round = True
        self.window.resize(1280, 800)
        self.window.show()
        self.session = self.window.session
        folder.mkdir(parents=True, exist_ok=True)

    def shot(self, name: str, *steps: Callable[[], object]) -> None:
        self.window.activateWindow()  # a dialog before it took the focus, which pictures follow
        for step in steps:
            step()
        settle(self.app)
        self.window.grab().save(str(self.folder / f"{name}.png"))
        print(f"{name}.png")

    def page(self, name: str, title: str) -> Callable[[], object]:
        def turn() -> None:
            self.window.show_station(name)
            self.window.stations[name].choose(title)

        return turn

    def at(self, *path: str) -> Callable[[], object]:
        return lambda: self.window.go_to(path)

    def case(self, ident: str) -> Callable[[], object]:
        return lambda: self.session.select(ident)

    def panel(self, name: str) -> Callable[[], object]:
        """A drawer out; '' all of them back."""
        return lambda: self.window.show_panel(name)

    def dialog_shot(self, name: str, dialog: QDialog) -> None:
        """A dialog by itself."""
        dialog.show()
        settle(self.app)
        dialog.grab().save(str(self.folder / f"{name}.png"))
        dialog.reject()
        print(f"{name}.png")

    def sizing(self) -> None:
        """From the first start to the core."""
        from keelroom.gui.packages import Packages

        self.shot("start")
        self.shot("brief", self.window.files.open_demo, lambda: settle(self.app), self.panel("Findings"))
        self.panel("")()
        self.shot("explain", self.seen_hot, self.page("Brief", "Explain"))
        for _ in range(4):
            self.session.store.undo()
        self.shot("survey", self.page("Survey", "Engine"), self.at("survey", "engine", "turning", "nose", "depth"))
        self.shot("bench", self.window.bench, self.half_typed)
        self.window.bench()
        self.shot("core", self.page("Core", "Choose"))
        self.dialog_shot("packages", Packages(self.window, self.session))
        self.shot(
            "why",
            self.case("grade"),
            self.page("Core", "Size"),
            self.panel("Why"),
            self.at("packages", "p1", "core", "depth"),
        )

    def seen_hot(self) -> None:
        """What the demo's car did before the work: 240 °F at a light on a day of 92, fine on the road."""
        for case, name, value in (
            ("idle", "seen", "hot"),
            ("idle", "seen_at", quantity("240 °F", "temperature", "measured")),
            ("idle", "seen_day", quantity("92 °F", "temperature", "measured")),
            ("cruise", "seen", "fine"),
        ):
            self.session.set(("duty_cases", case, name), value, "What it did")

    def half_typed(self) -> None:
        """A reading in bench mode."""
        bench = self.window.bench_page
        bench.at = [reading[2] for reading in bench.readings].index(("survey", "opening", "width"))
        bench.show_reading()
        bench.put("24")
        bench.put_fraction("3/8")

    def air(self) -> None:
        maps = self.window.map_bar.chips
        self.shot("worth", self.panel(""), self.case("idle"), self.page("Air", "Worth"))
        self.shot("map-two-fans", maps["Air speed"].click, self.page("Air", "Shroud"))

    def fit(self) -> None:
        self.shot("fit-up", self.page("Fit-up", "Gaps"))

    def drive(self, ident: str) -> Callable[[], object]:
        """A drive that is looked at, worked out."""

        def look() -> None:
            self.window.stations["Drive"].drives.choose(ident)
            settle(self.app)

        return look

    def option(self, words: str) -> Callable[[], object]:
        """An option that is looked at closer, of all that are worked out."""

        def look() -> None:
            settle(self.app)
            view = self.window.stations["Options"].views["Every one"]
            place = next(n for n, one in enumerate(view.rows) if words in one.priced.option.words)
            view.table.table.selectRow(view.table.order.index(place))
            view.table.choose(place)
            settle(self.app)

        return look

    def trial(self, ident: str) -> Callable[[], object]:
        """A trial that is looked at, with what it should read."""

        def look() -> None:
            self.window.stations["Trials"].tries.choose(ident)
            settle(self.app)

        return look

    def electrical(self) -> None:
        self.session.set(("active",), "p1", "Package")
        self.shot("coolers", self.case("grade"), self.page("Aux coolers", "List"))
        self.case("idle")()
        self.shot("electrical", self.page("Electrical", "Circuits"), self.panel("Findings"))
        self.panel("")()
        self.shot("coolant-loop", self.case("idle"), self.page("Loop", "Circuit"))
        self.session.do(offer("split_circuit", self.session.build.active, circuit="circuit1"))
        self.shot("drive", self.page("Drive", "Run"), self.drive("quarry"))
        self.shot("trials", self.page("Trials", "Logbook"), self.trial("soak2"))
        self.shot("options", self.page("Options", "Every one"), self.option("24 × 19, 2 row, aluminium; 14 in deep"))
        self.window.switch_theme()
        self.shot("work-dark", self.page("Work", "Order"), lambda: settle(self.app))
        self.window.switch_theme()
        self.shot("wiring", self.page("Electrical", "Harness"), self.window.toggle_form)
        self.window.toggle_form()
        self.session.store.undo()


GUIDE_PICTURES = {"brief": "ledger", "map-two-fans": "air", "fit-up": "fit", "wiring": "wiring"}
"""Pictures of the album that the guide shows, with their names there."""
GUIDE_WIDTH = 620


def illustrate(folder: Path) -> None:
    """Smaller copies for the guide."""
    for name, there in GUIDE_PICTURES.items():
        picture = QImage(str(folder / f"{name}.png"))
        small = picture.scaledToWidth(GUIDE_WIDTH, Qt.TransformationMode.SmoothTransformation)
        small.save(str(GUIDE / "pictures" / f"{there}.png"))


def main(folder: Path) -> None:
    home = tempfile.mkdtemp(prefix="keelroom-shots-")
    for name in ("XDG_CONFIG_HOME", "XDG_STATE_HOME", "XDG_DATA_HOME", "HOME"):
        os.environ[name] = home
    album = Album(folder)
    album.sizing()
    album.air()
    album.fit()
    album.electrical()
    album.session.store.mark_saved(album.session.build)
    album.window.close()
    illustrate(folder)


if __name__ == "__main__":
    main(Path(sys.argv[1]))
