# Types of nearest.py where it is compiled: what is said there, in C's own numbers and without the interpreter lock.
cimport cython

ctypedef (double, double, double) three
ctypedef (double, double, double, double) four

cdef double CLOSE, SURELY, STILL, WIDEST_TURN, GAINED, LOWEST
cdef int MOST_STEPS, STARTS, WAYS, CONE, TURN, TURNS

@cython.locals(p=double, q=double, r=double, reach=double, share=double)
cdef three nearest(double[::1] solid, double x, double y, double z) noexcept nogil

@cython.locals(p=double, q=double, r=double)
cdef double support(double[::1] solid, double x, double y, double z) noexcept nogil

@cython.locals(between=double)
cdef double apart(double[::1] a, double[::1] b, double x, double y, double z) noexcept nogil

cdef void put(double[::1] a, double[::1] b, double[::1] room, int k, double x, double y, double z) noexcept nogil

@cython.locals(length=double)
cdef void turned(double[::1] a, double[::1] b, double[::1] room, int k, double x, double y, double z) noexcept nogil

@cython.locals(x=double, y=double, z=double, along=double, i=int)
cdef void ways(double[::1] a, double[::1] b, double[::1] room, int k) noexcept nogil

@cython.locals(best=int, k=int)
cdef int best_of(double[::1] room, int first, int count) noexcept nogil

@cython.locals(x=double, y=double, z=double, ahead_x=double, ahead_y=double, ahead_z=double, momentum=double,
               on_x=double, on_y=double, on_z=double, new_x=double, new_y=double, new_z=double,
               step_x=double, step_y=double, step_z=double, uphill=double, grown=double, push=double, off=double, _=int)
cdef three met(double[::1] a, double[::1] b, double bound) noexcept nogil

@cython.locals(best=double, turn=int, ux=double, uy=double, uz=double, length=double, vx=double, vy=double, vz=double,
               c=double, s=double, found=double, way=int, k=int, p=double, q=double, tried=double)
cdef four descended(double[::1] a, double[::1] b, double[::1] room, double x, double y, double z) noexcept nogil

@cython.locals(i=int, j=int, ax=double, ay=double, az=double, bx=double, by=double, bz=double, cx=double, cy=double,
               cz=double, length=double, most=double, wx=double, wy=double, wz=double, k=int, found=double, fx=double,
               fy=double, fz=double, _=int)
cdef four shallowest(double[::1] a, double[::1] b, double[::1] room, double x, double y, double z) noexcept nogil

@cython.locals(i=int, k=int)
cpdef void bounds(double[:, ::1] a, double[:, ::1] b, double[:, ::1] out, double[::1] room, int count) noexcept nogil

@cython.locals(i=int, k=int, bound=double, x=double, y=double, z=double, ax=double, ay=double, az=double, bx=double,
               by=double, bz=double, dx=double, dy=double, dz=double, gap=double)
cpdef void clearances(double[:, ::1] a, double[:, ::1] b, double[:, ::1] out, double[::1] room, int count) noexcept nogil
