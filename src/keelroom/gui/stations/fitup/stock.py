"""Choices the pages of made parts share."""

from __future__ import annotations

from keelroom.core.packaging.fixings import BOLTS
from keelroom.core.packaging.sheet import METALS

METAL_CHOICES = tuple((key, metal.name) for key, metal in METALS.items())
BOLT_CHOICES = tuple((key, bolt.name) for key, bolt in BOLTS.items())
