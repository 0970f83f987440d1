"""What trials of the car as it was found read, as duty cases something was seen in: what would explain the car takes
them in with what was told of it."""

from __future__ import annotations

from keelroom.assess.drives.moments import asked_in
from keelroom.assess.mended import as_found
from keelroom.assess.trials.tried import line_of, package_of
from keelroom.document.quantity import from_si
from keelroom.document.schema.build import Build, DutyCase
from keelroom.document.schema.trials import Trial

COLDEST, HOTTEST = 0.0, 200.0
"""[degC] a duty case may have been seen at."""
CLIMBED = 3.0
"""[K] over what was read ten minutes before from which a trial is said to climb still."""


def with_trials(build: Build) -> Build:
    """The build with a duty case more for every steady trial of the car as it was found that has a temperature; itself
    where there is none."""
    package = as_found(build)
    if package is None:
        return build
    found = [
        case
        for trial in build.logbook.trials
        if trial.counts and package_of(build, trial).id == package.id
        if (case := _case(build, trial)) is not None
    ]
    return build.model_copy(update={"duty_cases": (*build.duty_cases, *found)}) if found else build


def _case(build: Build, trial: Trial) -> DutyCase | None:
    """A trial of one leg as the duty case it was."""
    line = line_of(build, trial)
    if line is None or len(trial.legs) != 1 or trial.ambient is None:
        return None
    leg, (sensor, seconds, values) = trial.legs[0], line
    if leg.kind not in ("idle", "hold", "pull") or sensor.place not in ("gauge", "outlet"):
        return None
    limit = build.brief.cooling.limit
    ends, lasted = float(values[seconds >= seconds[-1] - 120].mean()), float(seconds[-1])
    if not COLDEST <= ends <= HOTTEST:
        return None  # no gauge of an engine reads so: its trial says what is wrong with it
    early = values[seconds <= max(lasted - 600, float(seconds[0]))]
    climbs = len(early) > 0 and ends > float(early[-1]) + CLIMBED
    hot = climbs or (limit is not None and float(values.max()) > limit.si)
    return DutyCase(
        id=f"trial-{trial.id}",
        name=trial.name,
        speed=leg.speed,
        grade=leg.grade,
        ambient=trial.ambient,
        counted=False,
        seen="hot" if hot else "fine",
        seen_at=from_si(ends, "temperature", "si", "measured"),
        seen_for=from_si(lasted, "minutes", "si", "measured") if hot and lasted > 0 else None,
        **asked_in(leg, leg.kind == "idle", leg.ac_on),
    )
