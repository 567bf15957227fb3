#!/usr/bin/env python
"""Django's own command line."""

import os
import sys

from django.core.management import execute_from_command_line

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.config.settings")
execute_from_command_line(sys.argv)
