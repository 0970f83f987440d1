"""The build hook that compiles what runs in thousands: each module of the core that has types beside it in a .pxd.

Where there is no C compiler, or no Cython, it says so in a line and the same source runs interpreted, slower.
"""

from __future__ import annotations

import subprocess
import sys
import tempfile
from pathlib import Path
from typing import Any

from hatchling.builders.hooks.plugin.interface import BuildHookInterface

SOURCES = "src/keelroom/core"
SHARED = f"{SOURCES}/_shared.py"
"""Place of what all compiled modules share: memory they look at, two thirds of them otherwise."""
DIRECTIVES = {
    "language_level": 3,
    "boundscheck": False,
    "wraparound": False,
    "cdivision": True,
    "cpow": True,
    "auto_pickle": False,
    "binding": False,
}
"""Arithmetic as C does it, places counted by whoever writes them, and no more of Python than is called."""


def typed_modules(root: Path) -> list[Path]:
    """Modules with types beside them."""
    return sorted(types.with_suffix(".py") for types in (root / SOURCES).rglob("*.pxd"))


def compiled(module: Path) -> list[Path]:
    """What was built of a module, of whichever Python."""
    return sorted(module.parent.glob(f"{module.stem}.*.so"))


def compile_all(root: Path) -> str:
    """Compile them in their places; why they are interpreted instead, '' where they are not."""
    modules = typed_modules(root)
    for old in (one for module in (*modules, root / SHARED) for one in compiled(module)):
        old.unlink()
    with tempfile.TemporaryDirectory() as made:
        # In a process of its own: what the tools print and where they stand is theirs.
        command = [sys.executable, __file__, "--in", made]
        done = subprocess.run(command, check=False, capture_output=True, text=True, cwd=root / "src")
    if done.returncode == 0 and all(map(compiled, modules)):
        return ""
    told = [line for line in (done.stderr or done.stdout).splitlines() if "rror" in line]
    return told[-1].strip() if told else "nothing was built"


def compile_in(made: str) -> None:
    """Compile from the folder of the packages, into them; what lies between goes to a folder `made`."""
    from Cython.Build import cythonize
    from setuptools import Distribution, Extension

    def extension(module: Path) -> Extension:
        name = ".".join(module.with_suffix("").parts)
        return Extension(name, [str(module)], extra_compile_args=["-O2", "-g0", "-w"], extra_link_args=["-s"])

    here = Path.cwd()
    modules = [module.relative_to(here) for module in typed_modules(here.parent)]
    shared = Path(SHARED).relative_to("src")
    extensions = cythonize(
        [extension(shared.with_suffix(".c")), *map(extension, modules)],
        compiler_directives=DIRECTIVES,
        nthreads=2,
        quiet=True,
        build_dir=made,
        shared_utility_qualified_name=".".join(shared.with_suffix("").parts),
        # Its module of functions of this kind does not link in Cython 3.3; nothing here has any.
        shared_utility_features_disabled=["CythonFunction"],
    )
    build = Distribution({"ext_modules": extensions, "package_dir": {"": "."}}).get_command_obj("build_ext")
    build.inplace, build.parallel, build.build_lib, build.build_temp = True, 2, made, made
    build.ensure_finalized()
    build.run()


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
        build_data["artifacts"] += [
            f"/{one.relative_to(root)}" for m in (*typed_modules(root), root / SHARED) for one in compiled(m)
        ]


def up_to_date(root: Path) -> bool:
    """Whether all is built, by this Python, and newer than what it was built from: its source, and the types of all."""
    tag, modules = f"{sys.implementation.cache_tag}-", typed_modules(root)
    types = max(m.with_suffix(".pxd").stat().st_mtime for m in modules)
    return all(
        any(tag in one.name and one.stat().st_mtime >= max(m.stat().st_mtime, types) for one in compiled(m))
        for m in modules
    )


if __name__ == "__main__" and "--in" in sys.argv:
    compile_in(sys.argv[2])
elif __name__ == "__main__":
    here = Path(__file__).parents[1]
    found = "" if up_to_date(here) else compile_all(here)
    print(f"Not compiled, runs interpreted and slower: {found}" if found else "Compiled.")
