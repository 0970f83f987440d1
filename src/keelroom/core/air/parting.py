"""What stands ahead of and behind every sample point of a face: one point of it, written once.

Compiled where a C compiler was at hand (`parting.pxd` types it), the same source interpreted where none was.
"""

import math

NOWHERE = 1e300
"""[m] from any fan"""


class FaceRows:
    """What a face is parted by, as memory to read by rows, lengths in metres.

    corners (P, 2) of the panel's opening, none where no panel is in the way;  covers (C, 4) left, bottom, width, height
    zones (Z, 9): first of its discs and past the last, 1 ahead of the core, 1 with a shroud, left, bottom, width and
                  height of that, and its depth, or how far past its disc a bare fan draws;  discs (D, 4) x, y, radius,
                  hub;  steps (S,) turns along a shroud, in its depths, points are told apart by
    """

    def open_at(self, x, y):
        """Whether air gets to a point: inside the opening by the edges a ray to the right crosses, behind no hub."""
        count = self.corners.shape[0]
        inside = count == 0
        for k in range(count):
            after = k + 1 if k + 1 < count else 0
            y0, y1 = self.corners[k, 1], self.corners[after, 1]
            if (y0 > y) != (y1 > y):
                x0, x1 = self.corners[k, 0], self.corners[after, 0]
                if x < x0 + (y - y0) / (y1 - y0) * (x1 - x0):
                    inside = not inside
        return inside and not self.hidden(x, y)

    def hidden(self, x, y):
        """Whether a fan ahead of the core has its hub and motor before a point."""
        for z in range(self.zones.shape[0]):
            if self.zones[z, 2] > 0:
                for d in range(int(self.zones[z, 0]), int(self.zones[z, 1])):
                    if self.off(d, x, y) <= self.discs[d, 3]:
                        return True
        return False

    def off(self, d, x, y):
        """How far a point lies from the middle of a disc."""
        across, up = x - self.discs[d, 0], y - self.discs[d, 1]
        return math.sqrt(across * across + up * up)

    def beyond(self, z, x, y):
        """How far a point lies past the edge of a zone's nearest fan; under 0 behind it."""
        least = NOWHERE
        for d in range(int(self.zones[z, 0]), int(self.zones[z, 1])):
            least = min(least, self.off(d, x, y) - self.discs[d, 2])
        return least

    def belongs(self, z, turn, x, y):
        """Whether a point, `turn` past a zone's fans, lies in that zone."""
        if self.zones[z, 3] > 0:
            left, bottom = self.zones[z, 4], self.zones[z, 5]
            return left <= x <= left + self.zones[z, 6] and bottom <= y <= bottom + self.zones[z, 7]
        return turn <= self.zones[z, 8]

    def part(self, turns, i, j, x, y):
        """The code of a point, and into turns[i, j] its turn along the shroud in depths, squared; -1 where no air gets.

        Where zones meet, the nearer fan has the point. Only air in a shroud turns; under the fan itself it does not.
        """
        turns[i, j] = 0.0
        if not self.open_at(x, y):
            return -1
        front, rear, corner = 0, 1, 0
        ahead = behind = NOWHERE
        for z in range(self.zones.shape[0]):
            turn = self.beyond(z, x, y)
            pusher = self.zones[z, 2] > 0
            if turn >= (ahead if pusher else behind) or not self.belongs(z, turn, x, y):
                continue
            if pusher:
                front, ahead = z + 2, turn
                continue
            rear, behind, corner, depths = z + 2, turn, 0, 0.0
            if self.zones[z, 3] > 0:
                depths = max(turn, 0.0) / max(self.zones[z, 8], 1e-3)
                while corner < self.steps.shape[0] and self.steps[corner] < depths:
                    corner += 1
            turns[i, j] = depths * depths
        return self.code(front, rear, corner, x, y)

    def code(self, front, rear, corner, x, y):
        """One number of all a point is told apart by: what is ahead counts in ones, what covers it most."""
        nodes, size = self.zones.shape[0] + 2, self.steps.shape[0] + 1
        code, place = front + nodes * (rear + nodes * corner), nodes * nodes * size
        for c in range(self.covers.shape[0]):
            left, bottom = self.covers[c, 0], self.covers[c, 1]
            if left <= x <= left + self.covers[c, 2] and bottom <= y <= bottom + self.covers[c, 3]:
                code += place
            place *= 2
        return code


def part_all(face, across, up, codes, turns):
    """Codes (ny, nx) and turns (ny, nx) of all points, from the x of each column and the y of each row."""
    for i in range(up.shape[0]):
        for j in range(across.shape[0]):
            codes[i, j] = face.part(turns, i, j, across[j], up[i])
