"""The demo, served as ./ydro demo serves it, for measuring and for pictures."""

from __future__ import annotations

import logging
import os
from collections.abc import Iterator
from contextlib import contextmanager

from ops.checks import TEST
from ops.places import RUN
from ops.serving import Service, await_answer, launch, listen, prepare
from ops.watching import end

BENCH = Service("bench", "ydrometer_bench", demo=True)
LOG = RUN / "bench.log"
"""What the server writes, so that a table of figures stands alone."""


@contextmanager
def demo(port: int) -> Iterator[str]:
    """A fresh demo on the test server; yields its address."""
    TEST.start()
    TEST.sql(f'drop database if exists "{BENCH.database}"')
    listening = listen(port)
    application = launch(prepare(BENCH, TEST), listening, LOG)
    try:
        await_answer(application, port)
        yield f"http://127.0.0.1:{port}"
    finally:
        end(application)
        listening.close()


def in_this_process() -> None:
    """Django over an empty database of the test server, in this process, so that what an answer costs can be seen."""
    TEST.start()
    TEST.sql(f'drop database if exists "{BENCH.database}"')
    os.environ.update(prepare(BENCH, TEST), DJANGO_SETTINGS_MODULE="server.config.settings")
    import django  # noqa: PLC0415  # it reads the settings that were made above

    django.setup()
    logging.disable(logging.CRITICAL)
