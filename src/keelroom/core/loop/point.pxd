# Types of point.py where it is compiled.
cimport cython
from libc cimport math

from keelroom.core.balance cimport Branches

cdef double THERMOSTAT_SPAN, LEAK_BORE, LEAK_DISCHARGE, RATED_HEAD, OVER_RATED, ENGINE_SHARE, THERMOSTAT_SHARE
cdef double BYPASS_FLOW, BYPASS_LEFT, TANK_LOSS, LEAST, LEAST_REYNOLDS, BLASIUS, ROUND, CREEP, SHUT, QUARTER_TURN
cdef int ENGINE, CORE, BYPASS

cdef class CircuitRows:
    cdef public const double[:] flow_rated, rpm_rated, pulley, impeller, mechanical, electric, electric_voltage
    cdef public const double[:] thermostat, at_inlet, bypassed, covers
    cdef public const double[:, :, :] incidence
    cdef public const double[:, :] gate, bore, length, heads, square, head, linear, fall

cdef class TubeRows:
    cdef public const double[:] number, passes, length, section, diameter, aspect, roughness

cdef class LoopRows:
    cdef public const double[:] rpm, voltage, density, viscosity

@cython.locals(a=double)
cpdef double laminar_friction(double aspect) noexcept nogil

cpdef double friction(double Re, double laminar) noexcept nogil

@cython.locals(b=int, share=double)
cpdef double opening_at(CircuitRows circuit, int i, double felt) noexcept nogil

@cython.locals(k=int, last=int, j=int, step=double, t=double, rise=double, leaving=double, coming=double)
cpdef void weigh(const double[:] openings, const double[:, :] steepness, double opening,
                 double[:] weights) noexcept nogil

cdef class Loop(Branches):
    cdef CircuitRows circuit
    cdef TubeRows tubes
    cdef LoopRows loop
    cdef double[::1] square, linear, pipe, reynolds, laminar
    cdef double density, rated
    cdef int row

    @cython.locals(b=int, run=double, impeller=double, share=double)
    cdef void load(self, int i, double opening) noexcept nogil

    @cython.locals(i=int, bore=double, area=double, dynamic=double)
    cdef void branch(self, int b) noexcept nogil

    @cython.locals(i=int, section=double, head=double)
    cdef void core_tubes(self) noexcept nogil

    @cython.locals(i=int, full=double, speed=double, top=double)
    cdef void engine(self) noexcept nogil

    @cython.locals(i=int, b=int, leak=double, passes=double, around=double, left=double)
    cdef void valves(self, double opening) noexcept nogil

    @cython.locals(b=int, least=double, q=double, size=double, rounded=double, tube=double, power=double, Re=double,
                   laminar=double, rough=double, slope=double)
    cdef void losses(self) noexcept nogil

    @cython.locals(b=int)
    cdef void take_step(self, double share) noexcept nogil

@cython.locals(i=int, k=int, b=int, node=int)
cpdef int solve_loops(Loop one, double[::1] openings, const double[:, :, :] start, double[:, :, ::1] flows,
                      double[:, :, ::1] pressures) noexcept nogil
