"""Starting the application and everything under it, looking after it, and stopping all of it again."""

from __future__ import annotations

import contextlib
import json
import os
import shutil
import signal
import socket
import subprocess
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from types import FrameType
from typing import NamedTuple
from urllib.parse import urlsplit

from ops import say, setup
from ops.cluster import Cluster, port_taken
from ops.lan import EVERYWHERE, local_network
from ops.places import PYTHON, ROOT, RUN
from ops.say import GiveUp
from ops.watching import Watched, adopt_orphans, end, look_after

MAIN = Cluster("main")
# Arrays here are small: threads of the linear algebra library would only wait for each other.
SERVING = {"PYTHONPATH": str(ROOT), "OPENBLAS_NUM_THREADS": "1"}
START_LIMIT = 60.0
"""Seconds within which the application must answer."""
SERVES = "serves"
HERE = "127.0.0.1"


class Running(NamedTuple):
    """A process that serves, and where it listens."""

    process: int
    port: int
    address: str = HERE


@dataclass(frozen=True)
class Service:
    """One way of serving: the user's own data, or the demo's."""

    name: str
    database: str
    demo: bool
    cluster: Cluster = MAIN

    @property
    def record(self) -> Path:
        """Holds the process that serves, its port and its address, while it does."""
        return RUN / f"serving-{self.name}"

    @property
    def log(self) -> Path:
        """What its processes write."""
        return RUN / "logs" / f"{self.name}.log"

    def note(self, port: int, address: str = HERE) -> None:
        """Write down that this process serves."""
        self.record.write_text(f"{os.getpid()} {port} {address}")

    def running(self) -> Running | None:
        """The process that serves now."""
        try:
            process, port, address = self.record.read_text().split()
        except (FileNotFoundError, ValueError):
            return None
        command = Path(f"/proc/{process}/cmdline")
        if command.exists() and b"ops" in command.read_bytes():
            return Running(int(process), int(port), address)
        self.record.unlink(missing_ok=True)
        return None


OWN = Service("start", "ydrometer", demo=False)
DEMO = Service("demo", "ydrometer_demo", demo=True)
HOST = Service("production", "", demo=False)
"""Serving others, with the database that the environment names."""


@dataclass(frozen=True)
class Reach:
    """From where it can be reached besides this machine: the local network, and there by HTTPS."""

    lan: bool = False
    https: bool = False

    def __post_init__(self) -> None:
        if self.https and not self.lan:
            raise GiveUp("--https is for the local network: add --lan")


def serve(service: Service, port: int, *, fresh: bool = False, reach: Reach = Reach()) -> int:
    """Set up, start, print the address, and look after all of it until told to stop."""
    begun = time.monotonic()
    for sign in (signal.SIGINT, signal.SIGTERM):
        signal.signal(sign, interrupt)
    already = service.running()
    if already:
        print(f"It {_state(already)}:  http://{HERE}:{already.port}/   (./ydro stop ends it)")
        return 0
    if port_taken(port):
        raise GiveUp(f"port {port} is taken by another program: stop that one, or choose another with --port N")
    setup.set_up()
    adopt_orphans()
    service.note(port)
    try:
        lan = local_network(port, https=reach.https) if reach.lan else None
        env = {**prepare(service, fresh=fresh), **(lan.env if lan else {}), **counting(service)}
        # By HTTPS the network's own addresses are not the application's.
        listening = listen(port, EVERYWHERE if lan and not lan.certificate else HERE)
        parts = parts_of(env, listening, service.log)
        if lan and lan.certificate:
            parts.append(Watched("HTTPS", lambda: _launch(lan.terminator, {**os.environ, **SERVING}, service.log)))
        print("· Application …", flush=True)
        with started(parts, port):
            took = time.monotonic() - begun
            print(f"\nYdrometer is ready after {took:.1f} s:  http://127.0.0.1:{port}/\nCtrl-C stops it.", flush=True)
            if lan:
                lan.tell()
            look_after(parts, service.cluster if "DATABASE_URL" not in os.environ else None, service.log)
        return 0
    except KeyboardInterrupt:
        print("\n· stopping", flush=True)
        return 0
    finally:
        signal.signal(signal.SIGINT, signal.SIG_IGN)
        service.record.unlink(missing_ok=True)
        if not any(other.running() for other in (OWN, DEMO) if other.cluster == service.cluster):
            service.cluster.stop()


def parts_of(env: dict[str, str], listening: socket.socket, log: Path | None = None) -> list[Watched]:
    """What serves together: the application behind a socket, a worker and the rig."""
    return [
        Watched("application", lambda: launch(env, listening, log)),
        Watched("worker", lambda: launch_worker(env, log)),
        Watched("rig", lambda: launch_rig(env, log)),
    ]


