"""Whether what runs in thousands runs compiled, and why not where it does not."""

from __future__ import annotations

from pathlib import Path
from types import ModuleType

from keelroom.core.packaging import nearest

TYPED = (nearest,)
"""modules with types beside them"""


def compiled(module: ModuleType) -> bool:
    """Whether a module runs compiled."""
    return Path(str(module.__file__)).suffix != ".py"


def why_slow() -> str:
    """In a line why something runs interpreted that could run compiled; '' where all of it is compiled."""
    slow = [module.__name__.rpartition(".")[2] for module in TYPED if not compiled(module)]
    if not slow:
        return ""
    return (
        f"Interpreted, and slower, with the same figures: {', '.join(slow)}. A C compiler and Python's headers at "
        "set-up make it fast"
    )
