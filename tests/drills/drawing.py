"""Requests drawn from the published schema, for ten minutes, at every address."""

from __future__ import annotations

import subprocess
from collections.abc import Iterator

from ops.checks import TEST
from ops.places import PYTHON, ROOT, RUN
from tests.drills.report import Row, equal

EXAMPLES = 60
"""For each address and verb."""
LOG = RUN / "drill-drawn.log"
"""What the test says: which request got which answer."""


def drill(port: int) -> Iterator[Row]:
    """Against a server of the tests' own, whose answers are held against the schema."""
    TEST.start()
    env = {**TEST.env("ydrometer_drawn"), "YDROMETER_FUZZ": str(EXAMPLES), "PYTHONPATH": str(ROOT)}
    words = ["test", "tests.server.test_fuzz", "--noinput", "-t", ".", "--settings=server.config.testing"]
    with LOG.open("wb") as log:
        ended = subprocess.run([PYTHON, "manage.py", *words], cwd=ROOT, env=env, stdout=log, stderr=log, check=False)
    about = f"{EXAMPLES} requests drawn for each address and verb: status of the test"
    yield equal("drawn", about, ended.returncode, 0)
