"""Current, wire, protection, charging and control of what cools."""
