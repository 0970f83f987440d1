"""What is read live: a car over its diagnostic port, a logger over a serial line; and stand-ins for both."""
