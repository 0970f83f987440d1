"""The heat ledger: its rows, the rail under them, the totals beside them, and the one line it folds to."""
