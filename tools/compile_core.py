"""The build hook that compiles what runs in thousands: each module of the core that has types beside it in a .pxd.

Where there is no C compiler, or no Cython, it says so in a line and the same source runs interpreted, slower.
"""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
from pathlib import Path
from typing import Any

from hatchling.builders.hooks.plugin.interface import BuildHookInterface

SOURCES = "src/keelroom/core"


def typed_modules(root: Path) -> list[Path]:
    """Modules with types beside them."""
    return sorted(types.with_suffix(".py") for types in (root / SOURCES).rglob("*.pxd"))


def compiled(module: Path) -> list[Path]:
    """What was built of a module, of whichever Python."""
    return sorted(module.parent.glob(f"{module.stem}.*.so"))


def compile_all(root: Path) -> str:
    """Compile them in their places; why they are interpreted instead, '' where they are not."""
    modules = typed_modules(root)
    for old in (one for module in modules for one in compiled(module)):
        old.unlink()
    # From a folder of its own: packages are found by it, and nothing but what was built is left beside the source.
    command = [sys.executable, "-m", "Cython.Build.Cythonize", "-i", "-3", *map(str, modules)]
    told_how = os.environ | {"CFLAGS": f"-O2 -g0 {os.environ.get('CFLAGS', '')}"}
    done = subprocess.run(command, check=False, capture_output=True, text=True, cwd=root / "src", env=told_how)
    for module in modules:
        module.with_suffix(".c").unlink(missing_ok=True)
    shutil.rmtree(root / "src" / "build", ignore_errors=True)
    if done.returncode == 0 and all(map(compiled, modules)):
        return ""
    told = [line for line in (done.stderr or done.stdout).splitlines() if "rror" in line]
    return told[-1].strip() if told else "nothing was built"


class CompileCore(BuildHookInterface):  # type: ignore[misc]
    """Compiles before a wheel or an editable install is made, and puts what was built into the wheel."""

    PLUGIN_NAME = "custom"

    def initialize(self, version: str, build_data: dict[str, Any]) -> None:
        root = Path(self.root)
        why = compile_all(root)
        if why:
            print(f"Not compiled, runs interpreted and slower: {why}", file=sys.stderr)
            return
        build_data["pure_python"] = False
        build_data["infer_tag"] = True
        build_data["artifacts"] += [f"/{one.relative_to(root)}" for m in typed_modules(root) for one in compiled(m)]


def up_to_date(root: Path) -> bool:
    """Whether all is built, by this Python, and newer than what it was built from."""
    tag = f"{sys.implementation.cache_tag}-"
    return all(
        any(
            tag in one.name and one.stat().st_mtime >= max(m.stat().st_mtime, m.with_suffix(".pxd").stat().st_mtime)
            for one in compiled(m)
        )
        for m in typed_modules(root)
    )


if __name__ == "__main__":
    here = Path(__file__).parents[1]
    found = "" if up_to_date(here) else compile_all(here)
    print(f"Not compiled, runs interpreted and slower: {found}" if found else "Compiled.")
