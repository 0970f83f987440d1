"""Does it fit: solids and their clearances, tolerance stacks, sheet metal, shrouds, brackets."""
