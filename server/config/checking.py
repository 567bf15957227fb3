"""Settings for the type checker, which needs no secret of this machine."""

import os

os.environ.setdefault("SECRET_KEY", "types are checked without one")

from server.config.settings import *  # noqa: F403
