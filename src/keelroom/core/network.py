"""Networks of branches between nodes, as arrays: who leaves where, what weight drives; the search is in `balance`."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from keelroom.core.arrays import Floats
from keelroom.errors import SolveError

STEPS = 120
"""Steps after which a search for flows gives up."""
GRAVITY = 9.80665
"""[m/s2]"""


def unbalanced(name: str, residual: float) -> SolveError:
    """What to raise where the search for the flows of a network called `name` gave up."""
    said = f"The {name} path did not balance after {STEPS} steps"
    return SolveError(f"{name.replace(' ', '_')}_not_converged", said, residual=residual)


def incidence_of(ends: Sequence[tuple[int | None, int | None]], nodes: int) -> Floats:
    """Incidence (B, N): 1 at the node a branch leaves, -1 where it arrives; None is outdoors.

    Source: definition.
    """
    found = np.zeros((len(ends), nodes))
    for branch, (leaves, arrives) in enumerate(ends):
        if leaves is not None:
            found[branch, leaves] += 1.0
        if arrives is not None:
            found[branch, arrives] -= 1.0
    return found


def lifted(incidence: Floats, heights: Floats, density: Floats) -> Floats:
    """What the weight of the fluid drives each branch with (n, B) [Pa]: it falls of itself from a higher node to a
    lower one.

    incidence (n, B, N); heights (n, N) [m] of the nodes, outdoors at 0; density (n, B) [kg/m3] of what stands in each
    branch. To be added to the sources of a network. Source: hydrostatics.
    """
    fall: Floats = (incidence @ heights[:, :, None])[:, :, 0]
    return density * GRAVITY * fall
