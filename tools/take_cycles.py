"""Takes the town and highway cycles out of a wheel of fastsim (Apache-2.0), once: `python tools/take_cycles.py WHEEL`.

The package itself is no dependency: `pip download "fastsim<3" --no-deps` brings the wheel.
"""

import csv
import io
import sys
import zipfile
from pathlib import Path

FOLDER = Path(__file__).parents[1] / "tests/reference/cycles"
CYCLES = ("udds", "hwfet")


def take(wheel: Path) -> None:
    """Write each cycle as seconds and metres per second."""
    with zipfile.ZipFile(wheel) as packed:
        for name in CYCLES:
            rows = csv.DictReader(io.StringIO(packed.read(f"fastsim/resources/cycles/{name}.csv").decode()))
            lines = [f"{float(row['cycSecs']):g},{float(row['cycMps']):.5g}" for row in rows]
            (FOLDER / f"{name}.csv").write_text("second,metres_per_second\n" + "\n".join(lines) + "\n")


if __name__ == "__main__":
    take(Path(sys.argv[1]))
