"""The Options station."""
