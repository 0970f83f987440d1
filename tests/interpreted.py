"""Modules that run compiled, as their source runs interpreted."""

import importlib
import importlib.util
import sys
from functools import cache
from importlib.machinery import SOURCE_SUFFIXES, FileFinder, SourceFileLoader
from pathlib import Path


def interpreted(module):
    """The same module from its own source, whatever was built of it."""
    source = Path(module.__file__).parent / f"{module.__name__.rpartition('.')[2]}.py"
    spec = importlib.util.spec_from_file_location(f"{module.__name__}_interpreted", source)
    made = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(made)
    return made


def _of_source(path):
    if "keelroom" not in Path(path).parts:
        raise ImportError
    return FileFinder(path, (SourceFileLoader, SOURCE_SUFFIXES))


def from_source():
    """From now on import every module of the program from its source, for what has to see or change its code."""
    sys.path_hooks.insert(0, _of_source)
    sys.path_importer_cache.clear()


@cache
def core_from_source():
    """The whole core once more, beside the one that runs: a function that gives its modules by their names under
    core."""
    ours = {name: sys.modules.pop(name) for name in list(sys.modules) if name.startswith("keelroom.core")}
    from_source()
    try:
        importlib.import_module("keelroom.core.ambients")
        importlib.import_module("keelroom.core.air.own_air")
        importlib.import_module("keelroom.core.drive.run")
        made = {name: module for name, module in sys.modules.items() if name.startswith("keelroom.core")}
    finally:
        for name in made:
            del sys.modules[name]
        sys.modules.update(ours)
        sys.path_hooks.remove(_of_source)
        sys.path_importer_cache.clear()
        sys.modules["keelroom"].core = ours["keelroom.core"]
    return lambda name: made[f"keelroom.core.{name}"]
