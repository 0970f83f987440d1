# Types of engine_point.py where it is compiled.
cimport cython
from libc cimport math

cdef double GRAVITY, LIGHT, COMPRESSOR_EFFICIENCY, AIR_CP, AIR_EXPONENT, MOST_SLIP
cdef double POUND_FEET, COUPLING, STALL_RATIO, PER_RPM, STANDARD_DENSITY
cdef double CASE, CASE_BY_SPEED, FLOW_IDLE, FLOW_FULL, FLOW_RPM, OIL_IDLE, OIL_FULL, OIL_RPM
cdef int SLIP_STEPS, SPEED_STEPS

cdef class LawRows:
    cdef public const double[:] friction, pumping, efficient, idling, rich, to_coolant, dense, falls, most, heating
    cdef public const double[:] air_per_fuel, doubt

cdef class EngineRows:
    cdef public const double[:] displacement, power, power_rpm, boost, heat_multiplier, oil_share, bay_share
    cdef public LawRows law

cdef class VehicleRows:
    cdef public const double[:] mass, drag_area, rolling, driveline_efficiency, alternator_efficiency, gearbox_part
    cdef public const double[:] converter_factor

cdef class DriveRows:
    cdef public const double[:] speed, grade, towed, full_power, rpm, stops_per_metre, accessories, electrical
    cdef public const double[:] converter_heat, slips, driven_fan

@cython.locals(mass=double, ahead=double)
cpdef double road_power(VehicleRows vehicle, DriveRows drive, int i, double density) noexcept nogil

@cython.locals(slope=double, force=double, stops=double)
cpdef double wheel_power(double mass, double rolling, double ahead, double grade, double speed,
                         double stops_per_metre) noexcept nogil

@cython.locals(x=double)
cpdef double full_power(EngineRows engine, int i, double rpm, double density_ratio) noexcept nogil

@cython.locals(thousands=double)
cpdef double friction_pressure(double rpm) noexcept nogil

@cython.locals(share=double)
cpdef double coolant_share(LawRows law, int i, double dense) noexcept nogil

cpdef double stall_torque(double rpm, double factor) noexcept nogil

cpdef double stall_heat(double rpm, double factor) noexcept nogil

@cython.locals(cubed=double)
cpdef double capacity(double ratio) noexcept nogil

cpdef double torque_ratio(double ratio) noexcept nogil

@cython.locals(torque=double, low=double, high=double, _=int, rpm=double, ratio=double)
cpdef double converter_speed(double turbine, double power, double factor) noexcept nogil

@cython.locals(torque=double, asked=double, ratio=double)
cpdef double slip_loss(double power, double rpm, double factor) noexcept nogil

@cython.locals(all_of_it=bint, lost=double, into=double, _=int)
cdef double slip(VehicleRows vehicle, DriveRows drive, int i, double out, double most) noexcept nogil

cpdef double line_flow(double rpm) noexcept nogil
cpdef double oil_flow(double rpm) noexcept nogil
cpdef double case_sheds(double speed) noexcept nogil

cdef class HeatBalance:
    cdef double wheels, accessories, alternator, brake, fuel, gearbox, driveline, oil, charge, charge_flow
    cdef double bay, coolant, short

    @cython.locals(wheels=double, auxiliary=double, available=double, lost=double, asked=double, load=double,
                   share=double, slipping=double, rubbing=double)
    cdef void burn(self, EngineRows engine, VehicleRows vehicle, DriveRows drive, int i, double fan_power,
                   double driven_fan, double outdoors, double pressure, double ambient) noexcept nogil

    @cython.locals(friction=double, rich=double, light=double)
    cdef double burnt(self, EngineRows engine, int i, double rpm, double load) noexcept nogil

    @cython.locals(ratio=double, rise=double)
    cdef void compress(self, EngineRows engine, int i, double load, double pressure, double ambient) noexcept nogil

    cdef void put(self, double[:] row) noexcept nogil

@cython.locals(i=int, balance=HeatBalance)
cpdef void burnt_by(EngineRows engine, VehicleRows vehicle, DriveRows drive, double[::1] fan_power,
                    double[:, ::1] air, double[:, ::1] out)
