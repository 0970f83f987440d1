"""The format of the document, one module per section of the document."""
