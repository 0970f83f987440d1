"""Questions asked of many builds at once: what a change is worth, how the temperature answers, which core is best."""
