# Types of parting.py where it is compiled.
cimport cython
from libc cimport math

cdef double NOWHERE

cdef class FaceRows:
    cdef public const double[:, ::1] corners, covers, zones, discs
    cdef public const double[::1] steps

    @cython.locals(count=int, inside=bint, k=int, after=int, y0=double, y1=double, x0=double, x1=double)
    cdef bint open_at(self, double x, double y) noexcept nogil

    @cython.locals(z=int, d=int)
    cdef bint hidden(self, double x, double y) noexcept nogil

    @cython.locals(across=double, up=double)
    cdef double off(self, int d, double x, double y) noexcept nogil

    @cython.locals(least=double, d=int)
    cdef double beyond(self, int z, double x, double y) noexcept nogil

    @cython.locals(left=double, bottom=double)
    cdef bint belongs(self, int z, double turn, double x, double y) noexcept nogil

    @cython.locals(front=int, rear=int, corner=int, ahead=double, behind=double, z=int, turn=double, pusher=bint,
                   depths=double)
    cdef long part(self, double[:, ::1] turns, int i, int j, double x, double y) noexcept nogil

    @cython.locals(nodes=long, size=long, code=long, place=long, c=int, left=double, bottom=double)
    cdef long code(self, int front, int rear, int corner, double x, double y) noexcept nogil

@cython.locals(i=int, j=int)
cpdef void part_all(FaceRows face, const double[::1] across, const double[::1] up, long[:, ::1] codes,
                    double[:, ::1] turns) noexcept nogil
