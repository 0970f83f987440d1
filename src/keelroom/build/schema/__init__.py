"""Format version 1, one module per section of the document."""
