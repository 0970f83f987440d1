"""The coolant circuit as a graph of ports, hoses and parts, with its heights, flows and what it holds."""
