"""Whether what runs in thousands runs compiled, and why not where it does not."""

from __future__ import annotations

import sys
from pathlib import Path
from types import ModuleType


def compiled(module: ModuleType) -> bool:
    """Whether a module runs compiled."""
    return Path(str(module.__file__)).suffix != ".py"


def why_slow() -> str:
    """In a line why something that is loaded runs interpreted though it has types to be compiled by; '' where all of it
    is compiled."""
    ours = (module for name, module in sorted(sys.modules.items()) if name.startswith("keelroom.core."))
    slow = [
        module.__name__.rpartition(".")[2]
        for module in ours
        if module.__file__ and not compiled(module) and Path(module.__file__).with_suffix(".pxd").exists()
    ]
    if not slow:
        return ""
    return (
        f"Interpreted, and slower, with the same figures: {', '.join(slow)}. A C compiler and Python's headers at "
        "set-up make it fast"
    )
