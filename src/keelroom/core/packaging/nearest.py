"""Clearance of one pair of convex solids, boxes and cylinders: the one point of it, written once. Compiled where a C
compiler was at hand (`nearest.pxd` types it), the same source interpreted where none was.

A solid is 16 numbers: centre (3), half (3), its three axes (9), and 1 for a cylinder about the third, 0 for a box.
Lengths in metres.
"""

CLOSE = 1e-9
"""[m] solids nearer than this touch or overlap."""
SURELY = 3e-4
"""[m] nearest points this far apart are no overlap that has not settled yet"""
STILL = 2e-6
"""[m] a nearest point that moves less than this has arrived; a gap is then good to far less, being flat there."""
MOST_STEPS = 400
STARTS = 6
WIDEST_TURN, TURNS = 0.6, 16
"""[rad] the search for the way out of an overlap begins with turns of so much, halved so often: to 0.02 mrad."""
LOWEST = -1e300
GAINED = 1e-8
"""[m] a turn that frees less than this is none: thin discs would be crept round for thousands of steps"""
WAYS = 28
"""directions tried before an overlap is searched: one, nine, nine crossed and the same turned round"""
CONE, TURN = 4 * WAYS, 4 * WAYS + 24
LAYOUT = (CONE, TURN, TURN + 2 * TURNS)
"""Numbers of scratch room: a pair's ways with what each parts, then what is given: cosine and sine of twelve ways round
a cone, from CONE on, and of each turn, from TURN on; how many in all."""
FIRST_TURN = (WIDEST_TURN, TURNS)
"""what is compiled keeps its numbers to itself: these two are for whoever makes the room"""


def nearest(solid, x, y, z):
    """The point of a solid nearest to a point, as three numbers."""
    x, y, z = x - solid[0], y - solid[1], z - solid[2]
    p = solid[6] * x + solid[7] * y + solid[8] * z
    q = solid[9] * x + solid[10] * y + solid[11] * z
    r = solid[12] * x + solid[13] * y + solid[14] * z
    if solid[15] > 0:
        reach = (p * p + q * q) ** 0.5
        share = min(solid[3] / max(reach, 1e-12), 1.0)
        p, q = p * share, q * share
    else:
        p = min(max(p, -solid[3]), solid[3])
        q = min(max(q, -solid[4]), solid[4])
    r = min(max(r, -solid[5]), solid[5])
    return (
        p * solid[6] + q * solid[9] + r * solid[12] + solid[0],
        p * solid[7] + q * solid[10] + r * solid[13] + solid[1],
        p * solid[8] + q * solid[11] + r * solid[14] + solid[2],
    )


def support(solid, x, y, z):
    """How far a solid reaches from its centre along a unit direction."""
    p = abs(solid[6] * x + solid[7] * y + solid[8] * z)
    q = abs(solid[9] * x + solid[10] * y + solid[11] * z)
    r = abs(solid[12] * x + solid[13] * y + solid[14] * z)
    if solid[15] > 0:
        return (p * p + q * q) ** 0.5 * solid[3] + r * solid[5]
    return p * solid[3] + q * solid[4] + r * solid[5]


def apart(a, b, x, y, z):
    """How far two solids are apart along a unit direction, negative where they overlap along it."""
    between = (b[0] - a[0]) * x + (b[1] - a[1]) * y + (b[2] - a[2]) * z
    return between - support(a, x, y, z) - support(b, x, y, z)


def put(a, b, room, k, x, y, z):
    """Keep a direction with how far it parts the pair, at its place in the scratch room."""
    room[4 * k], room[4 * k + 1], room[4 * k + 2] = x, y, z
    room[4 * k + 3] = apart(a, b, x, y, z)


def turned(a, b, room, k, x, y, z):
    """The same of any direction: at length one, from the first towards the second."""
    length = (x * x + y * y + z * z) ** 0.5
    if length > 1e-9:
        x, y, z = x / length, y / length, z / length
    else:
        x, y, z = 0.0, 0.0, 1.0
    if x * (b[0] - a[0]) + y * (b[1] - a[1]) + z * (b[2] - a[2]) < 0:
        x, y, z = -x, -y, -z
    put(a, b, room, k, x, y, z)


def ways(a, b, room, k):
    """Nine directions one of which parts most pairs, from place k on: the axes of both, centre to centre, and out from
    each cylinder."""
    x, y, z = b[0] - a[0], b[1] - a[1], b[2] - a[2]
    for i in range(3):
        turned(a, b, room, k + i, a[6 + 3 * i], a[7 + 3 * i], a[8 + 3 * i])
        turned(a, b, room, k + 3 + i, b[6 + 3 * i], b[7 + 3 * i], b[8 + 3 * i])
    turned(a, b, room, k + 6, x, y, z)
    along = x * a[12] + y * a[13] + z * a[14]
    turned(a, b, room, k + 7, x - along * a[12], y - along * a[13], z - along * a[14])
    along = x * b[12] + y * b[13] + z * b[14]
    turned(a, b, room, k + 8, x - along * b[12], y - along * b[13], z - along * b[14])


def best_of(room, first, count):
    """The place of the direction that parts most, the first of equals."""
    best = first
    for k in range(first + 1, first + count):
        if room[4 * k + 3] > room[4 * best + 3]:
            best = k
    return best


