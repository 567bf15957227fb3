"""The application for a server of the WSGI kind; loads what the first request would otherwise wait for."""

import os

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.config.settings")
application = get_wsgi_application()

from django.db.migrations.loader import MigrationLoader  # noqa: E402
from django.urls import get_resolver  # noqa: E402

from ydrometer.command.warm import warm  # noqa: E402

warm()
MigrationLoader(None)  # which /readyz asks
_ = get_resolver().url_patterns  # and with them all views
