"""Changes said in a line: of a build by (path, value), or (path, text, kind) for a measure; of stacked points by
dotted names."""

from keelroom.document.edits import Change, Edit, apply
from keelroom.document.quantity import quantity
from keelroom.document.schema.panels import EDGES, Sealing, Slit

FIX, HANDS = "its own fixes", "hands, or knowing more"
"""in a row of findings: what mends it is each fix it offers"""


def on(build, *changes):
    """The build with (path, value) changed; texts with a kind are quantities, measured ones."""
    made = tuple(
        Change(change[0], quantity(*change[1:3], "measured") if len(change) == 3 else change[1]) for change in changes
    )
    return apply(build, Edit("", made))


def varied(record, changes):
    """A nested record with other values at dotted names, such as plant.circuit.flow_rated."""
    for name, value in changes.items():
        record = _varied(record, name.split("."), value)
    return record


def _varied(record, names, value):
    first, *rest = names
    return record._replace(**{first: _varied(getattr(record, first), rest, value) if rest else value})


def sealed(inches):
    """The same gap at every edge of the core."""
    return Sealing(**{edge: Slit(gap=quantity(f"{inches} in", "length")) for edge in EDGES})
