"""Settings for serving to others over HTTPS. Needs ALLOWED_HOSTS, SECRET_KEY and DATABASE_URL."""

import os

from server.config.settings import *  # noqa: F403

NAMES = [name.strip() for name in os.environ["ALLOWED_HOSTS"].split(",")]
# By the last one it is asked from its own machine whether it lives.
ALLOWED_HOSTS = [*NAMES, "127.0.0.1"]
CSRF_TRUSTED_ORIGINS = [f"https://{name}" for name in NAMES]
IS_PUBLIC = True
SECURE_SSL_REDIRECT = True
SECURE_REDIRECT_EXEMPT = ["^healthz$", "^readyz$", "^metrics$"]
SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https")
SECURE_HSTS_SECONDS = 31_536_000
SECURE_HSTS_INCLUDE_SUBDOMAINS = True
SECURE_HSTS_PRELOAD = True
SESSION_COOKIE_SECURE = True
CSRF_COOKIE_SECURE = True
