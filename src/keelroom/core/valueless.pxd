# Types of valueless.py where it is compiled.
cimport cython

@cython.locals(value=object, number=double)
cpdef bint valueless(object values) except -1
