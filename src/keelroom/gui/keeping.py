"""A part kept beyond its build: written into the user's own catalogue, and what became of that in words."""

from __future__ import annotations

from keelroom.catalogue.load import keep_own
from keelroom.document.schema.package import Core, Fan
from keelroom.errors import KeelRoomError


def kept_words(part: Core | Fan) -> str:
    """Write a part that the build keeps already into the user's own catalogue; what to tell of it."""
    try:
        keep_own(part)
    except (KeelRoomError, OSError) as error:
        return f"Kept with this build only: {getattr(error, 'message', error)}"
    return f"“{part.name}” is kept with this build and in your own catalogue"
