# Types of enclosed.py where it is compiled.
cimport cython

cdef class Enclosed:
    cdef double low, high, top, width, slope, low_value, high_value, last_at, last_value
    cdef bint low_known, high_known
    cdef int steps

    cdef void begin(self, double low, double high) noexcept nogil

    @cython.locals(guess=double)
    cdef double following(self, double at, double value, double slope) noexcept nogil

    cdef void narrow(self, double at, double value) noexcept nogil

    @cython.locals(step=double, found=double)
    cdef double secant(self, double at, double value, double slope) noexcept nogil

    @cython.locals(middle=double, chord=double)
    cdef double inside(self, double guess) noexcept nogil
