"""Flows of one network of branches between nodes, found by a safeguarded Newton search. It knows no discipline.

What a branch loses, what drives it and how large flows can be is said by the subclass of a discipline; where branches
leave and arrive by an incidence. Where every loss rises with its flow, the flows are the minimum of a convex
function, and the nodal Newton below (the gradient method of Todini and Pilati for pipe networks) finds it: one small
linear system a step. Compiled where a C compiler was at hand (`balance.pxd` types it).
"""

import math

import numpy as np

from keelroom.core.network import STEPS

TOLERANCE, CLOSURE = 1e-10, 1e-10
"""Largest gap of pressure, over what drives the network, and of flow at a node, over what could move."""
PATIENCE, LEAST_SHARE = 8, 0.1
"""Steps from which on one that turns round is shortened, and by how much at most."""
CREDIBLE = 3.0
"""Times the reach of a network a like one's flows may have and still be a good beginning."""
OUTDOORS = -1


class Branches:
    """One network of B branches and N nodes at a time; pressures [Pa], flows [kg/s], by branch unless said.

    present : 1 where there is a branch, 0 where there is none;  leaves, arrives : its nodes, OUTDOORS outside them
    scale : what drives the network, in size;  reach : flow it could move at most
    source, loss, slope : what drives each branch from outside, what it loses, how that rises with its flow
    flow, pressure (N) : where the search stands, at its end the answer;  worst : largest gap over `scale` there
    """

    def __init__(self, branches, nodes):
        self.count, self.nodes, self.scale, self.reach, self.worst = branches, nodes, 1.0, 1.0, 0.0
        self.leaves, self.arrives = np.zeros(branches, np.intc), np.zeros(branches, np.intc)
        self.present, self.source, self.loss, self.slope = (np.zeros(branches) for _ in range(4))
        self.flow, self.move, self.last, self.head = (np.zeros(branches) for _ in range(4))
        self.pressure, self.known, self.matrix = np.zeros(nodes), np.zeros(nodes), np.zeros((nodes, nodes))

    def state(self):
        """What the flows carry, densities and temperatures, at `flow`: nothing where one density is everywhere."""

    def losses(self):
        """Set `source`, `loss` and `slope` at `flow`."""

    def square_law(self, b, factor, still):
        """Loss and slope of a branch that loses `factor` times the square of its flow, carried to zero along a straight
        line under a flow `still` [kg/s]."""
        size = math.sqrt(self.flow[b] * self.flow[b] + still * still)
        self.loss[b] = factor * self.flow[b] * size
        self.slope[b] = factor * (size + self.flow[b] * self.flow[b] / size)

    def foresee(self):
        """Add to `loss` what the state will do to it when the flows go by `move`; only the search depends on it."""

    def take_step(self, share):
        """Let `flow` go by a share of `move`, kept within what any network of the kind could carry."""
        for b in range(self.count):
            self.flow[b] += min(max(share * self.move[b], -self.reach), self.reach)

    def join(self, incidence, i):
        """Take the ends of network i from an incidence (n, B, N): 1 where a branch leaves, -1 where it arrives."""
        for b in range(self.count):
            self.leaves[b] = self.arrives[b] = OUTDOORS
            for node in range(self.nodes):
                if incidence[i, b, node] > 0:
                    self.leaves[b] = node
                elif incidence[i, b, node] < 0:
                    self.arrives[b] = node

    def begin_at(self, flows):
        """Begin the search at the flows of a like network, where they are of a credible size."""
        largest = 0.0
        for b in range(self.count):
            largest = max(largest, abs(flows[b]))
        if largest <= CREDIBLE * self.reach:
            for b in range(self.count):
                if self.present[b] > 0:
                    self.flow[b] = flows[b]

    def across(self, b):
        """Pressure difference over a branch."""
        over = 0.0
        if self.leaves[b] >= 0:
            over += self.pressure[self.leaves[b]]
        if self.arrives[b] >= 0:
            over -= self.pressure[self.arrives[b]]
        return over

    def spread(self, b, flow):
        """Put a flow of a branch into the balance of its nodes."""
        if self.leaves[b] >= 0:
            self.known[self.leaves[b]] += flow
        if self.arrives[b] >= 0:
            self.known[self.arrives[b]] -= flow

    def settled(self):
        """Whether every branch and node balances."""
        self.worst, open_ends = 0.0, 0.0
        for node in range(self.nodes):
            self.known[node] = 0.0
        for b in range(self.count):
            self.spread(b, self.flow[b])
            if self.present[b] > 0:
                gap = abs(self.across(b) + self.source[b] - self.loss[b])
                if gap != gap:
                    self.worst = gap
                    return False
                self.worst = max(self.worst, gap)
        for node in range(self.nodes):
            open_ends = max(open_ends, abs(self.known[node]))
        self.worst /= self.scale
        return self.worst < TOLERANCE and open_ends < CLOSURE * self.reach

    def factorise(self):
        """The nodes' matrix of flow per pressure in its triangles; a node nothing reaches keeps its pressure."""
        for row in range(self.nodes):
            for column in range(self.nodes):
                self.matrix[row, column] = 0.0
        for b in range(self.count):
            if self.present[b] > 0:
                conductance = 1.0 / self.slope[b]
                leaves, arrives = self.leaves[b], self.arrives[b]
                if leaves >= 0:
                    self.matrix[leaves, leaves] += conductance
                if arrives >= 0:
                    self.matrix[arrives, arrives] += conductance
                if leaves >= 0 and arrives >= 0:
                    self.matrix[leaves, arrives] -= conductance
                    self.matrix[arrives, leaves] -= conductance
        for pivot in range(self.nodes):
            if self.matrix[pivot, pivot] == 0:
                self.matrix[pivot, pivot] = 1.0
            for row in range(pivot + 1, self.nodes):
                share = self.matrix[row, pivot] / self.matrix[pivot, pivot]
                self.matrix[row, pivot] = share
                if share != 0:
                    for column in range(pivot + 1, self.nodes):
                        self.matrix[row, column] -= share * self.matrix[pivot, column]

    def aim(self):
        """Pressures at which flows moved along their tangents balance, and the move that takes each branch there."""
        for node in range(self.nodes):
            self.known[node] = 0.0
        for b in range(self.count):
            if self.present[b] > 0:
                self.spread(b, self.flow[b] + (self.source[b] - self.loss[b]) / self.slope[b])
        for row in range(self.nodes):
            for column in range(row):
                self.known[row] -= self.matrix[row, column] * self.known[column]
        for row in range(self.nodes - 1, -1, -1):
            left = -self.known[row]
            for column in range(row + 1, self.nodes):
                left -= self.matrix[row, column] * self.pressure[column]
            self.pressure[row] = left / self.matrix[row, row]
        for b in range(self.count):
            self.head[b] = self.across(b) + self.source[b]
            self.move[b] = (self.head[b] - self.loss[b]) / self.slope[b] if self.present[b] > 0 else 0.0

    def solve(self):
        """Search from `flow` for the flows that balance; steps taken, 0 where none were found.

        Source: nodal Newton (Todini and Pilati).
        """
        share = 1.0
        for b in range(self.count):
            self.last[b] = 0.0
        for step in range(1, STEPS + 1):
            self.state()
            self.losses()
            if step > 1 and self.settled():
                return step
            self.factorise()
            # What the state does to the losses is foreseen from a first step and put into a second.
            self.aim()
            self.foresee()
            self.aim()
            # Newton cannot cycle on a convex function for long; where the state follows the flow it may, and a
            # shorter step breaks the cycle.
            turned = 0.0
            for b in range(self.count):
                turned += self.move[b] * self.last[b]
                self.last[b] = self.move[b]
            share = max(0.6 * share, LEAST_SHARE) if step > PATIENCE and turned < 0 else min(1.5 * share, 1.0)
            self.take_step(share)
        return 0
