# Types of point.py where it is compiled.
cimport cython
from libc cimport math

ctypedef (double, double, double, double) four

cdef double R_DRY, R_VAPOUR, VAPOUR_SHARE, N1, N2, N3, N4, N5, N6, N7, N8, N9, N10, MMHG
cdef double COLDEST, HOTTEST, BOILED, NUDGE
cdef int ROUNDS

cdef class CoolantRows:
    cdef public const double[:] first, step, water_moles
    cdef public const double[:, :] antoine
    cdef public const double[:, :, :] knots
    cdef public const double[:, :, :, :] cubics

@cython.locals(kelvin=double, theta=double, a=double, b=double, c=double)
cpdef double saturation_pressure(double celsius) noexcept nogil

cpdef double standard_pressure(double altitude) noexcept nogil

@cython.locals(there=double, ratio=double)
cpdef double vapour_share(double pressure, double ambient, double humidity) noexcept nogil

cpdef double density(double pressure, double vapour, double celsius) noexcept nogil

cpdef double heat_capacity(double vapour) noexcept nogil

@cython.locals(kelvin=double)
cpdef double viscosity(double celsius) noexcept nogil

@cython.locals(kelvin=double)
cpdef double conductivity(double celsius) noexcept nogil

@cython.locals(count=int, k=int, power=int, x=double, rho=double, cp=double, conducts=double, ln_mu=double)
cpdef four coolant_at(CoolantRows mix, int i, double celsius) noexcept nogil

@cython.locals(share=double, glycol=double)
cdef double log_pressure(CoolantRows mix, int i, double celsius) noexcept nogil

@cython.locals(wanted=double, here=double, move=double, _=int)
cpdef double boiling_point(CoolantRows mix, int i, double pressure, double guess) noexcept nogil
