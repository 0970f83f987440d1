"""Every named step with what it left."""

from __future__ import annotations

import math

from PyQt6.QtWidgets import QVBoxLayout

from keelroom.gui.session.session import Session
from keelroom.gui.widgets.panels.panel import DrawerPanel, pair
from keelroom.gui.widgets.text import label
from keelroom.units import KINDS, format_si

EARLIER = 40
"""Steps of the file that are listed."""


class TrailPanel(DrawerPanel):
    """Each named step with the tightest temperature it left."""

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Trail")
        session.changed.connect(self.changed)
        session.display_changed.connect(self.changed)

    def bring_up_to_date(self) -> None:
        column = self.fresh()
        column.addWidget(label("Trail", "head"))
        column.addWidget(
            label(
                "Each step with the tightest duty case's temperature and the tightest gap after it.", "faint", wrap=True
            )
        )
        if not self.session.marks:
            column.addWidget(label("No step yet.", wrap=True))
        system = self.session.system
        for text, temperature, gap in reversed(self.session.marks):
            if temperature is None:
                shown = "no figure yet"
            else:
                shown = (
                    format_si(temperature, KINDS["temperature"], system)
                    if math.isfinite(temperature)
                    else "does not settle"
                )
            if gap is not None:
                shown += f", gap {format_si(gap, KINDS['length'], system)}".replace("-", "−")
            pair(column, text, shown)
        self._earlier(column)
        column.addStretch(1)

    def _earlier(self, column: QVBoxLayout) -> None:
        """What the file remembers of the time before it was opened, newest first."""
        steps = self.session.build.trail
        earlier = steps[: max(len(steps) - len(self.session.store.steps), 0)]
        if not earlier:
            return
        column.addWidget(label("Before it was opened", "head"))
        more = f" {len(earlier) - EARLIER} older ones are in the file." if len(earlier) > EARLIER else ""
        column.addWidget(
            label(f"Kept in the file as what was done; they are not undone any more.{more}", "faint", wrap=True)
        )
        for step in reversed(earlier[-EARLIER:]):
            column.addWidget(label(step.label, wrap=True))
