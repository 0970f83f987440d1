"""Flows of a network of branches between nodes, found by a safeguarded Newton search. It knows no discipline.

What a branch loses, what drives it and how large flows can be is said by the `Branches` of a discipline; where
branches leave and arrive by an incidence. Where every loss rises with its flow, the flows are the minimum of a convex
function, and the nodal Newton below (the gradient method of Todini and Pilati for pipe networks) finds it: one small
linear system a step for all networks at once.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Generic, NamedTuple, Protocol, TypeVar

import numpy as np

from keelroom.core.arrays import Bools, Floats
from keelroom.errors import SolveError

TOLERANCE, CLOSURE = 1e-7, 1e-9
"""Largest gap of pressure, over what drives the network, and of flow at a node, over what could move."""
STEPS = 120
PATIENCE, LEAST_SHARE = 8, 0.1
GRAVITY = 9.80665
"""[m/s2]"""

S = TypeVar("S")


class Branches(Protocol[S]):
    """What a discipline says of n networks with B branches each; pressures [Pa], flows [kg/s], all (n, B) unless said.

    present : which branches there are;  scale : (n,) what drives the network, in size;  reach : (n,) flow it could
              move at most
    """

    present: Bools
    scale: Floats
    reach: Floats

    def first_guess(self) -> Floats:
        """Flows to begin with."""

    def state(self, flow: Floats, pressure: Floats) -> S:
        """What the flows carry: densities and temperatures at them. pressure: (n, N) of the nodes"""

    def at(self, flow: Floats, state: S) -> tuple[Floats, Floats, Floats]:
        """What drives each branch from outside, what it loses, and how the loss rises with its flow."""

    def foreseen(self, step: tuple[Floats, Floats], lost: tuple[Floats, Floats], state: S) -> Floats:
        """How losses change with what the state does when the flows move; only the search depends on it. step: flow,
        move; lost: loss, slope"""

    def moved(self, step: tuple[Floats, Floats], head: Floats, loss: Floats) -> Floats:
        """The flows after a step, kept within what any network of the kind could carry. step: flow, move"""


class Balanced(NamedTuple, Generic[S]):
    """flow (n, B) [kg/s], pressure (n, N) [Pa], the state at them, steps used and the largest imbalance of pressure
    over `scale`."""

    flow: Floats
    pressure: Floats
    state: S
    steps: int
    residual: float


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
    branch. For `Branches.at` to add to its sources. Source: hydrostatics.
    """
    fall: Floats = (incidence @ heights[:, :, None])[:, :, 0]
    return density * GRAVITY * fall


def solve_network(incidence: Floats, branches: Branches[S], start: Floats | None, name: str) -> Balanced[S]:
    """Flows that balance every branch and node of n networks of one shape. incidence (n, B, N)

    start : flows (n, B) of like networks, to begin from where they are credible;  name : what it is, for the error
    Raises SolveError `<name>_not_converged` when the imbalance does not fall under TOLERANCE and CLOSURE.
    Pressures [Pa], flows [kg/s]. Source: nodal Newton (Todini and Pilati).
    """
    flow = branches.first_guess()
    if start is not None:
        # A like network's flows are a good beginning only where they are of a credible size.
        credible = np.abs(start).max(axis=1, keepdims=True) <= 3 * branches.reach[:, None]
        flow = np.where(credible & branches.present, start, flow)
    nodes = _Nodes(incidence, branches.present)
    pressure: Floats = np.zeros((len(flow), incidence.shape[2]))
    worst, share, last = np.full(len(flow), np.inf), np.ones(len(flow)), np.zeros_like(flow)
    for step in range(1, STEPS + 1):
        state = branches.state(flow, pressure)
        source, loss, slope = branches.at(flow, state)
        if step > 1:
            gap = np.where(branches.present, nodes.across(pressure) + source - loss, 0.0)
            open_ends = np.abs(nodes.balance(flow)).max(axis=1) / branches.reach
            worst = np.abs(gap).max(axis=1) / branches.scale
            if worst.max() < TOLERANCE and open_ends.max() < CLOSURE:
                return Balanced(flow, pressure, state, step, float(worst.max()))
        nodes.linearise(slope)
        head = nodes.across(nodes.pressures(flow, source - loss)) + source
        # What the state does to the losses is foreseen from a first step and put into a second.
        loss = loss + branches.foreseen((flow, nodes.conductance * (head - loss)), (loss, slope), state)
        pressure = nodes.pressures(flow, source - loss)
        head = nodes.across(pressure) + source
        move = nodes.conductance * (head - loss)
        # Newton cannot cycle on a convex function for long; where the state follows the flow it may, and a
        # shorter step breaks the cycle.
        turned = (step > PATIENCE) & ((move * last).sum(axis=1) < 0)
        share = np.where(turned, np.maximum(0.6 * share, LEAST_SHARE), np.minimum(1.5 * share, 1.0))
        flow, last = branches.moved((flow, move * share[:, None]), head, loss), move
    raise SolveError(
        f"{name}_not_converged", f"The {name} path did not balance after {STEPS} steps", residual=float(worst.max())
    )


class _Nodes:
    """The nodes' side of the search: what flows in must flow out."""

    def __init__(self, incidence: Floats, present: Bools) -> None:
        self.incidence, self.present = incidence, present
        self.transposed = incidence.transpose(0, 2, 1)
        self.conductance: Floats = np.zeros(present.shape)
        self.matrix: Floats = np.zeros((len(present), incidence.shape[2], incidence.shape[2]))
        self.inverse: Floats = self.matrix

    def linearise(self, slope: Floats) -> None:
        """Flow per pressure of every branch, and the nodes' matrix with it; a node nothing reaches keeps its
        pressure."""
        self.conductance = np.divide(1.0, slope, out=np.zeros_like(slope), where=self.present)
        self.matrix = np.matmul(self.transposed, self.conductance[:, :, None] * self.incidence, dtype=np.float64)
        nodes = np.arange(self.matrix.shape[1])
        self.matrix[:, nodes, nodes] += self.matrix[:, nodes, nodes] == 0
        self.inverse = np.asarray(np.linalg.inv(self.matrix), dtype=np.float64)

    def pressures(self, flow: Floats, drive: Floats) -> Floats:
        """Pressures (n, N) at which flows moved along their tangents balance; drive: what is left to move them (n,
        B)."""
        known = self.balance(np.where(self.present, flow + self.conductance * drive, 0.0))
        solved: Floats = -(self.inverse @ known[:, :, None])[:, :, 0]
        return solved

    def across(self, pressure: Floats) -> Floats:
        """Pressure difference over every branch (n, B)."""
        over: Floats = (self.incidence @ pressure[:, :, None])[:, :, 0]
        return over

    def balance(self, flow: Floats) -> Floats:
        """What leaves every node less what arrives (n, N)."""
        left: Floats = (self.transposed @ flow[:, :, None])[:, :, 0]
        return left
