# Types of point.py where it is compiled.
cimport cython
from libc cimport math

ctypedef (double, double, double, double) four

cdef double VELOCITY, AIR_EXPONENT, AIR_DENSITY, SLOWEST, EVAPORATES, CUT_OUT, KELVIN, ROUNDED
cdef double OPENING_SPAN, NEVER, ENDLESS, LINES, AIR_TO_WATER, WATER
cdef int HALVINGS

cdef class CoolerRows:
    cdef public const double[:, :] gearbox, oil, charge, refrigerant, steering, water, conductance, air_share, area
    cdef public const double[:, :] ahead, after_tank, opens, into_bay, from_bay, from_core
    cdef public const double[:, :, :] covered, upstream
    cdef public const double[:] tank, oil_to_block

@cython.locals(least=double, units=double)
cpdef double effectiveness(double ntu, double ratio) noexcept nogil

@cython.locals(speed=double)
cpdef double conductance_at(double stated, double air_share, double flow, double area) noexcept nogil

@cython.locals(least=double, most=double)
cpdef double handed_over(double conductance, double air, double fluid) noexcept nogil

@cython.locals(k=double, b=double, lift=double, wanted=double, condensing=double, heat=double, runs=double,
               cop=double, full=double, most=double)
cpdef four condensed(double shaft, double share, double per_kelvin, double air) noexcept nogil

cdef class CarCoolers:
    cdef CoolerRows coolers
    cdef int[::1] deep, stage
    cdef public int count
    cdef int stages
    cdef public double[::1] heat
    cdef double[::1] air_in, air, rise, takes, meets, taken, against, opens, given
    cdef double gearbox_given, oil_given, charge_given, steering_given
    cdef double gearbox_flow, oil_flow, charge_flow, steering_flow, shaft, cop_share, case
    cdef double outside, front, bay, behind, tank_warm, tank_rise, block, cp
    cdef double tank, from_block, gearbox, gearbox_leaving, oil, charge, condensing, steering
    cdef double shed, runs, cop, steering_shed
    cdef double fluid, leaving, case_sheds

    @cython.locals(forward=double, k=int, e=int, other=int, _=int)
    cdef void exchange(self, int i, const double[:] core, int first, const double[:, :] own_air,
                       int sweeps) noexcept nogil

    @cython.locals(k=int)
    cdef void breathe(self, int i, int e, const double[:] core, int first, double forward,
                      const double[:, :] own_air) noexcept nogil

    @cython.locals(capacity=double, own=double, water=bint, fluid=double, first=double)
    cdef void take(self, int i, int e) noexcept nogil

    @cython.locals(e=int, given=double)
    cdef void circuits(self, int i) noexcept nogil

    @cython.locals(s=int)
    cdef void put_stage(self, int i, int e, double which) noexcept nogil

    @cython.locals(s=int)
    cdef void hand_in(self) noexcept nogil

    @cython.locals(e=int, tank=int)
    cdef void settle_gearbox(self, int i) noexcept nogil

    @cython.locals(e=int, whole=double, lead=double, parts=double, mine=double, part=double,
                   shaft=double, air=double, given_up=double)
    cdef void settle_refrigerant(self, int i) noexcept nogil

    @cython.locals(s=int, a=double, b=double, rise=double, slope=double, left=double, taken=double, share=double)
    cdef void settle_open(self, double heat, double capacity, double sheds, double around, double open_) noexcept nogil

    @cython.locals(s=int, opens=double, low=double, high=double, middle=double, over=double, under=double,
                   share=double, _=int)
    cdef void settle(self, double heat, double capacity, double sheds, double around) noexcept nogil

    @cython.locals(e=int)
    cdef void put(self, double[:, :] cooler, double[:] row) noexcept nogil
