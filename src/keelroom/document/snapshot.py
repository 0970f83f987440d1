"""A package as it stood on a day, kept as text: a record, which no edit reaches."""

from __future__ import annotations

import base64
import binascii
import zlib

from keelroom.document.schema.package import Package

MOST = 2_000_000
"""Bytes a package may come to: more was not written here."""


def kept(package: Package) -> str:
    """Its JSON, packed (zlib, base64): a tenth as long."""
    return base64.b64encode(zlib.compress(package.model_dump_json().encode(), 9)).decode("ascii")


def unpacked(text: str) -> Package | None:
    """The package out of the text it was kept as; None where none was, or it is of a format no longer read."""
    if not text:
        return None
    try:
        packed = zlib.decompressobj()
        return Package.model_validate_json(packed.decompress(base64.b64decode(text, validate=True), MOST))
    except (ValueError, zlib.error, binascii.Error):
        return None
