"""What the shelf has, as choices: sheet, bolts, cable and fuses by key and name."""

from __future__ import annotations

from keelroom.core.electrical.protection import FUSES
from keelroom.core.electrical.wire import CABLES
from keelroom.core.packaging.fixings import BOLTS
from keelroom.core.packaging.sheet import METALS

METAL_CHOICES = tuple((key, metal.name) for key, metal in METALS.items())
BOLT_CHOICES = tuple((key, bolt.name) for key, bolt in BOLTS.items())
CABLE_CHOICES = tuple((key, cable.name) for key, cable in CABLES.items())
FORM_CHOICES = tuple((key, form.title) for key, form in FUSES.items())