@contextlib.contextmanager
def started(parts: list[Watched], port: int, address: str = HERE) -> Iterator[None]:
    """The first of them started until it answers, then the others; all of them end with the block."""
    try:
        parts[0].start()
        assert parts[0].running is not None  # it has just been started
        await_answer(parts[0].running, port, address)
        for part in parts[1:]:
            part.start()
        yield
    finally:
        signal.signal(signal.SIGINT, signal.SIG_IGN)
        for part in reversed(parts):
            part.end()


def prepare(service: Service, cluster: Cluster | None = None, *, fresh: bool = False) -> dict[str, str]:
    """The database started and migrated, the demo loaded; the environment to serve in."""
    with say.step("Database"):
        url = own_database(cluster, service) if cluster else database(service)
        env = {**url, "YDROMETER_DEMO": str(int(service.demo))}
        migrate(env, fresh=fresh)
    return env


def counting(service: Service) -> dict[str, str]:
    """Where the processes of the application count for `/metrics`; they begin at 0."""
    folder = RUN / f"metrics-{service.name}"
    shutil.rmtree(folder, ignore_errors=True)
    folder.mkdir()
    return {"PROMETHEUS_MULTIPROC_DIR": str(folder)}


def migrate(env: dict[str, str], *, fresh: bool = False) -> None:
    """Bring a database up to this version.

    Raises:
        GiveUp: a newer version has written it.
    """
    ahead = say.run([PYTHON, "manage.py", "prepare_database", *(["--fresh"] if fresh else [])], env=env, cwd=ROOT)
    if ahead.strip():
        raise GiveUp(
            f"this database was written by a newer Ydrometer ({ahead.strip()}): use that version. Nothing was changed"
        )


def database(service: Service) -> dict[str, str]:
    """The environment in which a service's database is found: by DATABASE_URL, else our own server's."""
    if "DATABASE_URL" in os.environ:
        return dict(os.environ)
    return own_database(service.cluster, service)


def own_database(cluster: Cluster, service: Service) -> dict[str, str]:
    """The environment in which a service's database on a server of ours is found; both are made if need be."""
    cluster.start()
    cluster.need_database(service.database)
    return cluster.env(service.database)


def work() -> int:
    """Run one more worker, for what serves here or for the database that DATABASE_URL names, until told to stop."""
    service = next((service for service in (OWN, DEMO) if service.running()), None)
    if service is None and "DATABASE_URL" not in os.environ:
        raise GiveUp("nothing serves here: ./ydro start first, or name the database of another machine in DATABASE_URL")
    setup.set_up_worker()
    worker = launch_worker(database(service or OWN))
    for sign in (signal.SIGINT, signal.SIGTERM):
        signal.signal(sign, interrupt)
    print("A worker runs. Ctrl-C stops it.", flush=True)
    try:
        return worker.wait()
    except KeyboardInterrupt:
        return 0
    finally:
        signal.signal(signal.SIGINT, signal.SIG_IGN)
        end(worker)


def reset_password(name: str) -> int:
    """Print the link with which somebody who forgot their password chooses a new one."""
    running = OWN.running()
    env = database(OWN)
    try:
        code = say.run([PYTHON, "manage.py", "reset_password", name], env={**env, **SERVING}, cwd=ROOT).strip()
    finally:
        if not running and "DATABASE_URL" not in os.environ and not DEMO.running():
            MAIN.stop()
    named = os.environ.get("ALLOWED_HOSTS", "").split(",")[0]
    where = f"https://{named}" if named else f"http://{HERE}:{running.port if running else 8000}"
    print(f"Within a day and once, a new password for {name}:\n  {where}/reset#{code}")
    print("From another device: the same behind its address of this server.")
    return 0


def launch_worker(env: dict[str, str], log: Path | None = None) -> subprocess.Popen[bytes]:
    """One process that goes through large searches on one core."""
    # Polite from its first moment: loading its libraries would hold up who waits for an answer.
    return _launch(["nice", "-n", "19", PYTHON, "manage.py", "work"], {**env, **SERVING}, log)


def launch_rig(env: dict[str, str], log: Path | None = None) -> subprocess.Popen[bytes]:
    """The one process that does what is ordered of practice rigs."""
    return _launch(["nice", "-n", "10", PYTHON, "manage.py", "rig"], {**env, **SERVING}, log)


