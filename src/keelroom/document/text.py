"""Text of a build as it may be stored and shown: no control characters, nothing that turns a line round, no half a
character.

A name stands in lists, in a terminal, in a window's title: a line's end in it would break them, an escape sequence
would be carried out, a mark of direction would have a line read backwards. Such characters are shown for what they
are, one sign each; a text that cannot be written as UTF-8 at all is refused where it stands.
"""

from __future__ import annotations

import re

from keelroom.errors import InputError

LINE, PAGE = 20_000, 200_000
"""Characters of a name, and of notes: more than anybody writes, and few enough to be laid out at once."""
NOTES = "notes"
"""What a field of many lines is called."""
_BREAKS = re.compile("\r\n|[\n\r\t\v\f\x1c-\x1e\x85\u2028\u2029]")
_HIDDEN = "\x7f-\x9f\u200e\u200f\u202a-\u202e\u2066-\u2069"
_CONTROLS = re.compile(f"[\x00-\x1f{_HIDDEN}]")
_UNSEEN = re.compile(f"[\x00-\x08\x0b-\x1f{_HIDDEN}]")
_LOOKED_AT = re.compile(f'[\\\\\x00-\x08\x0b\x0c\x0e-\x1f\u2028\u2029{_HIDDEN}]|"[^"]{{{LINE}}}')
SIGN = "\N{REPLACEMENT CHARACTER}"


def all_harmless(document: str) -> bool:
    """Whether no text in a JSON document can be one `harmless` would change or refuse: no escape in it, no sign nobody
    sees, nothing longer than a line."""
    return _LOOKED_AT.search(document) is None


def harmless(text: str, field: str) -> str:
    """The text of a field as it may be kept. Raises InputError where it holds half a character or is longer than any.

    field : its name; notes keep their lines, everything else is one line
    """
    if text.isascii() and text.isprintable() and len(text) <= LINE:
        return text
    most = PAGE if field == NOTES else LINE
    if len(text) > most:
        raise InputError("too_long", f"is {len(text):,} characters long; at most {most:,} are kept")
    half = next((c for c in text if "\ud800" <= c <= "\udfff"), "")
    if half:
        raise InputError(
            "half_a_character", f"holds half a character (U+{ord(half):04X} by itself); type that place again"
        )
    if field == NOTES:
        return _UNSEEN.sub(SIGN, text)
    return _CONTROLS.sub(SIGN, _BREAKS.sub(" ", text))
