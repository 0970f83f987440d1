# Types of running.py where it is compiled.
cimport cython
from libc cimport math

from keelroom.core.electrical.point cimport commanded_share, power_share, sensed
from keelroom.core.joint.meeting cimport Meeting, mean, weighed
from keelroom.core.loop.point cimport opening_at

cdef int METAL, REST, HOT, CORE, COLD, OIL, GEARBOX, BAY, ELEMENT, READ, SENDER, NEEDLE
cdef int FANS, LOAD, CHARGE, GIVEN, TAKEN, UPPER, LOWER, PASSED
cdef int SIZE, WARM, JOINED, JUDGED, TOLD, SEARCHES, DONE, FULL, BROKEN, BOILED
cdef double NEAR, PER_SHARE, SHORTEST, LONGEST, SAFETY, GROWS, SHRINKS, PART, LATER, SOON
cdef double STANDING_FILM, MANY_UNITS, LEAST_FLOW, LONG_AGO, NO_STATE, NEXT_LEG, SWITCHED

cdef class LumpRows:
    cdef public double metal, rest, hot, cold, core, oil, gearbox, bay, film, inside, outside
    cdef public double upper_hose, lower_hose, heater, heater_flow, element_lag, hysteresis, sensor_lag, sender_lag, needle_lag, spin_up, least_on

cdef class LegRows:
    cdef public const double[:] until, pace, more, alive, forced, switched, heater, drains, boils
    cdef public const long[:] row
    cdef public const double[:, :] bay
    cdef public const double[:, :, :] heats

cdef class SupplyRows:
    cdef public double capacity
    cdef public const double[:] states, idle_volts, blown_at
    cdef public const double[:, :] volts, amps, rests, drained, rest_drained

cdef class StageRows:
    cdef public const double[:, :] off, on, above, above_power

cdef class Running(Meeting):
    cdef LumpRows lumps
    cdef LegRows legs
    cdef SupplyRows supply
    cdef StageRows stages
    cdef double[::1] y, next, trial, goes, went, comes, k1, k2, k3, times, passed
    cdef double[:, ::1] steep, whole, states, told, entered
    cdef int[::1] contact
    cdef int leg
    cdef public int kept
    cdef double since, time, seat, charged, volts, amps, drain
    cdef public double near, longest
    cdef double into_bay, prepared_bay, usual, leaving, steady_bay, grille, hot, bay_now, cold_now, felt_now
    cdef double core_out, core_heat, wanted, wanted_power, leaves, giving, soaking, by_oil, by_gearbox, heater

    @cython.locals(leg=int, load=double, doubt=double, prepared=double)
    cdef void burn(self) noexcept nogil

    @cython.locals(i=int, on=int, share=double, grille=double, back_off=double, back_on=double, back=double)
    cdef void mix_air(self) noexcept nogil

    @cython.locals(i=int, last=int, state=double, along=double, k=int, part=double, on=double, off=double)
    cdef double system(self, double charge) noexcept nogil

    @cython.locals(wanted=double, newest=int, low=int, high=int, middle=int, span=double, share=double)
    cdef double hose(self, int place, double volume, const double[::1] now, double enters) noexcept nogil

    @cython.locals(leg=int, play=double)
    cdef void look(self, const double[::1] now) noexcept nogil

    @cython.locals(last=double)
    cdef double element_feels(self) noexcept nogil

    @cython.locals(capacity=double, air=double, into=double, out=double, units=double, gives=double, share=double)
    cdef void core_lump(self, const double[::1] now) noexcept nogil

    @cython.locals(i=int, forced=double, share=double, power=double, stage=int)
    cdef void commanded(self, const double[::1] now) noexcept nogil

    @cython.locals(i=int, e=int, alive=double, capacity=double, engine=double, back=double, share=double,
                   film=double, soaks=double,
                   inside=double, lost=double, by_oil=double, by_gearbox=double, tank=double, oil_stores=double,
                   off=double, from_tank=double, sheds=double, cabin=double, comes=double)
    cdef void rates(self, const double[::1] now, double[::1] rate) noexcept nogil

    @cython.locals(flow=double, carries=double)
    cdef void heats_cabin(self) noexcept nogil

    @cython.locals(e=int, beside=double, usual=double, gets=double, ends=double)
    cdef void warm_bay(self, const double[::1] now, double[::1] rate, double lost) noexcept nogil

    @cython.locals(reads=double)
    cdef void sense(self, const double[::1] now, double[::1] rate) noexcept nogil

    @cython.locals(n=int, k=int, capacity=double, lost=double, tank=double, soon=double, later=double)
    cdef void know_slopes(self) noexcept nogil

    cdef void lag(self, int place, int first, double seconds) noexcept nogil

    cdef void flow_of(self, int first, int second, double conductance) noexcept nogil

    cdef double holds(self, int place) noexcept nogil

    @cython.locals(row=int, column=int, pivot=int, share=double, whole=double[:, ::1], steep=double[:, ::1])
    cdef void factorise(self, double h) noexcept nogil

    @cython.locals(row=int, column=int, whole=double[:, ::1], steep=double[:, ::1])
    cdef void resolve(self, double h, double[::1] asked) noexcept nogil

    cdef void begin_again(self) noexcept nogil

    @cython.locals(n=int, worst=double, off=double)
    cdef double step(self, double h) noexcept nogil

    @cython.locals(i=int, stage=int)
    cdef int switches(self, double reading, double past) noexcept nogil

    @cython.locals(low=double, high=double, at=double, _=int)
    cdef double moment(self, double h) noexcept nogil

    @cython.locals(s=double, was=double, goes=double, comes=double, went=double, rest=double)
    cdef double reading_in(self, double at, double h) noexcept nogil

    @cython.locals(n=int)
    cdef void accept(self, double h) noexcept nogil

    @cython.locals(k=int, n=int)
    cdef void tell(self) noexcept nogil

    @cython.locals(n=int, legs=int, change=int, h=double, left=double, off=double)
    cdef int drive(self) noexcept nogil

@cython.locals(warmer=double)
cdef double recirculated(double front, double bay, double grille) noexcept nogil
