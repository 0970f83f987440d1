"""What a first start offers: a new brief, the demo, a file; and work a killed window left behind."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from keelroom.document.autosave import Left, Recovered
from keelroom.gui.widgets.recovery import RecoveryOffer
from keelroom.gui.widgets.text import button, label


class StartPage(QWidget):
    """Three ways in, and recoveries above them."""

    def __init__(
        self,
        acts: Mapping[str, Callable[[], object]],
        recovered: Left,
        recover: Callable[[Recovered], object],
        forget: Callable[[Recovered], object],
    ) -> None:
        super().__init__()
        self.setObjectName("paper")
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
            outer.addWidget(RecoveryOffer(left, recover, forget))
        for word in recovered.passed_over:
            passed = label(word, "faint")
            passed.setWordWrap(True)
            passed.setAlignment(Qt.AlignmentFlag.AlignHCenter)
            outer.addWidget(passed)
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
