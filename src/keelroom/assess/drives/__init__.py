"""A package driven: from a schedule's legs to moments, from moments to situations, and what the run says."""
