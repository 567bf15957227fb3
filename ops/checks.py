"""./ydro test: every check in one go, with times and a closing count."""

from __future__ import annotations

import os
import re
import subprocess
import sys
import time
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path

from ops import say, setup
from ops.cluster import Cluster
from ops.places import GENERATED, PAGE, PYTHON, ROOT, VENV

TEST = Cluster("test", durable=False)
KERNELS = "kernels"
"""They are compiled while what does not need them is checked."""
ANSWERS = "answers"
"""What the core says of some designs: the page's tests stand on them."""
FIRST = {"page": ANSWERS, "tsc": ANSWERS}
"""What a check needs that is made by another one."""
SIDE_BY_SIDE = 2
"""Processes that run tests: a browser or the core keeps one processor busy."""


@dataclass(frozen=True)
class Check:
    """A named check: a command and where to run it; `counts` finds its number of tests."""

    name: str
    command: list[str]
    cwd: Path = ROOT
    counts: str = ""
    database: bool = False
    fills: bool = False
    """Whether it keeps all processors busy by itself."""


def _checks() -> list[Check]:
    """Those that share the processors come first, the longest of them first."""
    tool = VENV / "bin"
    ours = [sys.executable, "-m", "ops"]
    tests = r"Ran (\d+) tests?"
    return [
        Check(KERNELS, [*ours, "set-up-core", "--kernels"]),
        Check("ops", _django("tests.ops", 1), counts=tests, database=True),
        Check("types", [f"{tool}/mypy"]),
        Check("deploy", [str(PYTHON), "-m", "ops.deploy_check"], database=True),
        Check("migrations", [str(PYTHON), "manage.py", "makemigrations", "--check", "--dry-run"], database=True),
        Check("biome", ["npm", "run", "lint"], PAGE),
        Check("lock", ["npm", "ci", "--dry-run", "--no-audit", "--no-fund"], PAGE),
        Check("imports", [f"{tool}/lint-imports"]),
        Check("ruff", [f"{tool}/ruff", "check", "."]),
        Check("format", [f"{tool}/ruff", "format", "--check", "."]),
        Check(ANSWERS, [str(PYTHON), "-m", "tests.answers", str(GENERATED / "answers.json")], fills=True),
        Check("tsc", ["npm", "run", "types"], PAGE, fills=True),
        Check("page", ["npm", "run", "test"], PAGE, counts=r"Tests .*?(\d+) passed", fills=True),
        Check("core", _django("tests.core"), counts=tests, database=True, fills=True),
        Check("server", _django("tests.server"), counts=tests, database=True, fills=True),
        Check("browser", _django("tests.browser"), counts=tests, database=True, fills=True),
    ]


def _django(package: str, processes: int = SIDE_BY_SIDE) -> list[str]:
    """The tests of a package; classes of tests run side by side, each process with a database of its own."""
    return [
        str(PYTHON),
        "manage.py",
        "test",
        package,
        "--noinput",
        "-t",
        ".",
        "--settings=server.config.testing",
        f"--parallel={processes}",
    ]


def test(only: list[str]) -> int:
    """Set up and run all checks, or the named ones; 0 where every one passed."""
    setup.set_up_but_kernels(testing=True)
    known = [check.name for check in _checks()]
    unknown = [name for name in only if name not in known]
    if unknown:
        raise say.GiveUp(f"there is no check {unknown[0]}: known are {', '.join(known)}")
    wanted = {KERNELS, *only, *(FIRST[name] for name in only if name in FIRST)}
    chosen = [check for check in _checks() if not only or check.name in wanted]
    TEST.start()
    try:
        with ThreadPoolExecutor(SIDE_BY_SIDE) as shared:
            counts = list(shared.map(_run, (check for check in chosen if not check.fills)))
        counts += [_run(check) for check in chosen if check.fills]
    finally:
        TEST.stop()
    passed = sum(count for count in counts if count is not None)
    failed = [check.name for check, count in zip(chosen, counts, strict=True) if count is None]
    if failed:
        print(f"\nfailed: {', '.join(failed)}")
    print(f"\n{passed} passed, {len(failed)} failed", flush=True)
    return 1 if failed else 0


def _run(check: Check) -> int | None:
    """How many tests passed, None where one failed."""
    env = {**setup.node_env(), **(TEST.env("ydrometer") if check.database else {}), "PYTHONPATH": str(ROOT)}
    begun = time.monotonic()
    done = subprocess.run(
        check.command,
        cwd=check.cwd,
        env=env,
        stdout=subprocess.PIPE,
        stderr=subprocess.STDOUT,
        text=True,
        stdin=subprocess.DEVNULL,
        check=False,
    )
    passed = done.returncode == 0
    said = _last_line(done.stdout) if passed else done.stdout.strip()[-20_000:]
    took = f"{'passed' if passed else 'FAILED'} in {time.monotonic() - begun:.1f} s"
    # In one piece, since another check may end at the same time.
    print(f"\n── {check.name}\n{said}\n{took}\n", end="", flush=True)
    counts = re.findall(check.counts, _plain(done.stdout)) if check.counts else []
    return (int(counts[-1]) if counts else 1) if passed else None


def _plain(text: str) -> str:
    return re.sub(r"\x1b\[[0-9;]*m", "", text)


def _last_line(text: str) -> str:
    lines = [line for line in _plain(text).splitlines() if line.strip()]
    counted = [line for line in lines if line.startswith("Ran ") or "passed" in line]
    return (counted or lines or [""])[-1]


def refresh() -> int:
    """Make anew what the page's tests stand on; its client set-up has made, where the server has changed."""
    return subprocess.call([str(PYTHON), "-m", "tests.answers", str(GENERATED / "answers.json")], cwd=ROOT)


def with_test_database(command: list[str]) -> int:
    """Run a command while the test database server runs."""
    started = TEST.start()
    stopping: Callable[[], None] = TEST.stop if started else lambda: None
    try:
        return subprocess.call(command, cwd=ROOT, env={**os.environ, **TEST.env("ydrometer")})
    finally:
        stopping()
