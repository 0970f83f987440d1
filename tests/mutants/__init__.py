"""Small things made wrong, and whether a test notices; what runs compiled runs from its source here."""

from tests.interpreted import from_source

from_source()
