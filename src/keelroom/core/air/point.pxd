# Types of point.py where it is compiled.
cimport cython
from libc cimport math

from keelroom.core.balance cimport Branches

ctypedef (double, double) two

cdef double SLOWEST, STANDARD_DENSITY, STILL, STILL_FLUX, NUDGED
cdef double GRILLE_LOSS, EXIT_LOSS, DISCHARGE, FLAP_LOSS, FLAP_CLOSED, THIN_CORE
cdef double STILL_OWN, OPENING_LOSS, OUT_LOSS
cdef int GRILLE, EXIT, BYPASS, LEAKS

cdef class OwnPathRows:
    cdef public const double[:] opening, face, out, loss, fans, pressed, drawn

cdef class NetworkRows:
    cdef public const double[:] grille_area, exit_area, bypass_area, ram, base
    cdef public const double[:, :] area, loss, leak_area, flap_area, flaps_open, pushes
    cdef public const double[:, :, :] incidence

cdef class CurveRows:
    cdef public const double[:, :] present, flow, pressure, hole
    cdef public const double[:, :, :, :] cubics

@cython.locals(n=double, x=double, t=double, segment=int, segments=int, c0=double, c1=double, c2=double, c3=double, value=double,
               slope=double, beyond=double, behind=double, hole=double, head=double)
cpdef two fan_pressure(CurveRows curve, int i, int k, double thrust, double flow, double speed,
                       double density) noexcept nogil

cdef class AirPath(Branches):
    cdef NetworkRows network
    cdef CurveRows curve
    cdef public int zones, classes, fans, core, blown
    cdef int row
    cdef double[::1] opening, factor, speed
    cdef double road, stream, thrust, sucked
    cdef double ahead, behind, bay, ahead_warm, behind_warm, bay_warm

    cdef double drop(self, double flux) noexcept nogil

    @cython.locals(b=int, k=int, strongest=double, moved=double, pressure=double, gap=double, heads=double,
                   face=double, passing=double)
    cdef void load(self, int i, double road, double thrust, double leaks) noexcept nogil

    @cython.locals(b=int, k=int, i=int, total=double, driven=double, blown=double, pushed=double, area=double,
                   through=double, drive=double)
    cdef void guess(self, double face) noexcept nogil

    @cython.locals(b=int, k=int, i=int, stagnation=double, density=double, rise=double, steepness=double)
    cdef void losses(self) noexcept nogil

    @cython.locals(forward=bint, passed=double, shut=double)
    cdef void through_opening(self, int b) noexcept nogil

    @cython.locals(k=int, area=double, flux=double, size=double, more=double, covers=double, lost=double)
    cdef void through_core(self, int b) noexcept nogil

    @cython.locals(b=int, total=double, moved=double, share=double, thinning=double)
    cdef void foresee(self) noexcept nogil

    @cython.locals(b=int, move=double, was=double, drive=double, square=double)
    cdef void take_step(self, double share) noexcept nogil

    @cython.locals(b=int, flow=double)
    cdef double back(self) noexcept nogil

    @cython.locals(b=int, flow=double)
    cdef double forward(self) noexcept nogil

cdef class OwnAir(Branches):
    cdef OwnPathRows path
    cdef CurveRows curve
    cdef double[::1] factor
    cdef int row
    cdef double speed, density, fans
    cdef bint blown

    @cython.locals(b=int, stagnation=double, area=double, moved=double, begun=double)
    cdef void load(self, int i, double road, double speed, double density) noexcept nogil

    @cython.locals(b=int, share=double, rise=double, steepness=double)
    cdef void losses(self) noexcept nogil

    @cython.locals(b=int, move=double)
    cdef void take_step(self, double share) noexcept nogil

@cython.locals(i=int)
cpdef int own_flows(OwnAir own, double[::1] road, double[::1] speed, double[::1] density,
                    double[::1] out) noexcept nogil
