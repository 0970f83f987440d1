"""Acts done to a build, as the window does them."""

from keelroom.assess.acts.registry import edit_for, offer
from keelroom.document.edits import apply


def doing(build, act, system="us"):
    """The build with an act done to it."""
    return apply(build, edit_for(build, act, system))


def done(build, code, package="", **given):
    """The build with an act of a kind done to it; about the active package where none is named."""
    return doing(build, offer(code, package or build.active, **given))


def key(act):
    """What tells two acts of a table apart: the code, and what it is given."""
    return " ".join((act.code, *dict(act.given).values()))
