"""Takes the public drive cycles out of the packages that ship them, once, into small files of the catalogue.

    python tools/make_cycles.py FOLDER    with the wheels of fastsim 2.1.5 and wltp 0.1.2a0 in it

The packages themselves are no dependencies: `pip download --no-deps fastsim==2.1.5 wltp==0.1.2a0` brings them.
"""

from __future__ import annotations

import ast
import csv
import io
import sys
import zipfile
from collections.abc import Iterable
from pathlib import Path

OUT = Path(__file__).parents[1] / "src/keelroom/catalogue/data/cycles"
KMH = 1 / 3.6


def from_fastsim(folder: Path, name: str) -> list[float]:
    """Speeds [m/s] second by second of a cycle in fastsim's wheel."""
    with zipfile.ZipFile(next(folder.glob("fastsim-2.1.5*.whl"))) as wheel:
        inside = next(one for one in wheel.namelist() if one.endswith(f"/{name}.csv"))
        rows = list(csv.DictReader(io.StringIO(wheel.read(inside).decode())))
    column = next(key for key in rows[0] if key.strip().lower() in ("cycmps", "mps", "speed_mps"))
    return [float(row[column]) for row in rows]


def from_wltp(folder: Path, module: str, function: str) -> list[float]:
    """Speeds [m/s] second by second of a cycle in wltp's wheel: read from its source, nothing of it is run."""
    with zipfile.ZipFile(next(folder.glob("wltp-*.whl"))) as wheel:
        tree = ast.parse(wheel.read(f"wltp/cycles/{module}.py").decode())
    body = next(node for node in tree.body if isinstance(node, ast.FunctionDef) and node.name == function)
    for node in ast.walk(body):
        found = [node.value] if isinstance(node, ast.Assign) and _named(node.targets[0]) else []
        if isinstance(node, ast.Dict):
            found = [value for key, value in zip(node.keys, node.values, strict=True) if _named(key)]
        for value in found:
            if isinstance(value, ast.List):
                return [KMH * float(speed) for speed in ast.literal_eval(value)]
    raise SystemExit(f"no cycle in {module}.{function}")


def _named(node: ast.AST | None) -> bool:
    """Whether a name or a key is the cycle's."""
    return "cycle" in (getattr(node, "id", ""), getattr(node, "value", ""))


def write(name: str, speeds: Iterable[float]) -> None:
    lines = [f"{second},{round(speed, 4):g}" for second, speed in enumerate(speeds)]
    (OUT / f"{name}.csv").write_text("\n".join(["second,metres_per_second", *lines]) + "\n", encoding="utf-8")


def main() -> None:
    folder = Path(sys.argv[1])
    for name in ("udds", "hwfet"):
        write(name, from_fastsim(folder, name))
    write("wltc3", from_wltp(folder, "class3", "class_data_b"))
    write("nedc", from_wltp(folder, "nedc", "cycle_data"))


if __name__ == "__main__":
    main()
