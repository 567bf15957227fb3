"""Settings for the tests: as on this machine, with a hasher that costs nothing."""

from server.config.settings import *  # noqa: F403

PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
