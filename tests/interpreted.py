"""Modules that run compiled, as their source runs interpreted."""

import importlib.util
import sys
from importlib.machinery import SOURCE_SUFFIXES, FileFinder, SourceFileLoader
from pathlib import Path


def interpreted(module):
    """The same module from its own source, whatever was built of it."""
    source = Path(module.__file__).parent / f"{module.__name__.rpartition('.')[2]}.py"
    spec = importlib.util.spec_from_file_location(f"{module.__name__}_interpreted", source)
    made = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(made)
    return made


def from_source():
    """From now on import every module of the program from its source, for what has to see or change its code."""

    def finder(path):
        if "keelroom" not in Path(path).parts:
            raise ImportError
        return FileFinder(path, (SourceFileLoader, SOURCE_SUFFIXES))

    sys.path_hooks.insert(0, finder)
    sys.path_importer_cache.clear()
