"""Every package there could be, and how they are judged together."""
