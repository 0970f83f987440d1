"""The one family of errors: what cannot be done, said so that its reader can act on it."""

from __future__ import annotations


class KeelRoomError(Exception):
    """An act that failed.

    code    : short stable name, for tests and machine output
    message : one sentence that says what is wrong, where, and what was expected
    fields  : the values the sentence was made from
    """

    def __init__(self, code: str, message: str, **fields: object) -> None:
        super().__init__(message)
        self.code = code
        self.message = message
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
