"""Modules that run compiled, as their source runs interpreted."""

import importlib.util
from pathlib import Path


def interpreted(module):
    """The same module from its own source, whatever was built of it."""
    source = Path(module.__file__).parent / f"{module.__name__.rpartition('.')[2]}.py"
    spec = importlib.util.spec_from_file_location(f"{module.__name__}_interpreted", source)
    made = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(made)
    return made
