"""``python -m welding …``: the core without a server."""

import sys

from welding.cli import main

if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
