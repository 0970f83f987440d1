# Types of point.py where it is compiled.
cimport cython

cdef class SensingRows:
    cdef public const double[:] after_core, fins, air

cdef class ControlRows:
    cdef public const double[:, :] temperatures, shares, powers
    cdef public const double[:] least, least_power

@cython.locals(at=double)
cpdef double sensed(SensingRows sensing, int i, double outlet, double drop) noexcept nogil

@cython.locals(k=int, share=double, along=double)
cdef double asked_at(const double[:, :] knots, const double[:, :] values, int i, double least,
                     double reading) noexcept nogil

cpdef double commanded_share(ControlRows law, int i, double reading) noexcept nogil

cpdef double power_share(ControlRows law, int i, double reading) noexcept nogil
