"""What readings tell: fits of what is doubtful, and what a further reading would tell."""
