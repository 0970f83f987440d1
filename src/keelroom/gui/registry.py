"""All stations, in the order of the work. A new one is declared in its own folder and named here; nothing else knows
their names."""

from __future__ import annotations

from keelroom.assess.findings import Finding
from keelroom.gui.station import ANY, Station
from keelroom.gui.stations.air.declared import AIR
from keelroom.gui.stations.brief.declared import BRIEF
from keelroom.gui.stations.coolers.declared import AUX_COOLERS
from keelroom.gui.stations.core.declared import CORE
from keelroom.gui.stations.drive.declared import DRIVE
from keelroom.gui.stations.electrical.declared import ELECTRICAL
from keelroom.gui.stations.fitup.declared import FIT_UP
from keelroom.gui.stations.loop.declared import LOOP
from keelroom.gui.stations.options.declared import OPTIONS
from keelroom.gui.stations.survey.declared import SURVEY
from keelroom.gui.stations.trials.declared import TRIALS
from keelroom.gui.stations.work.declared import WORK

STATIONS: tuple[Station, ...] = (
    BRIEF,
    SURVEY,
    CORE,
    AIR,
    FIT_UP,
    AUX_COOLERS,
    LOOP,
    ELECTRICAL,
    DRIVE,
    OPTIONS,
    TRIALS,
    WORK,
)


OWNERS = {pattern: station for station in STATIONS for pattern in station.owns}
LONGEST = max(map(len, OWNERS))


def station_at(path: tuple[str, ...]) -> Station:
    """The station a path of the build is edited at: the one whose pattern names most of it; the first where none does.

    Looked up, not searched: every finding asks at every edit.
    """
    for length in range(min(len(path), LONGEST), 0, -1):
        found = OWNERS.get(path[:length]) or (OWNERS.get((path[0], ANY, *path[2:length])) if length > 1 else None)
        if found:
            return found
    return STATIONS[0]


def named(name: str) -> Station:
    """The station of that name."""
    return next(station for station in STATIONS if station.name == name)


def by_station(findings: tuple[Finding, ...]) -> dict[str, tuple[Finding, ...]]:
    """Findings by the name of the station they belong to, each in the order they came."""
    found: dict[str, list[Finding]] = {station.name: [] for station in STATIONS}
    for finding in findings:
        found[station_at(finding.where).name].append(finding)
    return {name: tuple(own) for name, own in found.items()}
