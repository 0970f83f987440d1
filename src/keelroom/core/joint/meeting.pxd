# Types of meeting.py where it is compiled.
cimport cython

from keelroom.core.enclosed cimport Enclosed
from keelroom.core.coolers.point cimport CarCoolers
from keelroom.core.electrical.point cimport ControlRows, SensingRows, commanded_share, power_share, sensed
from keelroom.core.fluids.point cimport CoolantRows, conductivity, coolant_at, heat_capacity, viscosity
from keelroom.core.joint.car cimport CarRows, ask, softened
from keelroom.core.loop.point cimport CircuitRows, TubeRows, opening_at, weigh
from keelroom.core.thermal.point cimport FaceMarch, air_conductance, air_film, tube_nusselt

cdef double TOLERANCE, CEILING, LEAST_FLOW, TANK_FLOOR, LEAST_FLUX, FIRST_LEAD
cdef int SWEEPS, STEPS, SETTLES, STUCK, LOST

cdef class FlowRows:
    cdef public const double[:] grille, exit, back
    cdef public const double[:, :] core

cdef class BreathRows:
    cdef public const double[:] front_temperature, bay_temperature

cdef class HeatRows:
    cdef public const double[:] gearbox, oil, charge, charge_flow, coolant

cdef class AirRows:
    cdef public FlowRows flows
    cdef public BreathRows breath
    cdef public HeatRows heat
    cdef public const double[:] into_coolant

cdef class PreparedRows:
    cdef public AirRows running, stopped
    cdef public const double[:] openings
    cdef public const double[:, :] engine, core, steepness
    cdef public TubeRows tubes

cdef class PlantRows:
    cdef public CoolantRows coolant
    cdef public CircuitRows circuit
    cdef public SensingRows sensing
    cdef public ControlRows law

@cython.locals(off_weight=double, on_weight=double)
cpdef double weighed(double share, double off, double off_flow, double on, double on_flow) noexcept nogil

cpdef double mean(double share, double off, double on) noexcept nogil

cdef class Meeting:
    cdef CarRows car
    cdef PlantRows plant
    cdef PreparedRows prepared
    cdef public CarCoolers coolers
    cdef public FaceMarch face
    cdef Enclosed search
    cdef double[::1] flow, weights
    cdef public int classes
    cdef int row, blown, openings, steps
    cdef double held, held_power, doubt, pace, more, temperature, rejection, heat_in, given, margin, own
    cdef double coolant_flow, core_flow, opening, per_flow, cp, reading, command, load
    cdef double front_air, bay_air, air_in, forward, film, tube_reynolds, tube_prandtl, tube_share
    cdef double slope, off, into_gearbox, into_oil, into_charge, charge_flow

    cdef void hold(self, int blown, const double[:] held) noexcept nogil

    @cython.locals(j=int, pace=double)
    cdef void through_loop(self, double opening) noexcept nogil

    @cython.locals(last=double)
    cdef double felt(self, double heat) noexcept nogil

    @cython.locals(heat=double)
    cdef double drop_ahead(self) noexcept nogil

    @cython.locals(i=int)
    cdef void command_fans(self) noexcept nogil

    @cython.locals(i=int, k=int, on=int, share=double)
    cdef void mix_air(self) noexcept nogil

    @cython.locals(i=int, on=int, load=double, coolant=double)
    cdef void burn(self) noexcept nogil

    @cython.locals(i=int, carries=double)
    cdef void cool(self, double capacity) noexcept nogil

    @cython.locals(i=int, k=int, e=int, lead=double, warm=double, forward=double)
    cdef void meet_air(self) noexcept nogil

    @cython.locals(i=int, warm=double, rho=double, cp=double, conducts=double, mu=double, diameter=double,
                   section=double, nusselt=double, inner=double)
    cdef double tube_side(self) noexcept nogil

    @cython.locals(i=int, k=int, film=double, lead=double, doubt=double, fins=double, flux=double,
                   outer=double)
    cdef void conduct(self, double resistance) noexcept nogil

    cdef void evaluate(self, int i, double temperature) noexcept nogil

    @cython.locals(rho=double, cp=double, _=double)
    cdef void know_fluids(self) noexcept nogil

    @cython.locals(i=int)
    cdef void exchange(self) noexcept nogil

    @cython.locals(step=int, ambient=double, low=double, at=double, idea=double)
    cdef int settle(self, int i, double first, double slope) noexcept nogil

    @cython.locals(k=int)
    cdef void put(self, double[:] row, double[:] flux, double[:, :] cooler, double[:] fluids) noexcept nogil

@cython.locals(m=int)
cpdef void evaluate_points(Meeting one, const long[:, ::1] rows, const double[:] temperatures, const double[:, :] held,
                           double[:, ::1] states, double[:, ::1] flux, double[:, :, ::1] cooler,
                           double[:, ::1] fluids) noexcept nogil

@cython.locals(m=int, first=double)
cpdef void settle_points(Meeting one, const long[:, ::1] rows, const double[:, :] starts, const double[:, :] held,
                         double[:, ::1] states, double[:, ::1] flux, double[:, :, ::1] cooler,
                         double[:, ::1] fluids, double[:, ::1] ends) noexcept nogil

@cython.locals(lane=int, cell=int, kind=int, each=double)
cpdef void face_at(Meeting one, int row, double temperature, const double[:] held, double[:, :, ::1] meets,
                   double[:, ::1] gives, double[:, ::1] leaves)
