"""A package as it stood on a day, and other long texts, kept in one line: a record, which no edit reaches."""

from __future__ import annotations

import base64
import binascii
import zlib

from keelroom.document.schema.package import Package

MOST = 2_000_000
"""Bytes a package may come to: more was not written here."""


def packed(text: str) -> str:
    """A text in one line, a tenth as long (zlib, base64)."""
    return base64.b64encode(zlib.compress(text.encode(), 9)).decode("ascii")


def unfolded(text: str) -> str:
    """The text that was packed; '' where none was, or it is damaged."""
    try:
        return zlib.decompressobj().decompress(base64.b64decode(text, validate=True), MOST).decode() if text else ""
    except (ValueError, zlib.error, binascii.Error):
        return ""


def kept(package: Package) -> str:
    """A package's JSON, packed."""
    return packed(package.model_dump_json())


def unpacked(text: str) -> Package | None:
    """The package out of the text it was kept as; None where none was, or it is of a format no longer read."""
    try:
        return Package.model_validate_json(unfolded(text)) if text else None
    except ValueError:
        return None
