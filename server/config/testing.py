"""Settings for the tests: as on this machine, with a hasher that costs nothing."""

from server.config.settings import *  # noqa: F403

POLITENESS = 0
"""A test has nobody to step back for, and waits for the heavy work itself."""
WARM_PATIENCE_S = 120.0
"""A test waits for it on however busy a machine."""
LOGGING["loggers"] = {"django.request": {"level": "ERROR"}, "ydrometer": {"level": "CRITICAL"}}  # noqa: F405
PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
TEST_RUNNER = "tests.runner.Runner"
