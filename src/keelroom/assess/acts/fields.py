"""Acts on one place of the build: what is entered there, chosen, ticked, cleared, moved, taken out."""

from __future__ import annotations

from keelroom.assess.acts.kind import ActKind, Doing
from keelroom.document.edits import Change, Edit, removed, set_value
from keelroom.document.entered import ENTER, ENTER_ALL, MOVE, values_of
from keelroom.document.fields import owner_and_spec
from keelroom.document.quantity import typed
from keelroom.errors import InputError


def _set(do: Doing) -> Edit:
    _, spec = owner_and_spec(do.build, do.act.path)
    value = typed(do.given("text"), spec, "", "assumed") if spec else do.given("text")
    return set_value(do.act.path, value, do.act.label)


def _remove(do: Doing) -> Edit:
    *where, member = do.act.path
    return removed(do.build, tuple(where), member, do.act.label)


def _entered(do: Doing) -> Edit:
    values = values_of(do.build, do.act)
    if not values:
        raise InputError("act_incomplete", "This act enters nothing")
    return Edit(do.act.label, tuple(Change(path, value) for path, value in values))


KINDS = (
    ActKind(ENTER, "Enter a value where it was typed, chosen or ticked", _entered),
    ActKind(ENTER_ALL, "Enter several values at once", _entered),
    ActKind(MOVE, "Move one part by several of its measures", _entered),
    ActKind("set", "Type a text into a field", _set),
    ActKind("choose", "Choose in a field", lambda do: set_value(do.act.path, do.given("choice"), do.act.label)),
    ActKind("flag", "Tick or clear a box", lambda do: set_value(do.act.path, do.given("on") == "yes", do.act.label)),
    ActKind(
        "clear",
        "Empty a field, so that it is worked out or asked for",
        lambda do: set_value(do.act.path, None, do.act.label),
    ),
    ActKind("remove", "Take a member out of its list", _remove),
)
