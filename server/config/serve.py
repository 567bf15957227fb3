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
from types import FrameType
from typing import Any

from waitress.server import create_server

from server.api import limits
from server.config.channels import make_fair
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


def _keep(listening: socket.socket, application: Any, commander: int) -> int:
    """Keep the processes alive."""
    born: dict[int, float] = {}
    signal.signal(signal.SIGTERM, _stop)
    signal.signal(signal.SIGINT, _stop)
    try:
        while True:
            while len(born) < PROCESSES:
                born[_fork(listening, application, commander)] = time.monotonic()
            process, status = os.wait()
            print(f"process {process} ended with {status}; another one starts", file=sys.stderr, flush=True)
            if time.monotonic() - born.pop(process) < SOON_S:
                time.sleep(SOON_S)
    except SystemExit:
        for process in born:
            os.kill(process, signal.SIGTERM)
        return 0


def _fork(listening: socket.socket, application: Any, commander: int) -> int:
    process = os.fork()
    if process == 0:
        signal.signal(signal.SIGINT, signal.SIG_IGN)
        _serve(listening, application, commander)
        os._exit(0)
    return process


def _serve(listening: socket.socket, application: Any, commander: int) -> None:
    from server.api import heavy  # noqa: PLC0415  # needs Django's settings
    from server.config import deadline  # noqa: PLC0415

    threading.Timer(BESIDE_S, heavy.warm).start()
    deadline.watch()
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
