"""Every page of the window on builds with entries at the ends of their ranges and beyond what laws bear. `python -m
tests.soak.pages 60 5`."""

from __future__ import annotations

import random
import sys
import traceback
from pathlib import Path
from tempfile import TemporaryDirectory

from PyQt6.QtCore import QThreadPool

import tests.conftest  # noqa: F401  (a home of its own, offscreen)
from keelroom.document.file import save
from tests.soak.fuzz import drawn
from tests.soak.reader import misread
from tests.soak.walk import small


def run(builds: int, seed: int, pages_of: int = 1) -> tuple[int, list[str]]:
    """So many drawn builds, each shown on every page, one in `pages_of` of them; how many pages were seen, and what
    broke."""
    from keelroom.gui.app import application, make_window
    from keelroom.gui.registry import STATIONS
    from keelroom.gui.widgets.stop_note import StopNote

    app, dice, start = application(), random.Random(seed), small()
    broke: list[str] = []
    seen = 0

    def settle() -> None:
        app.processEvents()
        QThreadPool.globalInstance().waitForDone()
        app.processEvents()

    with TemporaryDirectory() as folder:
        path = Path(folder) / "pages.keelroom"
        save(start, path)
        window = make_window(path)
        window.resize(1280, 800)
        window.show()
        hook = sys.excepthook
        sys.excepthook = lambda kind, error, trace: broke.append(
            "".join(traceback.format_exception(kind, error, trace)[-3:])
        )
        window.session.told.connect(lambda text: broke.append(text) if "went wrong" in text else None)
        settle()
        for number in range(builds):
            build = next(made for made in iter(lambda: drawn(start, dice), 0) if made is not None)
            window.session.store.replace(build, saved=True)
            for station in STATIONS:
                window.show_station(station.name)
                for title in station.parts:
                    if dice.randrange(pages_of):
                        continue
                    seen += 1
                    window.stations[station.name].choose(title)
                    app.processEvents()
                    if isinstance(window.stations[station.name].stack.currentWidget(), StopNote):
                        broke.append(f"build {number}: {station.name}, {title} could not be shown")
            settle()
            broke += misread(window)
        sys.excepthook = hook
        window.session.store.mark_saved(window.session.build)
        window.close()
    return seen, broke


if __name__ == "__main__":
    seen, broke = run(int(sys.argv[1]), int(sys.argv[2]))
    print(f"{seen} pages seen; {len(broke)} broke")
    print("\n".join(broke[:20]))
    sys.exit(bool(broke))
