"""The one family of errors: what cannot be done, said so that its reader can act on it."""

from __future__ import annotations

UNREADABLE = 2
"""Exit code of everything that could not be done."""
LONGEST = 900
"""Characters of one message: longer than any sentence of ours."""


def readable(text: str, most: int = 300) -> str:
    """`text` safe to print and to show: no control characters, and of a long one its two ends.

    most : characters kept, at least 3
    """
    clean = "".join(c if c.isprintable() else "\N{REPLACEMENT CHARACTER}" for c in text)
    return (
        clean if len(clean) <= most else f"{clean[: most * 2 // 3]}…{clean[len(clean) - (most - most * 2 // 3 - 1) :]}"
    )


class KeelRoomError(Exception):
    """An act that failed.

    code    : short stable name, for tests and machine output
    message : one sentence that says what is wrong, where, and what was expected
    fields  : the values the sentence was made from
    """

    def __init__(self, code: str, message: str, **fields: object) -> None:
        self.message = readable(message, LONGEST)
        super().__init__(self.message)
        self.code = code
        self.fields = fields


class InputError(KeelRoomError):
    """A single value that means nothing: letters, 3/0, a negative length."""


class SolveError(KeelRoomError):
    """A solve that did not converge: never hidden behind a figure."""


class DocumentError(KeelRoomError):
    """A file that cannot be read or written as a build."""


class CatalogueError(KeelRoomError):
    """A part that is not in the catalogue; `fields['near']` holds near matches."""


class ExportError(KeelRoomError):
    """A sheet or table that could not be written."""
