"""Where things are kept in and beside a checkout."""

from __future__ import annotations

import hashlib
import os
import shutil
from pathlib import Path

from ops.say import GiveUp

ROOT = Path(__file__).resolve().parents[1]
RUN = ROOT / ".run"
GENERATED = ROOT / "frontend" / "generated"
"""What is made of the server for the page and its tests: schema, client, answers."""
VENV = ROOT / ".venv"
PYTHON = VENV / "bin" / "python"
TOOLS = RUN / "tools"
PAGE = ROOT / "frontend"
SECRET = RUN / "secret-key"
IS_ROOT = os.geteuid() == 0
LEAST_SPACE = 600_000_000
"""Bytes that must be free before anything is installed or started."""


def fingerprint(*paths: Path) -> str:
    """Changes whenever a file below one of the paths does."""
    digest = hashlib.sha256()
    for top in paths:
        for path in sorted(top.rglob("*")) if top.is_dir() else [top]:
            if path.is_file():
                digest.update(str(path.relative_to(ROOT)).encode())
                digest.update(path.read_bytes())
    return digest.hexdigest()


def need_space(place: Path = ROOT) -> None:
    """Give up before a full disk breaks something in the middle."""
    free = shutil.disk_usage(place).free
    if free < LEAST_SPACE:
        raise GiveUp(
            f"{place} has {free // 1_000_000} MB free, {LEAST_SPACE // 1_000_000} MB are needed: make room first"
        )
