"""Fans, ram pressure and the network that shares the air between them."""
