"""The coolant circuit of a package: its graph, its routes, its air, what it holds, how it is filled."""
