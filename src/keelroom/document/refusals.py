"""Why a value is no part of a build, in our own words: what the schema library says of itself is for programmers."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping
from typing import Any

from keelroom.errors import readable

_QUOTED = re.compile("'([^']*)'")
Context = Mapping[str, Any]


def _quoted(choices: str) -> str:
    return _QUOTED.sub(r"“\1”", choices)


REASONS: dict[str, Callable[[Context], str]] = {
    "missing": lambda _c: "is missing",
    "extra_forbidden": lambda _c: "is nothing this program knows; a newer one may have written it",
    "string_type": lambda _c: "is no text; expected text in quotes",
    "string_unicode": lambda _c: "holds half a character; type that place again",
    "bool_type": lambda _c: "is neither true nor false",
    "int_type": lambda _c: "is no whole number",
    "int_from_float": lambda _c: "is no whole number",
    "float_type": lambda _c: "is no number",
    "finite_number": lambda _c: "is no finite number",
    "model_type": lambda _c: "is no section; expected {…} with its fields",
    "model_attributes_type": lambda _c: "is no section; expected {…} with its fields",
    "tuple_type": lambda _c: "is no list; expected […]",
    "none_required": lambda _c: "is not empty; expected null",
    "literal_error": lambda c: f"is none of its choices; expected {_quoted(str(c.get('expected', '')))}",
    "greater_than": lambda c: f"must be more than {c.get('gt')}",
    "greater_than_equal": lambda c: f"must be at least {c.get('ge')}",
    "less_than": lambda c: f"must be less than {c.get('lt')}",
    "less_than_equal": lambda c: f"must be at most {c.get('le')}",
    "too_long": lambda c: f"has {c.get('actual_length')} entries; at most {c.get('max_length')} can be worked with",
    "value_error": lambda c: str(c.get("error", "means nothing here")),
    "quantity": lambda c: str(c.get("reason") or f"si is {c.get('si')} but “{c.get('text')}” reads as {c.get('read')}"),
}
"""By the schema library's stable names of what it refuses."""


def _nothing(_context: Context) -> str:
    return "means nothing here"


def reason(detail: Mapping[str, Any]) -> str:
    """Why one value was refused, as the end of a sentence that begins with its place. detail: one error of the schema
    library"""
    words = REASONS.get(str(detail.get("type")), _nothing)
    return readable(words(detail.get("ctx") or {}), 300)
