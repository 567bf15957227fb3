"""What the commands print, and how they give up."""

from __future__ import annotations

import subprocess
import sys
import time
from collections.abc import Iterator, Mapping, Sequence
from contextlib import contextmanager
from pathlib import Path


class GiveUp(Exception):
    """Something only the user can mend; its text is the one line they get."""


IN_WORDS = "CommandError: "
"""With this Django's commands begin what only the user can mend."""


@contextmanager
def step(what: str) -> Iterator[None]:
    """Announce a step, and how long it took."""
    print(f"· {what} …", end="", flush=True)
    begun = time.monotonic()
    try:
        yield
    except BaseException:
        print(" failed", flush=True)
        raise
    print(f" {time.monotonic() - begun:.1f} s", flush=True)


def run(command: Sequence[str | Path], *, env: Mapping[str, str] | None = None, cwd: Path | None = None) -> str:
    """Run quietly; returns what was printed.

    Raises:
        GiveUp: it failed; with the end of what it said.
    """
    try:
        done = subprocess.run(list(map(str, command)), env=env, cwd=cwd, capture_output=True, text=True, check=False)
    except (FileNotFoundError, PermissionError):  # the latter where a folder of PATH is closed to the user
        raise GiveUp(f"{command[0]} is not installed") from None
    if done.returncode:
        said = (done.stderr or done.stdout).strip().splitlines()
        if said and said[-1].startswith(IN_WORDS):
            raise GiveUp(said[-1].removeprefix(IN_WORDS))
        raise GiveUp(f"{Path(str(command[0])).name} failed: " + "\n  ".join(said[-12:] or ["no word why"]))
    return done.stdout


def complain(error: GiveUp) -> int:
    """The one line, and the exit status."""
    sys.stdout.flush()
    print(f"ydro: {error}", file=sys.stderr)
    return 1
