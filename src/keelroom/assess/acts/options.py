"""Acts on options: one made a package."""

from __future__ import annotations

from keelroom.assess.acts.kind import ActKind, Doing
from keelroom.assess.acts.packages import as_mended
from keelroom.assess.options.space import MENDED_ID, options_of, package_of
from keelroom.document.edits import Change, Edit, fresh_id, fresh_name
from keelroom.errors import InputError


def _take(do: Doing) -> Edit:
    """An option as a package of the build, in use."""
    wanted = do.given("option")
    option = next((one for one in options_of(do.build) if one.key == wanted), None)
    if option is None:
        raise InputError(
            "no_such_option", "That option is no longer among those there are: the package in use is another"
        )
    if option.key == MENDED_ID:
        return as_mended(do.build)
    if option.fans is None:
        return Edit(do.act.label, (Change(("active",), option.key),))
    package = package_of(do.build, option).model_copy(
        update={
            "id": fresh_id(do.build.packages, "p"),
            "name": fresh_name((one.name for one in do.build.packages), option.words[:80]),
        }
    )
    changes = (Change(("packages",), (*do.build.packages, package)), Change(("active",), package.id))
    return Edit(do.act.label, changes)


KINDS = (ActKind("take_option", "An option as a package of the build", _take, "Make it a package"),)
