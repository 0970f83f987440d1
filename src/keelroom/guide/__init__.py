"""The user guide: topics written from tasks, read offline in the program."""
