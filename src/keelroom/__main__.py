"""`python -m keelroom`: the same entry point as the `keelroom` command."""

import sys

from keelroom.cli import main

if __name__ == "__main__":
    sys.exit(main())
