"""Parts as they are made, without what they are called: another name changes no figure, and nothing that is worked out
of it is worked out again."""

from __future__ import annotations

from typing import TypeVar

from pydantic import BaseModel

from keelroom.core.kept import by_identity, one_of_equals
from keelroom.document.schema.brief import Accessories, Brief, Climate, Engine, Vehicle
from keelroom.document.schema.electrical import Circuit
from keelroom.document.schema.package import FINS, Core, Fan

M = TypeVar("M", bound=BaseModel)


@by_identity(16)
def made_core(core: Core) -> Core:
    """A core without its name and where its figures come from: one object for all that are alike else."""
    return _unnamed(core)


@by_identity(16)
def laid_core(core: Core) -> Core:
    """A core as it lies in the bay, without what its fins and tubes do: one object while only those change."""
    found: Core = one_of_equals(core.model_copy(update=NO_FINS))
    return found


NO_FINS = {name: Core.model_fields[name].default for name in ("name", "basis", "cost", "condition", *FINS)}


@by_identity(16)
def made_fans(fans: tuple[Fan, ...]) -> tuple[Fan, ...]:
    """Fans without theirs."""
    found: tuple[Fan, ...] = one_of_equals(tuple(_unnamed(fan) for fan in fans))
    return found


def made_brief(brief: Brief) -> Brief:
    """What of a brief is driven, without its title, its limit, and what was wrong before: one object while it stays."""
    return _driven(brief.vehicle, brief.engine, brief.accessories, brief.climate)


@by_identity(16)
def _driven(vehicle: Vehicle, engine: Engine, accessories: Accessories, climate: Climate) -> Brief:
    sections = {
        "vehicle": vehicle,
        "engine": engine,
        "accessories": accessories,
        "climate": climate,
    }
    return NOTHING_SAID.model_copy(update=sections)


NOTHING_SAID = Brief()


@by_identity(256)
def made_circuit(circuit: Circuit) -> Circuit:
    """A circuit without its name."""
    found: Circuit = one_of_equals(circuit.model_copy(update={"name": ""}))
    return found


@by_identity(16)
def made_circuits(circuits: tuple[Circuit, ...]) -> tuple[Circuit, ...]:
    """Circuits without theirs."""
    found: tuple[Circuit, ...] = one_of_equals(tuple(made_circuit(circuit) for circuit in circuits))
    return found


def _unnamed(part: M) -> M:
    found: M = one_of_equals(part.model_copy(update={"name": "", "basis": ""}))
    return found
