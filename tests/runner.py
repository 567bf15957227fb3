"""Django's test runner, whose processes may have processes of their own, as the server's have."""

from __future__ import annotations

import multiprocessing
from typing import Any

from django.test.runner import DiscoverRunner, ParallelTestSuite, _init_worker  # type: ignore[attr-defined]


def _begin(*args: Any, **kwargs: Any) -> None:
    # Pools of the library forbid it, since a killed process leaves its own behind; ours end with their parent.
    multiprocessing.current_process()._config["daemon"] = False  # type: ignore[attr-defined]
    _init_worker(*args, **kwargs)


class Suite(ParallelTestSuite):
    init_worker = _begin


class Runner(DiscoverRunner):
    parallel_test_suite = Suite
