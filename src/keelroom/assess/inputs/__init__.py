"""From the document to core inputs: what a package and a duty case are in arrays."""
