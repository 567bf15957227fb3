"""Starting the application and everything under it, and stopping all of it again."""

from __future__ import annotations

import os
import signal
import subprocess
import time
import urllib.error
import urllib.request
from dataclasses import dataclass
from pathlib import Path
from types import FrameType

from ops import say, setup
from ops.cluster import Cluster, port_taken
from ops.places import PYTHON, ROOT, RUN, VENV
from ops.say import GiveUp

MAIN = Cluster("main")
# Arrays here are small: threads of the linear algebra library would only wait for each other.
SERVING = {"PYTHONPATH": str(ROOT), "OPENBLAS_NUM_THREADS": "1"}
WATCH_S = 0.5
"""Seconds between looks at what runs."""
START_LIMIT = 60.0
"""Seconds within which the application must answer."""


@dataclass(frozen=True)
class Service:
    """One way of serving: the user's own data, or the demo's."""

    name: str
    database: str
    demo: bool

    @property
    def record(self) -> Path:
        """Holds the process that serves and its port, while it does."""
        return RUN / f"serving-{self.name}"

    def running(self) -> tuple[int, int] | None:
        """(process, port) where it serves now."""
        if not self.record.exists():
            return None
        process, port = map(int, self.record.read_text().split())
        command = Path(f"/proc/{process}/cmdline")
        if command.exists() and b"ops" in command.read_bytes():
            return process, port
        self.record.unlink()
        return None


OWN = Service("start", "ydrometer", demo=False)
DEMO = Service("demo", "ydrometer_demo", demo=True)


def serve(service: Service, port: int) -> int:
    """Set up, start, print the address, and stay until told to stop."""
    begun = time.monotonic()
    for sign in (signal.SIGINT, signal.SIGTERM):
        signal.signal(sign, _interrupt)
    already = service.running()
    if already:
        print(f"It serves already:  http://127.0.0.1:{already[1]}/   (./ydro stop ends it)")
        return 0
    if port_taken(port):
        raise GiveUp(f"port {port} is taken by another program: stop that one, or choose another with --port N")
    setup.set_up()
    service.record.write_text(f"{os.getpid()} {port}")
    application: subprocess.Popen[bytes] | None = None
    worker: subprocess.Popen[bytes] | None = None
    try:
        env = prepare(service)
        application = launch(env, port)
        await_answer(application, port)
        worker = launch_worker(env)
        took = time.monotonic() - begun
        print(f"\nYdrometer is ready after {took:.1f} s:  http://127.0.0.1:{port}/\nCtrl-C stops it.", flush=True)
        while application.poll() is None:
            if worker.poll() is not None:
                print("· the worker has ended; another one starts", flush=True)
                worker = launch_worker(env)
            time.sleep(WATCH_S)
        return application.returncode
    except KeyboardInterrupt:
        print("\n· stopping", flush=True)
        return 0
    finally:
        signal.signal(signal.SIGINT, signal.SIG_IGN)
        end(worker)
        end(application)
        service.record.unlink(missing_ok=True)
        if not any(other.running() for other in (OWN, DEMO)):
            MAIN.stop()


def prepare(service: Service, cluster: Cluster | None = None) -> dict[str, str]:
    """The database started and migrated, the demo loaded; the environment to serve in."""
    with say.step("Database"):
        found = own_database(cluster, service) if cluster else database(service)
        env = {**found, "YDROMETER_DEMO": str(int(service.demo))}
        ahead = say.run([PYTHON, "manage.py", "prepare_database"], env=env, cwd=ROOT).strip()
        if ahead:
            raise GiveUp(
                f"this database was written by a newer Ydrometer ({ahead}): use that version. Nothing was changed"
            )
    return env


def database(service: Service) -> dict[str, str]:
    """The environment in which a service's database is found: by DATABASE_URL, else our own server's."""
    if "DATABASE_URL" in os.environ:
        return dict(os.environ)
    return own_database(MAIN, service)


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
        signal.signal(sign, _interrupt)
    print("A worker runs. Ctrl-C stops it.", flush=True)
    try:
        return worker.wait()
    except KeyboardInterrupt:
        return 0
    finally:
        signal.signal(signal.SIGINT, signal.SIG_IGN)
        end(worker)


def launch_worker(env: dict[str, str]) -> subprocess.Popen[bytes]:
    """One process that goes through large searches on one core."""
    return subprocess.Popen([PYTHON, "manage.py", "work"], env={**env, **SERVING}, cwd=ROOT, start_new_session=True)


def launch(env: dict[str, str], port: int) -> subprocess.Popen[bytes]:
    print("· Application …", flush=True)
    return subprocess.Popen(
        [
            VENV / "bin" / "gunicorn", "server.config.wsgi", "--bind", f"127.0.0.1:{port}", "--workers", "2",
            "--threads", "2", "--keep-alive", "30", "--preload", "--log-level", "warning", "--graceful-timeout", "5",
        ],
        env={**env, **SERVING, "YDROMETER_THREADS": str(os.cpu_count() or 1)}, cwd=ROOT, start_new_session=True,
    )  # fmt: skip


def await_answer(application: subprocess.Popen[bytes], port: int) -> None:
    limit = time.monotonic() + START_LIMIT
    while time.monotonic() < limit:
        if application.poll() is not None:
            raise GiveUp("the application ended while starting; its own words stand above")
        try:
            with urllib.request.urlopen(f"http://127.0.0.1:{port}/api/session/", timeout=5):
                return
        except (urllib.error.URLError, OSError):
            time.sleep(0.1)
    raise GiveUp(f"the application does not answer after {START_LIMIT:.0f} s")


def end(application: subprocess.Popen[bytes] | None) -> None:
    if application is None or application.poll() is not None:
        return
    application.terminate()
    try:
        application.wait(timeout=10)
    except subprocess.TimeoutExpired:
        application.kill()


def _interrupt(signum: int, frame: FrameType | None) -> None:
    raise KeyboardInterrupt


def stop() -> int:
    """End whatever this checkout serves, and its database servers."""
    for service in (OWN, DEMO):
        running = service.running()
        if running:
            os.kill(running[0], signal.SIGTERM)
            while service.running():
                time.sleep(0.1)
            print(f"· {service.name} stopped")
    for cluster in (MAIN, Cluster("test", durable=False)):
        if cluster.running():
            cluster.stop()
            print(f"· database server {cluster.name} stopped")
    return 0


def status() -> int:
    """Say what runs."""
    for service in (OWN, DEMO):
        running = service.running()
        where = f"serves at http://127.0.0.1:{running[1]}/" if running else "not running"
        print(f"{service.name:10} {where}")
    state = f"runs on port {MAIN.port}" if MAIN.running() else "not running"
    print(f"{'database':10} {state}, in {MAIN.home}")
    return 0
