"""What a first start offers: a new brief, the demo, a file; and work a killed window left behind."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from keelroom.build.autosave import Recovered
from keelroom.gui.widgets.text import button, label


class StartPage(QWidget):
    """Three ways in, and recoveries above them."""

    def __init__(
        self,
        acts: dict[str, Callable[[], object]],
        recovered: list[Recovered],
        recover: Callable[[Recovered], object],
        forget: Callable[[Recovered], object],
    ) -> None:
        super().__init__()
        self.setObjectName("paper")
        self.recover, self.forget = recover, forget
        outer = QVBoxLayout(self)
        outer.addStretch(2)
        title = label("Keel Room")
        title.setStyleSheet("font-size: 26pt; font-weight: 600;")
        outer.addWidget(title, 0, Qt.AlignmentFlag.AlignHCenter)
        outer.addWidget(
            label("Size the core and the fans against the engine's heat before anything is bought or cut."),
            0,
            Qt.AlignmentFlag.AlignHCenter,
        )
        outer.addSpacing(20)
        for left in recovered:
            self._offer(outer, left)
        for i, (name, act) in enumerate(acts.items()):
            made = button(name, act, role="main" if i == 0 and not recovered else "")
            made.setMinimumWidth(340)
            made.setMinimumHeight(38)
            outer.addWidget(made, 0, Qt.AlignmentFlag.AlignHCenter)
        outer.addSpacing(20)
        outer.addWidget(
            label("Planning estimates: they defer to local codes and licensed practice.", "faint"), 0, Qt.AlignmentFlag.AlignHCenter
        )
        outer.addStretch(3)

    def _offer(self, outer: QVBoxLayout, left: Recovered) -> None:
        title = left.build.brief.title or "an untitled build"
        holder = QWidget()
        column = QVBoxLayout(holder)
        column.addWidget(label(f"A window closed without saving: {title}", "doubt"), 0, Qt.AlignmentFlag.AlignHCenter)
        take = button("Recover it", lambda: self.recover(left), f"Recover {title}", role="main")
        take.setMinimumWidth(340)
        take.setMinimumHeight(38)
        column.addWidget(take, 0, Qt.AlignmentFlag.AlignHCenter)

        def drop() -> None:
            self.forget(left)
            holder.hide()

        column.addWidget(button("Let it go", drop, f"Let {title} go"), 0, Qt.AlignmentFlag.AlignHCenter)
        outer.addWidget(holder)
