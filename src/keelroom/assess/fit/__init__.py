"""Whether the package fits the bay: bodies, clearances, the search for a place, what is cut, trimmed and bent."""
