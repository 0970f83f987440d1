"""One operating point: the disciplines' typed modules joined, compiled where a C compiler was at hand."""
