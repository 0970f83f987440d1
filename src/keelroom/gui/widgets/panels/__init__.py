"""The panels at the window's side, a file each."""
