"""python -m server.config.serve PORT [SOCKET]: the application behind a server that buffers, in a few processes.

SOCKET is the number of one that listens on that port already, and that whoever started this keeps open. The processes
go on for a moment when their parent dies, until another one has taken its place.

Waitress reads a request whole before a thread is given to it, so that slow and half-open connections cost no thread.
The processes share one socket; one that dies is replaced, and all of them end with the one that started them.
"""

from __future__ import annotations

import os
import resource
import signal
import socket
import sys
import threading
import time
from dataclasses import dataclass
from types import FrameType
from typing import Any

from waitress.server import create_server

from server.api import limits
from server.config.channels import make_fair
from server.config.heartbeat import Heartbeat, Heartbeats
from server.config.lifeline import die_with_parent
from server.config.politeness import POLITENESS

PROCESSES = 2
THREADS = 5
CONNECTIONS = 800
"""Of each process at once; beyond, new ones wait to be accepted."""
READ_LIMIT_S = 20
"""Seconds in which a request has to arrive whole, and for which an idle connection is kept."""
GRACE_S = 8.0
"""How long the processes go on without their parent, where somebody is there to start another."""
BESIDE_S = 5.0
"""When the process for heavy work is begun: not while everybody waits for the first answers."""
SOON_S = 2.0
"""A process that lived shorter than this is not replaced at once."""
LOOK_S = 0.2
"""How often the processes are looked after."""
SILENT_S = 30.0
"""Seconds after which a process that does not answer is ended."""
STATEMENT_LIMITS = "-c statement_timeout=10s -c lock_timeout=5s -c idle_in_transaction_session_timeout=20s"


def main() -> int:
    """Serve until told to stop; returns the exit status."""
    commander = os.getppid()
    die_with_parent()
    soft, hard = resource.getrlimit(resource.RLIMIT_NOFILE)
    resource.setrlimit(resource.RLIMIT_NOFILE, (min(hard, max(soft, 4096)), hard))
    os.environ["PGOPTIONS"] = STATEMENT_LIMITS
    # Loaded once, and shared by all processes until one writes to it.
    from server.config.wsgi import application  # noqa: PLC0415

    port, *given = map(int, sys.argv[1:])
    listening = socket.socket(fileno=given[0]) if given else socket.create_server(("127.0.0.1", port), backlog=1024)
    return _keep(listening, application, commander if given else 0)


@dataclass(frozen=True, slots=True)
class _Child:
    """A process that answers: its number, when it began, and when it has shown last that it does."""

    process: int
    born: float
    heartbeat: Heartbeat


def _keep(listening: socket.socket, application: Any, commander: int) -> int:
    """Keep the processes alive: one that has died, or hangs, is replaced."""
    heartbeats = [Heartbeats(PROCESSES).of(place) for place in range(PROCESSES)]
    children: dict[int, _Child] = {}
    signal.signal(signal.SIGTERM, _stop)
    signal.signal(signal.SIGINT, _stop)
    try:
        while True:
            for place, heartbeat in enumerate(heartbeats):
                if place not in children:
                    children[place] = _child(listening, application, commander, heartbeat)
            time.sleep(LOOK_S)
            for place, child in list(children.items()):
                if _has_ended(child):
                    del children[place]
    except SystemExit:
        for child in children.values():
            os.kill(child.process, signal.SIGTERM)
        return 0


def _child(listening: socket.socket, application: Any, commander: int, heartbeat: Heartbeat) -> _Child:
    heartbeat.beat()
    process = os.fork()
    if process == 0:
        signal.signal(signal.SIGINT, signal.SIG_IGN)
        _serve(listening, application, commander, heartbeat)
        os._exit(0)
    return _Child(process, time.monotonic(), heartbeat)


def _has_ended(child: _Child) -> bool:
    """Whether a process is gone; one that no longer answers is ended."""
    if child.heartbeat.silent_for() > SILENT_S:
        print(f"process {child.process} has not answered for {SILENT_S:.0f} s and is ended", file=sys.stderr)
        os.kill(child.process, signal.SIGKILL)
        child.heartbeat.beat()
    process, status = os.waitpid(child.process, os.WNOHANG)
    if not process:
        return False
    print(f"process {process} ended with {status}; another one starts", file=sys.stderr, flush=True)
    if time.monotonic() - child.born < SOON_S:
        time.sleep(SOON_S)
    return True


def _serve(listening: socket.socket, application: Any, commander: int, heartbeat: Heartbeat) -> None:
    from server.api import heavy  # noqa: PLC0415  # needs Django's settings
    from server.config import deadline  # noqa: PLC0415

    threading.Timer(BESIDE_S, heavy.warm).start()
    proxies = int(os.environ.get("YDROMETER_PROXIES", "0"))
    behind: dict[str, Any] = {
        "trusted_proxy": "*",
        "trusted_proxy_count": proxies,
        "trusted_proxy_headers": {"x-forwarded-for", "x-forwarded-proto"},
    }
    server = create_server(
        application,
        sockets=[listening],
        threads=THREADS,
        connection_limit=CONNECTIONS,
        asyncore_use_poll=True,
        channel_timeout=READ_LIMIT_S,
        cleanup_interval=2,
        max_request_body_size=limits.BODY,
        ident=None,
        max_request_header_size=32_768,
        **(behind if proxies else {}),
    )
    make_fair(server)
    deadline.watch(server.task_dispatcher, heartbeat)
    # At the end it takes no new connections, while those under way are answered.
    die_with_parent(GRACE_S, commander, lambda: server.trigger.pull_trigger(server.del_channel))
    server.run()


def _stop(signum: int, frame: FrameType | None) -> None:
    raise SystemExit


if __name__ == "__mp_main__":
    # A process for heavy work begins by reading this file: polite before it loads anything else.
    os.setpriority(os.PRIO_PROCESS, 0, POLITENESS)

if __name__ == "__main__":
    sys.exit(main())
