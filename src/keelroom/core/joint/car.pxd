# Types of car.py where it is compiled.
cimport cython
from libc cimport math


from keelroom.core.air.point cimport AirPath, CurveRows, NetworkRows
from keelroom.core.coolers.point cimport CarCoolers
from keelroom.core.fluids.point cimport density, heat_capacity, viscosity
from keelroom.core.thermal.engine_point cimport (
    DriveRows, EngineRows, HeatBalance, VehicleRows, case_sheds, line_flow, oil_flow,
)
from keelroom.core.thermal.point cimport CoreRows, LouverRows, SurfaceRows, core_drop

ctypedef (int, double) searched

cdef double LOOP_TEMPERATURE, LOOP_DROP, ENGINE_OIL, GEARBOX_FLUID, STEERING_FLOW, LEAST_FLOW, MOST_AIR_RISE
cdef int EXIT, GRILLE

cdef class WeatherRows:
    cdef public const double[:] ambient, altitude, humidity, grille_rise

cdef class FluidRows:
    cdef public const double[:] compressor, cop_share, steering
    cdef public const double[:, :] own_air

cdef class DoubtRows:
    cdef public const double[:] heat, conductance, fan_pressure, leaks, flow

cdef class OutdoorRows:
    cdef public const double[:] pressure, vapour, density, air_speed

cdef class CarRows:
    cdef public CoreRows core
    cdef public SurfaceRows surfaces
    cdef public LouverRows louver
    cdef public EngineRows engine
    cdef public VehicleRows vehicle
    cdef public DriveRows drive
    cdef public NetworkRows network
    cdef public CurveRows curve
    cdef public WeatherRows climate
    cdef public FluidRows fluids
    cdef public DoubtRows doubts
    cdef public OutdoorRows outdoors

cpdef double softened(double rise) noexcept nogil

@cython.locals(rpm=double, doubt=double)
cpdef void ask(CarCoolers coolers, CarRows car, int i, double gearbox, double oil, double charge,
              double charge_flow) noexcept nogil

cdef class CarAir(AirPath):
    cdef CarRows car
    cdef public CarCoolers coolers
    cdef HeatBalance heat
    cdef double cp, grille_air, own, power, given, thickness

    @cython.locals(pressure=double, ambient=double, outdoors=double, thrust=double, leaks=double)
    cdef void set_off(self, int i, const double[:] asked) noexcept nogil

    @cython.locals(i=int, e=int, pressure=double, vapour=double, heated=double, beside=double, into_bay=double,
                   back=double, mixed=double)
    cdef void state(self) noexcept nogil

    cdef double drop(self, double flux) noexcept nogil

    @cython.locals(b=int, k=int)
    cdef void begin_like(self, const double[:] flows) noexcept nogil

    @cython.locals(b=int, k=int, node=int)
    cdef void put(self, double[:] flows, double[:] pressures, double[:] breath, double[:] heat) noexcept nogil

@cython.locals(m=int, k=int, steps=int, worst=double, taken=int)
cpdef searched solve_airs(CarAir air, const long[:] rows, double[:, ::1] speed,
                          const double[:, ::1] asked, const double[:, :] start, double[:, ::1] flows,
                          double[:, ::1] pressures, double[:, ::1] breath, double[:, ::1] heat) noexcept nogil
