"""Where figures come from, beside what is entered."""

from __future__ import annotations

from keelroom.document.schema.trials import Calibration


def calibrated_by(calibration: Calibration) -> str:
    """Where figures come from while a calibration is on; '' where none is."""
    if not calibration.on:
        return ""
    count = len(calibration.trials)
    return f"calibrated by “{calibration.trials[0]}”" if count == 1 else f"calibrated by {count} trials"
