"""What is worked out: points solved, figures of duty cases and packages, what leaves the program."""
