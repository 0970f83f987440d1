"""What fluids of coolers are wanted at, for judging and for showing."""

from __future__ import annotations

HOT = {"gearbox": 93.4, "oil": 130.0, "charge": 65.0, "steering": 110.0}
"""[degC] wanted at most: gearbox 200 °F, engine oil 265 °F, intake air 150 °F, power steering 230 °F (common
practice)."""
COLD_GEARBOX = 60.0
"""[degC] under which a gearbox drags and its fluid keeps its water (common practice: 140 °F)."""
HALVES = 11.1
"""[K] over the limit that halve the life of gearbox fluid: 20 °F (common practice)."""
