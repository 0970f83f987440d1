# Types of point.py where it is compiled.
cimport cython
from libc cimport math

cdef double LOW_RE, BLEND_LOW, BLEND_HIGH, ENTRANCE, EXIT, LAMINAR_END, TURBULENT_FROM, TURBULENT_TO
cdef double DOUBT_PLAIN, DOUBT_TRANSITION, WIDEST, SPREAD, MOST_PER_CELL, LEAST_SHARE, NO_FLUX

cdef class CoreRows:
    cdef public const double[:] face_width, face_height, depth, rows, tube_width, tube_height, tube_wall, fin_height
    cdef public const double[:] fin_pitch, fin_thickness, louver_pitch, louver_length, louver_angle, fin_conductivity
    cdef public const double[:] bond_resistance, fouling, turbulator

cdef class SurfaceRows:
    cdef public const double[:] face_area, free_ratio, air_area, fin_share, tube_area, inner_area, air_diameter
    cdef public const double[:] coolant_diameter, tube_section

cdef class LouverRows:
    cdef public const double[:] j0, low0, low_slope, high0, high_slope

cdef class FaceRows:
    cdef public bint alike
    cdef public const double[:, :, :] kinds
    cdef public int[:, :, :] which
    cdef public const double[:, :] weight

@cython.locals(held=double, x=double, low=double, high=double)
cpdef double friction_factor(LouverRows louver, int i, double Re) noexcept nogil

@cython.locals(sigma=double, G=double, f=double, area_ratio=double, loss=double)
cpdef double core_drop(CoreRows core, SurfaceRows surfaces, LouverRows louver, int i, double flux, double density,
                       double viscosity, double expansion) noexcept nogil

@cython.locals(scale=double)
cpdef double air_film(CoreRows core, SurfaceRows surfaces, LouverRows louver, int i, double viscosity,
                      double conductivity, double cp) noexcept nogil

@cython.locals(h=double, mL=double)
cpdef double air_conductance(CoreRows core, SurfaceRows surfaces, int i, double film, double flux) noexcept nogil

@cython.locals(a=double)
cpdef double developed_nusselt(double aspect) noexcept nogil

cpdef double entering_nusselt(double developed, double graetz) noexcept nogil

@cython.locals(over=double, friction=double, rise=double)
cpdef double taler_rise(double Re, double Pr, double diameter_over_length) noexcept nogil

@cython.locals(share=double, developed=double, per_reynolds=double, low=double, high=double)
cpdef double tube_nusselt(double Re, double Pr, double aspect, double diameter_over_length) noexcept nogil

@cython.locals(off=double)
cpdef double nusselt_doubt(double Re) noexcept nogil

cdef class FaceMarch:
    cdef FaceRows face
    cdef public int lanes, cells, kinds
    cdef int passes, layers, classes
    cdef double[::1] flux, warm, conductance, carried, met, gives, kept, spread
    cdef double[::1] coolant, shares
    cdef double[:, ::1] air
    cdef int[::1] begins, mixed
    cdef int looked
    cdef bint alike
    cdef public double heat
    cdef double area, coolant_out, whole, caught

    @cython.locals(kind=int, k=int, count=int, share=double)
    cdef void look_at(self, int i) noexcept nogil

    @cython.locals(kind=int, k=int, n=int, flux=double, warm=double, gives=double, share=double,
                   begins=int[::1], mixed=int[::1], shares=double[::1], comes=double[::1], warmth=double[::1],
                   conducts=double[::1])
    cdef void meet(self, int i, double area, double cp) noexcept nogil

    @cython.locals(lane=int, cell=int, kind=int, each=double, gives=double, carried=double, met=double[::1],
                   given=double[::1], brought=double[::1], air=double[:, ::1], which=int[:, :, :])
    cdef void begin(self, int i, double area) noexcept nogil

    cdef double of_cell(self, int i, int lane) noexcept nogil

    @cython.locals(number=int, start=int, stop=int)
    cdef void march(self, int i, double flow, double inlet) noexcept nogil

    @cython.locals(twice=int, whole=int, bound=int, left=int)
    cdef int bound(self, int number) noexcept nogil

    @cython.locals(lane=int, cell=int, place=int, kind=int, _=int, together=double, share=double, transfer=double,
                   mixed=double, after=double, comes=double, was=double, kept=double[::1], spread=double[::1],
                   air=double[:, ::1], coolant=double[::1], which=int[:, :, :])
    cdef double over_pass(self, int i, int start, int stop, bint backwards, double flow, double inlet) noexcept nogil

@cython.locals(i=int, kind=int)
cpdef void marched(FaceMarch marches, double area, double[:, ::1] carried, double[:, ::1] air, double[:, ::1] gives,
                   double[:, ::1] coolant, double[:, ::1] heat)
