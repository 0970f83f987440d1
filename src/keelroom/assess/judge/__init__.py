"""Judgements: what is wrong, doubtful or unmeasured, a file a topic."""
