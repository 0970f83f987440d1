"""What is not in sight need not follow every edit: it is brought up to date when it is next seen."""

from __future__ import annotations

from PyQt6.QtWidgets import QWidget


class WhenSeen:
    """Beside a widget's own class, before it: `changed` brings it up to date at once where it is seen, else when it
    next is."""

    stale = True

    def bring_up_to_date(self) -> None:
        """Show what the build says now."""
        raise NotImplementedError

    def changed(self) -> None:
        self.stale = True
        assert isinstance(self, QWidget)
        if self.isVisible():
            self.catch_up()

    def showEvent(self, event: object) -> None:
        self.catch_up()

    def catch_up(self) -> None:
        if self.stale:
            self.stale = False
            self.bring_up_to_date()