def listen(port: int, address: str = HERE) -> socket.socket:
    """A socket that outlives the application: who comes while that starts again waits for it. It is of this machine's
    own unless another address is given.
    """
    try:
        return socket.create_server((address, port), backlog=1024)
    except OSError as error:
        raise GiveUp(f"port {port} cannot be had ({error.strerror}): choose another with --port N") from None


def launch(env: dict[str, str], listening: socket.socket, log: Path | None = None) -> subprocess.Popen[bytes]:
    """The application behind a socket."""
    threads = {"YDROMETER_THREADS": str(os.cpu_count() or 1)}
    port, number = str(listening.getsockname()[1]), listening.fileno()
    command: list[str | Path] = [PYTHON, "-m", "server.config.serve", port, str(number)]
    return _launch(command, {**env, **SERVING, **threads}, log, number)


def _launch(command: list[str | Path], env: dict[str, str], log: Path | None, *kept: int) -> subprocess.Popen[bytes]:
    """A process that a terminal's Ctrl-C does not reach, writing into the log or onto the terminal."""
    if log is not None:
        log.parent.mkdir(exist_ok=True)
    with contextlib.ExitStack() as stack:
        out = stack.enter_context(log.open("ab")) if log is not None else None
        return subprocess.Popen(
            command, env=env, cwd=ROOT, start_new_session=True, stdout=out, stderr=out, pass_fds=kept
        )


def await_answer(application: subprocess.Popen[bytes], port: int, address: str = HERE) -> None:
    """Wait until the application can do its work.

    Raises:
        GiveUp: it ends, or takes too long.
    """
    limit = time.monotonic() + START_LIMIT
    while time.monotonic() < limit:
        if application.poll() is not None:
            raise GiveUp("the application ended while starting: ./ydro logs says why")
        if trouble(port, address) is None:
            return
        time.sleep(0.1)
    raise GiveUp(f"the application does not answer after {START_LIMIT:.0f} s: ./ydro logs says why")


def trouble(port: int, address: str = HERE) -> str | None:
    """What stands in the way of serving at a port, None where nothing does."""
    try:
        with urllib.request.urlopen(_asked(port, address), timeout=5):
            return None
    except urllib.error.HTTPError as error:
        with contextlib.suppress(ValueError):
            return str(json.loads(error.read())["detail"])
        return f"It answers {error.code}."
    except OSError as error:
        return f"It does not answer ({error})."


def _asked(port: int, address: str) -> urllib.request.Request:
    # Whatever names it is served under: it always knows itself by this one.
    where = HERE if address == EVERYWHERE else address
    return urllib.request.Request(f"http://{where}:{port}/readyz", headers={"Host": HERE})


def interrupt(signum: int, frame: FrameType | None) -> None:
    """End what is under way, as Ctrl-C does."""
    raise KeyboardInterrupt


def stop() -> int:
    """End whatever this checkout serves, and its database servers."""
    for service in (OWN, DEMO, HOST):
        running = service.running()
        if running:
            os.kill(running.process, signal.SIGTERM)
            while service.running():
                time.sleep(0.1)
            print(f"· {service.name} stopped")
    for cluster in (MAIN, Cluster("test", durable=False)):
        if cluster.running():
            cluster.stop()
            print(f"· database server {cluster.name} stopped")
    return 0


def status() -> int:
    """Say what runs, and whether it can do its work; 1 where something that runs cannot."""
    wrong = False
    for service in (OWN, DEMO, *([HOST] if HOST.running() else [])):
        running = service.running()
        state = _state(running) if running else ""
        where = f"{state} at http://{running.address}:{running.port}/" if running else "not running"
        wrong = wrong or state not in ("", SERVES)
        print(f"{service.name:10} {where}")
    named = urlsplit(os.environ.get("DATABASE_URL", ""))
    state = f"runs on port {MAIN.port}" if MAIN.running() else "not running"
    where = f"of DATABASE_URL, on {named.hostname}" if named.hostname else f"{state}, in {MAIN.home}"
    print(f"{'database':10} {where}")
    return int(wrong)


def _state(running: Running) -> str:
    fault = trouble(running.port, running.address)
    return SERVES if fault is None else f"runs but cannot serve ({fault})"


def logs(service: Service | None, lines: int) -> int:
    """Print the end of a log: of what is named, else of what runs, else of what ran last."""
    ran = [service for service in (OWN, DEMO) if service.log.exists()]
    if service is None and ran:
        service = max(ran, key=lambda each: (each.running() is not None, each.log.stat().st_mtime))
    if service is None or not service.log.exists():
        raise GiveUp("nothing has been written yet: ./ydro start or demo first")
    print(f"{service.log}:")
    print("\n".join(service.log.read_text(errors="replace").splitlines()[-lines:]))
    return 0
