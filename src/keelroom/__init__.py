"""Keel Room sizes a radiator core and electric fans against an engine's heat."""

import os
from pathlib import Path

__version__ = "0.1.0"
ASSETS = Path(__file__).parent / "assets"
"""Fonts, icon and the demo, shipped with the application."""

# No plugin of the schema library is used, and looking through every installed package for one slows each start.
os.environ.setdefault("PYDANTIC_DISABLE_PLUGINS", "1")
