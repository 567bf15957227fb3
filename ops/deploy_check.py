"""Django's own deployment check, in production settings, with a warning counting as a failure."""

import os
import secrets
import subprocess
import sys

env = {
    **os.environ,
    "DJANGO_SETTINGS_MODULE": "server.config.production",
    "SECRET_KEY": secrets.token_urlsafe(60),
    "ALLOWED_HOSTS": "ydrometer.example",
}
sys.exit(subprocess.call([sys.executable, "manage.py", "check", "--deploy", "--fail-level", "WARNING"], env=env))
