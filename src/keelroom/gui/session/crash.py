"""An exception inside a Qt slot ends the process unless a hook is there: keep the work, say what happened, go on."""

from __future__ import annotations

import sys
import traceback
from contextlib import suppress
from types import TracebackType

from keelroom.errors import KeelRoomError
from keelroom.gui.session.session import Session


def install(session: Session) -> None:
    """From now on an unexpected error writes the recovery copy and reports on the status line and stderr; an act that
    was refused says why."""

    def hook(kind: type[BaseException], error: BaseException, trace: TracebackType | None) -> None:
        if isinstance(error, KeelRoomError):
            with suppress(RuntimeError):
                session.told.emit(error.message)
            return
        traceback.print_exception(kind, error, trace)
        kept = "Your work was kept" if session.keep_recovery_copy() else "Your work could not be kept beside your files"
        with suppress(RuntimeError):  # the window may be gone already
            session.told.emit(f"Something went wrong inside ({kind.__name__}). {kept}; save it under a new name.")

    sys.excepthook = hook
