"""`python -m ydrometer`."""

import os
import sys

from ydrometer.command.cli import main

try:
    status = main(sys.argv[1:])
    sys.stdout.flush()
except BrokenPipeError:
    # Who reads has read enough; what is still unwritten goes nowhere, quietly.
    os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
    status = 1
sys.exit(status)
