"""The document: schema, edits, store, file, migrations."""
