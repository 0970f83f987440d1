"""Lines of readings put into a trial, from a file or live."""

from __future__ import annotations

from keelroom.document.edits import Change, Edit, fresh_id
from keelroom.document.schema.trials import Log
from keelroom.gui.session.session import Session


def keep_logs(session: Session, trial_id: str, logs: tuple[Log, ...], words: str) -> bool:
    """Put lines of readings into a trial; whether it was done."""
    trial = next((one for one in session.build.logbook.trials if one.id == trial_id), None)
    if trial is None:
        session.told.emit("That trial is no longer in the logbook: make it again, the readings are still here")
        return False
    there = trial.logs
    for log in logs:
        there = (*there, log.model_copy(update={"id": fresh_id(there, "log")}))
    return session.attempt(Edit(words, (Change(("logbook", "trials", trial_id, "logs"), there),)))