def met(a, b, bound):
    """The point of b nearest to a: projections from one onto the other, with momentum that is dropped where it points
    uphill."""
    x, y, z = nearest(b, a[0], a[1], a[2])
    ahead_x, ahead_y, ahead_z, momentum = x, y, z, 1.0
    for _ in range(MOST_STEPS):
        on_x, on_y, on_z = nearest(a, ahead_x, ahead_y, ahead_z)
        new_x, new_y, new_z = nearest(b, on_x, on_y, on_z)
        step_x, step_y, step_z = new_x - x, new_y - y, new_z - z
        uphill = (ahead_x - new_x) * step_x + (ahead_y - new_y) * step_y + (ahead_z - new_z) * step_z
        if uphill > 0:
            momentum = 1.0
        grown = (1 + (1 + 4 * momentum * momentum) ** 0.5) / 2
        push = (momentum - 1) / grown
        ahead_x, ahead_y, ahead_z = new_x + push * step_x, new_y + push * step_y, new_z + push * step_z
        momentum, x, y, z = grown, new_x, new_y, new_z
        # A pair with no parting direction whose points already meet does overlap: nothing waits for it.
        off = (x - on_x) ** 2 + (y - on_y) ** 2 + (z - on_z) ** 2
        if bound < -1e-6 and off < SURELY * SURELY:
            break
        if max(abs(step_x), abs(step_y), abs(step_z)) < STILL:
            break
    return x, y, z


def descended(a, b, room, x, y, z):
    """The greatest separation reached from a direction by turning it, and the direction there: ways on a cone round the
    best so far are tried, nearer and nearer."""
    best, turn = apart(a, b, x, y, z), 0
    while turn < TURNS:
        if abs(x) < 0.9:
            ux, uy, uz = 0.0, z, -y
        else:
            ux, uy, uz = -z, 0.0, x
        length = (ux * ux + uy * uy + uz * uz) ** 0.5
        ux, uy, uz = ux / length, uy / length, uz / length
        vx, vy, vz = y * uz - z * uy, z * ux - x * uz, x * uy - y * ux
        c, s = room[TURN + 2 * turn], room[TURN + 2 * turn + 1]
        found, way = LOWEST, 0
        for k in range(12):
            p, q = s * room[CONE + 2 * k], s * room[CONE + 2 * k + 1]
            tried = apart(a, b, c * x + p * ux + q * vx, c * y + p * uy + q * vy, c * z + p * uz + q * vz)
            if tried > found:
                found, way = tried, k
        if found > best + GAINED:
            p, q = s * room[CONE + 2 * way], s * room[CONE + 2 * way + 1]
            x, y, z = c * x + p * ux + q * vx, c * y + p * uy + q * vy, c * z + p * uz + q * vz
        else:
            turn += 1
        best = max(best, found)
    return best, x, y, z


def shallowest(a, b, room, x, y, z):
    """The least overlap as a negative separation, and the way out, of a pair that overlaps, starting at a way.

    Out along the sum of both shapes one has to move by its support less the distance; there are dips between ridges,
    so the best few ways are followed.
    """
    put(a, b, room, 0, x, y, z)
    ways(a, b, room, 1)
    for i in range(3):
        for j in range(3):
            ax, ay, az = a[6 + 3 * i], a[7 + 3 * i], a[8 + 3 * i]
            bx, by, bz = b[6 + 3 * j], b[7 + 3 * j], b[8 + 3 * j]
            cx, cy, cz = ay * bz - az * by, az * bx - ax * bz, ax * by - ay * bx
            length = (cx * cx + cy * cy + cz * cz) ** 0.5
            if length > 1e-6:
                cx, cy, cz = cx / length, cy / length, cz / length
            else:
                cx, cy, cz = x, y, z
            put(a, b, room, 10 + 3 * i + j, cx, cy, cz)
            put(a, b, room, 19 + 3 * i + j, -cx, -cy, -cz)
    most, wx, wy, wz = LOWEST, x, y, z
    for _ in range(STARTS):
        k = best_of(room, 0, WAYS)
        found, fx, fy, fz = descended(a, b, room, room[4 * k], room[4 * k + 1], room[4 * k + 2])
        room[4 * k + 3] = LOWEST
        if found > most:
            most, wx, wy, wz = found, fx, fy, fz
    return most, wx, wy, wz


def bounds(a, b, out, room, count):
    """For each pair a gap that is surely there, or the overlap as a negative figure, and the direction it lies in: the
    greatest separation over the directions that part boxes and cylinders. out: rows of 4.

    Source: separating axes.
    """
    for i in range(count):
        ways(a[i], b[i], room, 0)
        k = best_of(room, 0, 9)
        out[i][0], out[i][1], out[i][2], out[i][3] = room[4 * k + 3], room[4 * k], room[4 * k + 1], room[4 * k + 2]


def clearances(a, b, out, room, count):
    """For each pair gap, normal from the first to the second, and the nearest points. out: rows of 10.

    Source: projection onto convex sets; Nesterov's momentum with restart (O'Donoghue & Candès), from memory.
    """
    for i in range(count):
        one, other, row = a[i], b[i], out[i]
        ways(one, other, room, 0)
        k = best_of(room, 0, 9)
        bound, x, y, z = room[4 * k + 3], room[4 * k], room[4 * k + 1], room[4 * k + 2]
        bx, by, bz = met(one, other, bound)
        ax, ay, az = nearest(one, bx, by, bz)
        dx, dy, dz = bx - ax, by - ay, bz - az
        gap = (dx * dx + dy * dy + dz * dz) ** 0.5
        # Rims that pass each other have no parting direction among the few tried: there the nearest points decide.
        if gap > CLOSE and (bound > -1e-6 or gap > SURELY):
            x, y, z = dx / max(gap, 1e-12), dy / max(gap, 1e-12), dz / max(gap, 1e-12)
            gap = max(gap, bound)
        else:
            if bound < 0:
                bound, x, y, z = shallowest(one, other, room, x, y, z)
            gap = min(bound, 0.0)
        row[0], row[1], row[2], row[3] = gap, x, y, z
        row[4], row[5], row[6] = ax, ay, az
        row[7], row[8], row[9] = bx, by, bz
