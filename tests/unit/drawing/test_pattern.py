"""Patterns laid beside each other: each whole, none on another, as large as the board allows."""

from itertools import combinations

import pytest
from shapely.geometry import Polygon, box

from keelroom.core.packaging.pattern import Pattern
from keelroom.drawing.pattern import BOARD, gallery
from keelroom.drawing.scene import Polyline


def strip(name: str, wide: float, high: float) -> Pattern:
    return Pattern(name, "steel", outlines=(((0.0, 0.0), (wide, 0.0), (wide, high), (0.0, high)),))


@pytest.mark.parametrize("count", [1, 2, 5, 12])
def test_patterns_keep_their_size_and_clear_each_other(count):
    """Outlines of every piece found again, by shapely: its area to the last digit, apart from all others, inside the
    scene."""
    pieces = tuple(strip(f"Strap {k}", 0.10 + 0.01 * k, 0.03) for k in range(count))
    scene = gallery(pieces, "us")
    found = [
        Polygon(shape.points) for shape in scene.shapes if isinstance(shape, Polyline) and shape.role == "pattern.cut"
    ]
    assert sorted(one.area for one in found) == pytest.approx([(0.10 + 0.01 * k) * 0.03 for k in range(count)])
    assert not any(one.intersects(other) for one, other in combinations(found, 2))
    left, bottom, wide, high = scene.bounds
    assert all(box(left, bottom, left + wide, bottom + high).contains(one) for one in found)
    # With its words the strip k takes 0.22 + 0.01 k by 0.15 m. By hand: two stand under each other, 0.30 m; five in two
    # columns,
    # 0.45 m; twelve in three, 0.25 + 0.29 + 0.33 m wide; where one column would be 1.8 m high.
    assert max(wide / BOARD, high) == pytest.approx({1: 0.22 / BOARD, 2: 0.30, 5: 0.45, 12: 0.87 / BOARD}[count])
