"""Changes to a build said in a line: (path, value), or (path, text, kind) for a measure."""

from keelroom.document.edits import Change, Edit, apply
from keelroom.document.quantity import quantity


def on(build, *changes):
    """The build with (path, value) changed; texts with a kind are quantities, measured ones."""
    made = tuple(Change(change[0], quantity(*change[1:3], "measured") if len(change) == 3 else change[1]) for change in changes)
    return apply(build, Edit("", made))
