"""`python -m ydrometer`."""

import sys

from ydrometer.cli import main

sys.exit(main(sys.argv[1:]))
