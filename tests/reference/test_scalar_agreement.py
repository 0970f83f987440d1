"""The vectorised solver against the scalar reference (ht, fluids, brentq) at every point of a varied sample.

Class: package (ht's Gnielinski, fluids' dimensionless groups, scipy's brentq and cubic) with re-written glue.
"""

import math

import numpy as np

from keelroom.assess.inputs.translate import stacked
from keelroom.core.operating_point import solve
from tests.long import long
from tests.packages import rows
from tests.perf.scalar_reference import scalars, settle


def test_every_point_agrees_to_a_millionth(demo):
    compared = 0
    for members in rows(demo, long("scalar", 2)).values():
        points, _ = stacked(members)
        solution = solve(points, members[0].layout)
        for i, row in enumerate(members):
            unmerged, _ = stacked([row])
            expected = settle(_spread(scalars(unmerged, 0)), row.layout)
            found = float(solution.state.temperature[i])
            if math.isinf(expected):
                assert not solution.settles[i]
                continue
            assert solution.settles[i]
            assert abs(found - expected) <= 1e-6 * expected, (row.layout, i)
            compared += 1
    assert compared > 7


def _spread(p):
    """Undo the merging of alike lanes: the reference walks every lane of the full face."""
    total = 16 if p.face.which.shape[1] == 24 else 24
    counts = np.round(p.face.weight * total).astype(int)
    p.face.sections["which"] = np.repeat(p.face.which, counts, axis=0)
    return p
