"""What parts are made from and held with, by name."""

from typing import Literal

MetalKey = Literal["al_3003", "al_5052", "al_6061", "steel"]
BoltKey = Literal["m5", "m6", "m8", "in14", "in516"]
Nut = Literal["rivet_nut", "lock_nut", "welded_stud"]
