#!/usr/bin/env python
"""Django's own command line."""

import os
import sys

from django.core.management import execute_from_command_line

if __name__ == "__main__":  # a process of the server's own begins by reading this file once more
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.config.settings")
    execute_from_command_line(sys.argv)
