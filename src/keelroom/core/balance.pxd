# Types of balance.py where it is compiled.
cimport cython
from libc cimport math

cdef double TOLERANCE, CLOSURE, LEAST_SHARE, CREDIBLE
cdef int STEPS, PATIENCE, OUTDOORS

cdef class Branches:
    cdef public int count, nodes
    cdef public double worst
    cdef double scale, reach
    cdef int[::1] leaves, arrives
    cdef double[::1] present, source, loss, slope, flow, move, last, head, pressure, known
    cdef double[:, ::1] matrix

    cdef void state(self) noexcept nogil
    cdef void losses(self) noexcept nogil
    @cython.locals(size=double)
    cdef void square_law(self, int b, double factor, double still) noexcept nogil

    cdef void foresee(self) noexcept nogil

    @cython.locals(b=int)
    cdef void take_step(self, double share) noexcept nogil

    @cython.locals(b=int, node=int)
    cdef void join(self, const double[:, :, :] incidence, int i) noexcept nogil

    @cython.locals(b=int, largest=double)
    cdef void begin_at(self, const double[:] flows) noexcept nogil

    @cython.locals(over=double)
    cdef double across(self, int b) noexcept nogil

    cdef void spread(self, int b, double flow) noexcept nogil

    @cython.locals(b=int, node=int, open_ends=double, gap=double)
    cdef bint settled(self) noexcept nogil

    @cython.locals(b=int, row=int, column=int, pivot=int, leaves=int, arrives=int, conductance=double, share=double)
    cdef void factorise(self) noexcept nogil

    @cython.locals(b=int, row=int, column=int, node=int, left=double)
    cdef void aim(self) noexcept nogil

    @cython.locals(b=int, step=int, share=double, turned=double)
    cdef int solve(self) noexcept nogil
